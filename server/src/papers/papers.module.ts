import { Module } from '@nestjs/common';
import { PapersService } from './papers.service.ts';
import { PapersController } from './papers.controller.ts';

@Module({ controllers: [PapersController], providers: [PapersService], exports: [PapersService] })
export class PapersModule {}
