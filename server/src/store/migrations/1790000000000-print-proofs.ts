import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

/** The proof a print was made by, as a small image: a year later it shows what was meant. */
export class PrintProofs1790000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE print_proofs (id TEXT PRIMARY KEY, at TEXT NOT NULL,
      printId TEXT NOT NULL UNIQUE REFERENCES prints(id) ON DELETE CASCADE,
      contentHash TEXT NOT NULL CHECK (length(contentHash) = 64),
      light TEXT NOT NULL, glass TEXT NOT NULL)`);
    await record(runner, 'print_proofs');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'print_proofs');
    await runner.query('DROP TABLE print_proofs');
  }
}
