import { join } from 'node:path';
import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Database } from 'better-sqlite3';
import { CONFIG, type Config } from '../app/config.ts';
import { DATABASE_FILE } from './check-database.ts';
import { ENTITIES } from './entities.ts';
import { MIGRATIONS } from './migrations/all.ts';
import { Derived } from './derived.ts';
import { OneAtATime } from './one-at-a-time.ts';
import { Writer } from './writer.ts';

/** The database: SQLite in WAL mode, migrated and never synchronised. A commit is on the disk before it is acknowledged. */
@Global()
@Module({
  imports: [
    TypeOrmModule.forRootAsync({
      inject: [CONFIG],
      useFactory: ({ dataFolder, readOnly }: Config) => ({
        type: 'better-sqlite3' as const,
        database: join(dataFolder, DATABASE_FILE),
        entities: ENTITIES,
        migrations: MIGRATIONS,
        readonly: readOnly,
        migrationsRun: !readOnly,
        synchronize: false,
        enableWAL: !readOnly,
        prepareDatabase: (db: Database) => {
          if (!readOnly) db.pragma('synchronous = FULL');
          db.pragma('foreign_keys = ON');
          db.pragma('busy_timeout = 5000');
        },
        retryAttempts: 0,
      }),
    }),
    TypeOrmModule.forFeature(ENTITIES),
  ],
  providers: [Writer, OneAtATime, Derived],
  exports: [TypeOrmModule, Writer, OneAtATime, Derived],
})
export class StoreModule {}
