import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record } from '../record-again.ts';

/** Photographs and scans of a print, kept with it. */
export class Photographs1772000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE photographs (id TEXT PRIMARY KEY, printId TEXT NOT NULL REFERENCES prints(id) ON DELETE CASCADE,
      at TEXT NOT NULL, contentHash TEXT NOT NULL, fileName TEXT NOT NULL, kind TEXT NOT NULL CHECK (kind IN ('photograph', 'scan')),
      light TEXT NOT NULL DEFAULT '', note TEXT NOT NULL DEFAULT '', widthPx INTEGER NOT NULL CHECK (widthPx > 0),
      heightPx INTEGER NOT NULL CHECK (heightPx > 0), UNIQUE (printId, contentHash))`);
    await record(runner, 'photographs');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE photographs');
  }
}
