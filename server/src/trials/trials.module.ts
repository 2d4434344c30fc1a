import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { TrialsController } from './trials.controller.ts';
import { TrialsService } from './trials.service.ts';

@Module({
  imports: [ConditionsModule],
  controllers: [TrialsController],
  providers: [TrialsService],
  exports: [TrialsService],
})
export class TrialsModule {}
