import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

const PICTURES = [
  `ALTER TABLE pictures ADD COLUMN caption TEXT NOT NULL DEFAULT ''`,
  // What the hand says of a picture: where it will live, its marks, what it is of. NULL: as it begins, as it was found.
  'ALTER TABLE pictures ADD COLUMN commission TEXT',
  'ALTER TABLE pictures ADD COLUMN marks TEXT',
  'ALTER TABLE pictures ADD COLUMN hints TEXT',
];
/**
 * A score takes the place of a cost, and what is out of reach of what lay outside a solid: figures of two kinds never
 * stand in one column.
 */
const DECISIONS = ['ALTER TABLE decisions ADD COLUMN score REAL', 'ALTER TABLE decisions ADD COLUMN lostShare REAL'];
const MATCHES = `CREATE TABLE matches (id TEXT PRIMARY KEY, at TEXT NOT NULL,
  pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
  name TEXT NOT NULL, inputs TEXT NOT NULL, result TEXT NOT NULL)`;
const SCHOOLS = `CREATE TABLE schools (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL,
  name TEXT NOT NULL, holds TEXT NOT NULL DEFAULT '', weights TEXT NOT NULL)`;

/** Commissions, marks and hints of pictures; matches that are kept; printmakers' own schools. */
export class Commissions1768000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [
      ...PICTURES,
      ...DECISIONS,
      MATCHES,
      'CREATE INDEX matches_picture ON matches(pictureId, at)',
      SCHOOLS,
      'CREATE UNIQUE INDEX schools_one ON schools(name COLLATE NOCASE)',
      // What a sheet does to a picture is computed in the time it takes to look it up.
      'DROP TABLE match_figures',
    ])
      await runner.query(sql);
    for (const table of ['pictures', 'decisions', 'matches', 'schools']) await record(runner, table);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE matches');
    await runner.query('DROP TABLE schools');
    await unrecord(runner, 'pictures');
    for (const column of ['caption', 'commission', 'marks', 'hints'])
      await runner.query(`ALTER TABLE pictures DROP COLUMN ${column}`);
    await unrecord(runner, 'decisions');
    for (const column of ['score', 'lostShare']) await runner.query(`ALTER TABLE decisions DROP COLUMN ${column}`);
    for (const table of ['pictures', 'decisions']) await record(runner, table);
    await runner.query(
      `CREATE TABLE match_figures (pictureId TEXT NOT NULL, conditionId TEXT NOT NULL, readingsKey TEXT NOT NULL, figures TEXT NOT NULL, PRIMARY KEY (pictureId, conditionId))`,
    );
  }
}
