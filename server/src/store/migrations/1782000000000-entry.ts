import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** The order in which observations were entered: of two with one instant the later entry gives the figures. */
export class Entry1782000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'observations', async () => {
      await runner.query('ALTER TABLE observations ADD COLUMN entry INTEGER NOT NULL DEFAULT 0');
      await runner.query('UPDATE observations SET entry = rowid');
    });
  }

  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'observations', async () => {
      await runner.query('ALTER TABLE observations DROP COLUMN entry');
    });
  }
}
