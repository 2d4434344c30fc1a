import { Module } from '@nestjs/common';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { EditionsModule } from '../editions/editions.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { LearnedModule } from '../ledger/learned.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { LabelsService } from './labels.service.ts';
import { PhotographsService } from './photographs.service.ts';
import { MisprintsService } from './misprints.service.ts';
import { PrintsService } from './prints.service.ts';
import { PrintsController } from './prints.controller.ts';

@Module({
  imports: [ConditionsModule, PicturesModule, LearnedModule, EditionsModule, ReadingsModule],
  controllers: [PrintsController],
  providers: [PrintsService, PhotographsService, MisprintsService, LabelsService],
  exports: [PrintsService, MisprintsService],
})
export class PrintsModule {}
