import { Module } from '@nestjs/common';
import { ClientsModule } from '../clients/clients.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { EditionsModule } from '../editions/editions.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { LearnedModule } from '../ledger/learned.module.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { PrintFilesModule } from '../print-files/print-files.module.ts';
import { StockModule } from '../stock/stock.module.ts';
import { LabelsService } from './labels.service.ts';
import { PhotographsService } from './photographs.service.ts';
import { MisprintsService } from './misprints.service.ts';
import { PrintChecks } from './print-checks.service.ts';
import { PrintProofs } from './print-proofs.service.ts';
import { PrintSince } from './print-since.service.ts';
import { PrintsService } from './prints.service.ts';
import { PrintsController } from './prints.controller.ts';

@Module({
  imports: [
    ClientsModule,
    ConditionsModule,
    PicturesModule,
    LearnedModule,
    EditionsModule,
    PapersModule,
    PrintFilesModule,
    ProfilesModule,
    ReadingsModule,
    StockModule,
  ],
  controllers: [PrintsController],
  providers: [PrintsService, PrintChecks, PrintProofs, PrintSince, PhotographsService, MisprintsService, LabelsService],
  exports: [PrintsService, PrintChecks, MisprintsService],
})
export class PrintsModule {}
