import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, revise, unrecord } from '../record-again.ts';

const TABLES = ['show_papers', 'show_pictures', 'shows'];

/** Shows: pictures that hang together in an order, and what is held of each paper for them. */
export class Shows1786000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [
      `CREATE TABLE shows (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL,
         name TEXT NOT NULL CHECK (trim(name) <> ''), place TEXT NOT NULL DEFAULT '',
         light TEXT, glass TEXT, lux REAL CHECK (lux IS NULL OR lux > 0),
         maxLoss REAL NOT NULL CHECK (maxLoss BETWEEN 0 AND 10),
         sameSurface INTEGER NOT NULL CHECK (sameSurface IN (0, 1)),
         sameWhite INTEGER NOT NULL CHECK (sameWhite IN (0, 1)),
         allPapers INTEGER NOT NULL CHECK (allPapers IN (0, 1)),
         parts INTEGER NOT NULL DEFAULT 0,
         revision INTEGER NOT NULL DEFAULT 1)`,
      'CREATE UNIQUE INDEX shows_one ON shows(name COLLATE NOCASE)',
      `CREATE TABLE show_pictures (id TEXT PRIMARY KEY,
         showId TEXT NOT NULL REFERENCES shows(id) ON DELETE CASCADE,
         pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
         position INTEGER NOT NULL CHECK (position >= 1))`,
      'CREATE UNIQUE INDEX show_pictures_one ON show_pictures(showId, pictureId)',
      'CREATE INDEX show_pictures_of ON show_pictures(pictureId)',
      `CREATE TABLE show_papers (id TEXT PRIMARY KEY,
         showId TEXT NOT NULL REFERENCES shows(id) ON DELETE CASCADE,
         paperId TEXT NOT NULL REFERENCES papers(id) ON DELETE CASCADE,
         standing TEXT NOT NULL CHECK (standing IN ('considered', 'chosen', 'vetoed')))`,
      'CREATE UNIQUE INDEX show_papers_one ON show_papers(showId, paperId)',
      'CREATE INDEX show_papers_of ON show_papers(paperId)',
    ])
      await runner.query(sql);
    for (const table of TABLES) await record(runner, table);
    await revise(runner, 'shows');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await unrecord(runner, table);
      await runner.query(`DROP TABLE ${table}`);
    }
  }
}
