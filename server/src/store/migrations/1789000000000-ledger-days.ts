import type { MigrationInterface, QueryRunner } from 'typeorm';
import { ledgerProjection, withoutProjection } from '../ledger-entries.ts';

/** Entries have the day they are of where the printmaker stands, and are found by the box and by who accepted it. */
export class LedgerDays1789000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [...withoutProjection(), ...ledgerProjection()]) await runner.query(sql);
  }

  /** The projection is computed from what it shows: the one of today holds all that one of before did. */
  async down(): Promise<void> {}
}
