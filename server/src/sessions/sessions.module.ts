import { Module } from '@nestjs/common';
import { BenchModule } from '../bench/bench.module.ts';
import { ChartsModule } from '../charts/charts.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { SessionsService } from './sessions.service.ts';
import { SessionsController } from './sessions.controller.ts';

@Module({
  imports: [ConditionsModule, ChartsModule, BenchModule, ReadingsModule],
  controllers: [SessionsController],
  providers: [SessionsService],
  exports: [SessionsService],
})
export class SessionsModule {}
