import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { NoteRow } from './notes.entity.ts';
import { NotesService } from './notes.service.ts';
import { NotesController } from './notes.controller.ts';

@Module({
  imports: [TypeOrmModule.forFeature([NoteRow])],
  controllers: [NotesController],
  providers: [NotesService],
  exports: [NotesService],
})
export class NotesModule {}
