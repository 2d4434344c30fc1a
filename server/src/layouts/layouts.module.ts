import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ConditionRow, ObservationRow } from '../conditions/conditions.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { LayoutsService } from './layouts.service.ts';
import { LayoutsController } from './layouts.controller.ts';

@Module({
  imports: [TypeOrmModule.forFeature([PaperRow, ConditionRow, ObservationRow])],
  controllers: [LayoutsController],
  providers: [LayoutsService],
})
export class LayoutsModule {}
