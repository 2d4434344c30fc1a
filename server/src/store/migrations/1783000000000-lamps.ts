import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** What is known of a lamp's UV where its spectrum does not show it, and the step its file was read in. */
export class Lamps1783000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'lights', async () => {
      await runner.query(
        `ALTER TABLE lights ADD COLUMN uv TEXT NOT NULL DEFAULT 'unknown'
         CHECK (uv IN ('unknown', 'led', 'filtered', 'tungsten', 'daylight'))`,
      );
      await runner.query('ALTER TABLE lights ADD COLUMN fileStepNm REAL CHECK (fileStepNm IS NULL OR fileStepNm > 0)');
    });
  }

  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'lights', async () => {
      for (const column of ['uv', 'fileStepNm']) await runner.query(`ALTER TABLE lights DROP COLUMN ${column}`);
    });
  }
}
