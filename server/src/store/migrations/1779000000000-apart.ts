import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** Readings that were kept although they resemble another print, and patches that somebody left out of a reading. */
export class Apart1779000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'readings', async () => {
      await runner.query(`ALTER TABLE readings ADD COLUMN apart TEXT CHECK (apart IS NULL OR length(apart) > 0)`);
      await runner.query(
        `ALTER TABLE readings ADD COLUMN leftOut TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(leftOut))`,
      );
    });
  }

  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'readings', async () => {
      for (const column of ['apart', 'leftOut']) await runner.query(`ALTER TABLE readings DROP COLUMN ${column}`);
    });
  }
}
