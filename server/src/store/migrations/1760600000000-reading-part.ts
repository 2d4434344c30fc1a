import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A file may hold several readings (M0, M1 and M2 in one pass); `part` says which of them a row is, from 0. */
export class ReadingPart1760600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE readings ADD COLUMN part INTEGER NOT NULL DEFAULT 0');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE readings DROP COLUMN part');
  }
}
