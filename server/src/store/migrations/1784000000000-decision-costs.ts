import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** What each criterion took from each sheet when a decision was made: an eye is learned from it without matching again. */
export class DecisionCosts1784000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'decisions', () =>
      runner.query('ALTER TABLE decisions ADD COLUMN costs TEXT CHECK (costs IS NULL OR json_valid(costs))'),
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'decisions', () => runner.query('ALTER TABLE decisions DROP COLUMN costs'));
  }
}
