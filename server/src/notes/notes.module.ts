import { Body, Controller, Delete, HttpCode, Module, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiCreatedResponse, ApiTags } from '@nestjs/swagger';
import { TypeOrmModule } from '@nestjs/typeorm';
import { NoteInput, NoteView } from '@rakuen/contract/notes';
import { NoteRow } from '../store/entities/records.ts';
import { NotesService } from './notes.service.ts';

@ApiTags('ledger')
@Controller('notes')
class NotesController {
  constructor(private readonly notes: NotesService) {}

  @Post()
  @ApiCreatedResponse({ type: NoteView })
  write(@Body() input: NoteInput): Promise<NoteView> {
    return this.notes.write(input);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.notes.remove(id);
  }
}

@Module({
  imports: [TypeOrmModule.forFeature([NoteRow])],
  controllers: [NotesController],
  providers: [NotesService],
  exports: [NotesService],
})
export class NotesModule {}
