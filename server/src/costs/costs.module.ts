import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { BenchModule } from '../bench/bench.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { StockModule } from '../stock/stock.module.ts';
import { CostsService } from './costs.service.ts';
import { SpoilageService } from './spoilage.service.ts';
import { CostsController } from './costs.controller.ts';

@Module({
  imports: [ConditionsModule, PicturesModule, PapersModule, StockModule, BenchModule, ProfilesModule],
  controllers: [CostsController],
  providers: [CostsService, SpoilageService],
  exports: [CostsService],
})
export class CostsModule {}
