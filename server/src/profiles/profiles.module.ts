import { Module } from '@nestjs/common';
import { ChartsModule } from '../charts/charts.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { TableModule } from '../table/table.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { LaidService } from './laid.service.ts';
import { ModelsService } from './models.service.ts';
import { ProfilesService } from './profiles.service.ts';
import { ProfilesController } from './profiles.controller.ts';

@Module({
  imports: [ConditionsModule, ReadingsModule, ChartsModule, PicturesModule, TableModule, SheetsModule],
  controllers: [ProfilesController],
  providers: [ProfilesService, ModelsService, LaidService],
  exports: [ProfilesService, ModelsService, LaidService],
})
export class ProfilesModule {}
