import { join } from 'node:path';
import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Database } from 'better-sqlite3';
import { CONFIG, type Config } from '../app/config.ts';
import { ENTITIES } from './entities.ts';
import { First1760000000000 } from './migrations/1760000000000-first.ts';
import { ReadingPart1760600000000 } from './migrations/1760600000000-reading-part.ts';
import { Compare1765000000000 } from './migrations/1765000000000-compare.ts';
import { Bench1764000000000 } from './migrations/1764000000000-bench.ts';

/** The database: SQLite in WAL mode, migrated and never synchronised. A commit is on the disk before it is acknowledged. */
@Global()
@Module({
  imports: [
    TypeOrmModule.forRootAsync({
      inject: [CONFIG],
      useFactory: (config: Config) => ({
        type: 'better-sqlite3' as const,
        database: join(config.dataFolder, 'rakuen.sqlite'),
        entities: ENTITIES,
        migrations: [First1760000000000, ReadingPart1760600000000, Bench1764000000000, Compare1765000000000],
        migrationsRun: true,
        synchronize: false,
        enableWAL: true,
        prepareDatabase: (db: Database) => {
          db.pragma('synchronous = FULL');
          db.pragma('foreign_keys = ON');
          db.pragma('busy_timeout = 5000');
        },
        retryAttempts: 0,
      }),
    }),
    TypeOrmModule.forFeature(ENTITIES),
  ],
  exports: [TypeOrmModule],
})
export class StoreModule {}
