import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { BenchService } from './bench.service.ts';
import { BenchController } from './bench.controller.ts';

@Module({
  imports: [ConditionsModule],
  controllers: [BenchController],
  providers: [BenchService],
  exports: [BenchService],
})
export class BenchModule {}
