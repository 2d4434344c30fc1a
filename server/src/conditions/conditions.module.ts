import { Module } from '@nestjs/common';
import { PapersModule } from '../papers/papers.module.ts';
import { ConditionsService } from './conditions.service.ts';
import { FactsService } from './facts.service.ts';
import { ObservationsService } from './observations.service.ts';
import { ConditionsController } from './conditions.controller.ts';

@Module({
  imports: [PapersModule],
  controllers: [ConditionsController],
  providers: [ConditionsService, ObservationsService, FactsService],
  exports: [ConditionsService, ObservationsService, FactsService],
})
export class ConditionsModule {}
