import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { BundlesModule } from '../bundles/bundles.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { InboxController } from './inbox.controller.ts';
import { InboxRow } from './inbox.entity.ts';
import { InboxService } from './inbox.service.ts';

@Module({
  imports: [
    TypeOrmModule.forFeature([InboxRow]),
    PapersModule,
    ConditionsModule,
    ReadingsModule,
    ProfilesModule,
    PicturesModule,
    BundlesModule,
    SheetsModule,
  ],
  controllers: [InboxController],
  providers: [InboxService],
})
export class InboxModule {}
