import { type DynamicModule, Global, Module } from '@nestjs/common';
import { APP_INTERCEPTOR } from '@nestjs/core';
import { BackupsModule } from '../backup/backups.module.ts';
import { BenchModule } from '../bench/bench.module.ts';
import { BundlesModule } from '../bundles/bundles.module.ts';
import { ChartsModule } from '../charts/charts.module.ts';
import { ConditionsModule } from '../conditions/conditions.module.ts';
import { DemoSeason } from '../demo/demo-season.ts';
import { DemoStudio } from '../demo/demo-studio.ts';
import { FileStore } from '../files/file-store.ts';
import { EventsModule } from '../events/events.module.ts';
import { InboxModule } from '../inbox/inbox.module.ts';
import { LedgerModule } from '../ledger/ledger.module.ts';
import { MatchesModule } from '../matches/matches.module.ts';
import { PacksModule } from '../packs/packs.module.ts';
import { PapersModule } from '../papers/papers.module.ts';
import { PicturesModule } from '../pictures/pictures.module.ts';
import { ProfilesModule } from '../profiles/profiles.module.ts';
import { PrintsModule } from '../prints/prints.module.ts';
import { ReadingsModule } from '../readings/readings.module.ts';
import { SessionsModule } from '../sessions/sessions.module.ts';
import { ComparisonModule } from '../comparison/comparison.module.ts';
import { EyeModule } from '../eye/eye.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { TrialsModule } from '../trials/trials.module.ts';
import { SettingsModule } from '../settings/settings.module.ts';
import { OneAtATime } from '../store/one-at-a-time.ts';
import { StoreModule } from '../store/store.module.ts';
import { TableModule } from '../table/table.module.ts';
import { UnderWayController } from '../work/under-way.controller.ts';
import { UnderWay } from '../work/under-way.ts';
import { Workshop } from '../work/workshop.ts';
import { CostsModule } from '../costs/costs.module.ts';
import { EditionsModule } from '../editions/editions.module.ts';
import { LayoutsModule } from '../layouts/layouts.module.ts';
import { RunsModule } from '../runs/runs.module.ts';
import { NotesModule } from '../notes/notes.module.ts';
import { ClientsModule } from '../clients/clients.module.ts';
import { ShowsModule } from '../shows/shows.module.ts';
import { StockModule } from '../stock/stock.module.ts';
import { CONFIG, type Config } from './config.ts';

/** What every part may use: the configuration, the kept files, the worker threads. */
@Global()
@Module({
  controllers: [UnderWayController],
  providers: [FileStore, Workshop, UnderWay],
  exports: [FileStore, Workshop, UnderWay],
})
class SharedModule {}

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      global: true,
      imports: [
        SharedModule,
        StoreModule,
        SettingsModule,
        PapersModule,
        ConditionsModule,
        ReadingsModule,
        BenchModule,
        ChartsModule,
        SessionsModule,
        BundlesModule,
        InboxModule,
        SheetsModule,
        ProfilesModule,
        ComparisonModule,
        TrialsModule,
        EyeModule,
        PacksModule,
        PicturesModule,
        MatchesModule,
        PrintsModule,
        CostsModule,
        EditionsModule,
        LayoutsModule,
        RunsModule,
        ClientsModule,
        ShowsModule,
        NotesModule,
        StockModule,
        LedgerModule,
        TableModule,
        EventsModule,
        BackupsModule,
      ],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: APP_INTERCEPTOR, useExisting: OneAtATime },
        DemoStudio,
        DemoSeason,
      ],
      exports: [CONFIG],
    };
  }
}
