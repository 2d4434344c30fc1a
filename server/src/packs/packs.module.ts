import { Module } from '@nestjs/common';
import { ChartsModule } from '../charts/charts.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PacksController } from './packs.controller.ts';
import { PacksService } from './packs.service.ts';

@Module({
  imports: [ChartsModule, ConditionsModule],
  controllers: [PacksController],
  providers: [PacksService],
  exports: [PacksService],
})
export class PacksModule {}
