import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** Tables whose rows results follow from; a result goes with its subject. */
const SUBJECTS = ['conditions', 'readings'];

/** Figures and solids stand with whatever else is derived, under what they were told from, and no longer in the print condition's row. */
export class ToldApart1778000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'conditions', async () => {
      for (const column of ['facts', 'mesh']) await runner.query(`ALTER TABLE conditions DROP COLUMN ${column}`);
    });
    await runner.query(`DELETE FROM derived WHERE subject NOT IN (SELECT id FROM conditions)`);
    for (const table of SUBJECTS)
      await runner.query(
        `CREATE TRIGGER ${table}_derived_end AFTER DELETE ON ${table} BEGIN DELETE FROM derived WHERE subject = OLD.id; END`,
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of SUBJECTS) await runner.query(`DROP TRIGGER ${table}_derived_end`);
    await columnsChange(runner, 'conditions', async () => {
      for (const column of ['facts', 'mesh']) await runner.query(`ALTER TABLE conditions ADD COLUMN ${column} TEXT`);
      // An earlier version computes anew what was computed with other measures than its own.
      await runner.query(
        `UPDATE conditions SET facts = '{"version":0,"figures":{},"outline":[]}'
         WHERE id IN (SELECT conditionId FROM readings UNION SELECT conditionId FROM observations)`,
      );
    });
  }
}
