import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { CostsModule } from '../costs/costs.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { PrintsModule } from '../prints/prints.module.ts';
import { StockModule } from '../stock/stock.module.ts';
import { RunsService } from './runs.service.ts';
import { RunsController } from './runs.controller.ts';

@Module({
  imports: [PrintsModule, ConditionsModule, PicturesModule, CostsModule, StockModule],
  controllers: [RunsController],
  providers: [RunsService],
})
export class RunsModule {}
