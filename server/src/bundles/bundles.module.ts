import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { BundlesService } from './bundles.service.ts';
import { BundlesController } from './bundles.controller.ts';

@Module({
  imports: [PapersModule, ConditionsModule, ReadingsModule],
  controllers: [BundlesController],
  providers: [BundlesService],
  exports: [BundlesService],
})
export class BundlesModule {}
