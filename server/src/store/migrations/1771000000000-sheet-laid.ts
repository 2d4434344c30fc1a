import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

/** Which sheet of a chart lies under the instrument. */
export class SheetLaid1771000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sessions ADD COLUMN sheetLaid INTEGER');
    await record(runner, 'sessions');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'sessions');
    await runner.query('ALTER TABLE sessions DROP COLUMN sheetLaid');
    await record(runner, 'sessions');
  }
}
