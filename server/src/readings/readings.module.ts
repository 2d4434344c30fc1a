import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { MappingMemory } from './mapping-memory.ts';
import { PlacingService } from './placing.service.ts';
import { ReadingsService } from './readings.service.ts';
import { ReadingsController } from './readings.controller.ts';

@Module({
  imports: [ConditionsModule],
  controllers: [ReadingsController],
  providers: [ReadingsService, MappingMemory, PlacingService],
  exports: [ReadingsService, PlacingService],
})
export class ReadingsModule {}
