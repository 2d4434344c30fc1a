import { Module } from '@nestjs/common';
import { TableService } from './table.service.ts';
import { TableController } from './table.controller.ts';

@Module({ controllers: [TableController], providers: [TableService], exports: [TableService] })
export class TableModule {}
