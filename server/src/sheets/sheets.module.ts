import { Module } from '@nestjs/common';
import { ReadingsModule } from '../readings/readings.module.ts';
import { SheetsService } from './sheets.service.ts';
import { SheetsController } from './sheets.controller.ts';

@Module({
  imports: [ReadingsModule],
  controllers: [SheetsController],
  providers: [SheetsService],
  exports: [SheetsService],
})
export class SheetsModule {}
