import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { ComparisonService } from './comparison.service.ts';
import { ComparisonController } from './comparison.controller.ts';

@Module({
  imports: [ConditionsModule, SheetsModule],
  controllers: [ComparisonController],
  providers: [ComparisonService],
})
export class ComparisonModule {}
