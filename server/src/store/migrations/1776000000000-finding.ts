import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

/** What the eye found on strips stands with its note, so that the match can say it; and a studio has one card for its scanner. */
export class Finding1776000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE notes ADD COLUMN finding TEXT CHECK (finding IS NULL OR json_valid(finding))');
    await record(runner, 'notes');
    await runner.query(
      `CREATE UNIQUE INDEX one_card ON charts (json_extract(spec, '$.purpose')) WHERE json_extract(spec, '$.purpose') = 'card'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX one_card');
    await unrecord(runner, 'notes');
    await runner.query('ALTER TABLE notes DROP COLUMN finding');
    await record(runner, 'notes');
  }
}
