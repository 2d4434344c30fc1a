import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, revise, unrecord } from '../record-again.ts';

/** Pictures count their changes, so that the second of two windows is told. */
export class PictureRevision1773000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE pictures ADD COLUMN revision INTEGER NOT NULL DEFAULT 1');
    await record(runner, 'pictures');
    await revise(runner, 'pictures');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TRIGGER pictures_revised');
    await unrecord(runner, 'pictures');
    await runner.query('ALTER TABLE pictures DROP COLUMN revision');
    await record(runner, 'pictures');
  }
}
