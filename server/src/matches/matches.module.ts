import { Module } from '@nestjs/common';
import { ChartsModule } from '../charts/charts.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { NotesModule } from '../notes/notes.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { PrintFilesModule } from '../print-files/print-files.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { TrialsModule } from '../trials/trials.module.ts';
import { PrintFileWriter } from './print-file-writer.service.ts';
import { RecipesController } from './recipes.controller.ts';
import { RecipesService } from './recipes.service.ts';
import { StripsController } from './strips.controller.ts';
import { ProofController } from './proof.controller.ts';
import { PictureColours } from './picture-colours.service.ts';
import { PicturesForSheet } from './pictures-for-sheet.service.ts';
import { SheetsAtHand } from './sheets-at-hand.service.ts';
import { MatchesService } from './matches.service.ts';
import { MatchesController } from './matches.controller.ts';

@Module({
  imports: [
    ChartsModule,
    ConditionsModule,
    NotesModule,
    PicturesModule,
    PrintFilesModule,
    ProfilesModule,
    ReadingsModule,
    TrialsModule,
  ],
  controllers: [MatchesController, ProofController, RecipesController, StripsController],
  providers: [MatchesService, PictureColours, PrintFileWriter, PicturesForSheet, RecipesService, SheetsAtHand],
  exports: [MatchesService, PictureColours, SheetsAtHand],
})
export class MatchesModule {}
