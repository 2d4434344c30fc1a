import type { QueryRunner } from 'typeorm';
import { RECORDED, recordTriggers, type ColumnFacts } from './record.ts';

async function columnsOf(runner: QueryRunner, table: string): Promise<ColumnFacts[]> {
  return (await runner.query(`PRAGMA table_info(${table})`)) as ColumnFacts[];
}

/** Stops recording a table, so that its columns can change. */
export async function unrecord(runner: QueryRunner, table: string): Promise<void> {
  for (const end of ['new', 'change', 'end']) await runner.query(`DROP TRIGGER IF EXISTS ${table}_recorded_${end}`);
}

/** Records a table with the columns it has now. */
export async function record(runner: QueryRunner, table: string): Promise<void> {
  await unrecord(runner, table);
  for (const sql of recordTriggers(table, await columnsOf(runner, table))) await runner.query(sql);
}

/** Counts the changes of a table's rows, whatever column they touch that a hand changes. */
export async function revise(runner: QueryRunner, table: string): Promise<void> {
  if (!(await columnsOf(runner, table)).some((c) => c.name === 'revision')) return;
  await runner.query(`DROP TRIGGER IF EXISTS ${table}_revised`);
  const followed = RECORDED[table].followed ?? [];
  const names = (await columnsOf(runner, table))
    .map((c) => c.name)
    .filter((name) => name !== 'revision' && !followed.includes(name));
  await runner.query(
    `CREATE TRIGGER ${table}_revised AFTER UPDATE ON ${table}
     WHEN NEW.revision = OLD.revision AND (${names.map((n) => `OLD."${n}" IS NOT NEW."${n}"`).join(' OR ')})
     BEGIN UPDATE ${table} SET revision = OLD.revision + 1 WHERE id = NEW.id; END`,
  );
}

/**
 * Changes columns of a table that is recorded and revised. No trigger stands in the way meanwhile: SQLite reads every
 * one of the studio’s again at each such change.
 */
export async function columnsChange(runner: QueryRunner, table: string, change: () => Promise<void>): Promise<void> {
  const triggers = (await runner.query(`SELECT name, sql FROM sqlite_schema WHERE type = 'trigger'`)) as {
    name: string;
    sql: string;
  }[];
  for (const { name } of triggers) await runner.query(`DROP TRIGGER "${name}"`);
  await change();
  const own = new RegExp(`^${table}_(revised|recorded_(new|change|end))$`);
  for (const { name, sql } of triggers) if (!own.test(name)) await runner.query(sql);
  await revise(runner, table);
  await record(runner, table);
}
