import type { MigrationInterface, QueryRunner } from 'typeorm';
import { BEFORE_MOVES, ledgerProjection, withoutNotes, withoutProjection } from '../ledger-entries.ts';
import { record, unrecord } from '../record-again.ts';

/** Notes, and the ledger tells them; a misprint tells its print. */
export class Notes1775000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE notes (id TEXT PRIMARY KEY, at TEXT NOT NULL, text TEXT NOT NULL CHECK (trim(text) <> ''),
      "by" TEXT NOT NULL DEFAULT '', pictureId TEXT REFERENCES pictures(id) ON DELETE CASCADE,
      paperId TEXT REFERENCES papers(id) ON DELETE CASCADE, conditionId TEXT REFERENCES conditions(id) ON DELETE CASCADE)`);
    await record(runner, 'notes');
    for (const sql of [...withoutProjection(), ...ledgerProjection(BEFORE_MOVES)]) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const sql of withoutProjection()) await runner.query(sql);
    await unrecord(runner, 'notes');
    await runner.query('DROP TABLE notes');
    for (const sql of ledgerProjection(withoutNotes(BEFORE_MOVES))) await runner.query(sql);
  }
}
