import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, unrecord } from '../record-again.ts';

/** What the eye found on strips stands with its note, so that the match can say it. */
export class Finding1776000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE notes ADD COLUMN finding TEXT CHECK (finding IS NULL OR json_valid(finding))');
    await record(runner, 'notes');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'notes');
    await runner.query('ALTER TABLE notes DROP COLUMN finding');
    await record(runner, 'notes');
  }
}
