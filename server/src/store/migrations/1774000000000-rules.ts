import type { MigrationInterface, QueryRunner } from 'typeorm';
import { record, revise, unrecord } from '../record-again.ts';

/** What holds for the whole studio gets rows of its own, recorded like all that is decided, so that each change of it can be undone. */
export class Rules1774000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE rules (id TEXT PRIMARY KEY CHECK (id IN ('settings', 'rates')), value TEXT, revision INTEGER NOT NULL DEFAULT 1)`,
    );
    // Both are always there; no value: nobody has said anything yet.
    for (const id of ['settings', 'rates'])
      await runner.query(
        `INSERT INTO rules (id, value, revision) SELECT ?, (SELECT json_remove(value, '$.revision') FROM documents WHERE key = ?),
           COALESCE((SELECT json_extract(value, '$.revision') FROM documents WHERE key = ?), 1)`,
        [id, id, id],
      );
    await runner.query("DELETE FROM documents WHERE key IN ('settings', 'rates')");
    await runner.query(
      `CREATE TRIGGER rules_remain BEFORE DELETE ON rules BEGIN SELECT RAISE(ABORT, 'what holds for the studio is changed, never removed'); END`,
    );
    await record(runner, 'rules');
    await revise(runner, 'rules');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'rules');
    await runner.query(
      `INSERT INTO documents (key, value) SELECT id, json_set(value, '$.revision', revision) FROM rules WHERE value IS NOT NULL`,
    );
    await runner.query('DROP TRIGGER rules_remain');
    await runner.query('DROP TRIGGER rules_revised');
    await runner.query('DROP TABLE rules');
  }
}
