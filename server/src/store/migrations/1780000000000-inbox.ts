import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

/** Files that came in and wait for the place they belong to. What was refused is not kept; what waits is kept once. */
export class Inbox1780000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE inbox (id TEXT PRIMARY KEY, at TEXT NOT NULL, name TEXT NOT NULL CHECK (trim(name) <> ''),
      bytes INTEGER NOT NULL CHECK (bytes >= 0), contentHash TEXT,
      kind TEXT NOT NULL CHECK (kind IN ('readings', 'profile', 'picture', 'bundle', 'lamp', 'strange')),
      found TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(found)), fault TEXT, remedy TEXT,
      importedAt TEXT, importedAs TEXT,
      conditionId TEXT REFERENCES conditions(id) ON DELETE SET NULL,
      CHECK (fault IS NULL OR (importedAt IS NULL AND contentHash IS NULL)),
      CHECK (fault IS NOT NULL OR contentHash IS NOT NULL))`);
    await runner.query('CREATE UNIQUE INDEX inbox_waits_once ON inbox(contentHash) WHERE importedAt IS NULL');
    await record(runner, 'inbox');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'inbox');
    await runner.query('DROP TABLE inbox');
  }
}
