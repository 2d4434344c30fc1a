import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';
import { BEFORE_MOVES, ledgerProjection, withoutProjection } from '../ledger-entries.ts';

/** Entries have the day they are of where the printmaker stands, and are found by the box and by who accepted it; a run says when a feeder is loaded. */
export class LedgerDays1789000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [...withoutProjection(), ...ledgerProjection(BEFORE_MOVES)]) await runner.query(sql);
    await columnsChange(runner, 'run_items', () =>
      runner.query('ALTER TABLE run_items ADD COLUMN loads TEXT CHECK (loads IS NULL OR json_valid(loads))'),
    );
  }

  /** The projection is computed from what it shows: the one of today holds all that one of before did. */
  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'run_items', () => runner.query('ALTER TABLE run_items DROP COLUMN loads'));
  }
}
