import { readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';
import { FILES_FOLDER, NAMING } from './check-database.ts';

const A_DAY_MS = 24 * 3_600_000;
/** A file is kept before its row is written; after so long none is on its way any more. */
const GRACE_MS = A_DAY_MS;
/** A repeat of a request that comes later than this is a new one. */
const ANSWERS_MS = 7 * A_DAY_MS;
const HASH = /[0-9a-f]{64}/g;

/**
 * Takes away files that nothing speaks of, neither a row nor what lies in the bin, and answers no repeat will ask for.
 * Run before the studio opens: nothing can be on its way in then but what a crash left.
 * @returns how many files went
 */
export async function sweep(database: DataSource, dataFolder: string, now = Date.now()): Promise<number> {
  await database.query('DELETE FROM answers WHERE at < ?', [new Date(now - ANSWERS_MS).toISOString()]);
  const spoken = new Set<string>();
  for (const [table, column] of NAMING)
    for (const { hash } of await database.query<{ hash: string }[]>(
      `SELECT DISTINCT ${column} AS hash FROM ${table} WHERE ${column} IS NOT NULL`,
    ))
      spoken.add(hash);
  for (const { before, after } of await database.query<{ before: string | null; after: string | null }[]>(
    `SELECT before, after FROM events WHERE subject IN (${[...new Set(NAMING.map(([table]) => `'${table}'`))].join()})`,
  ))
    for (const text of [before, after]) for (const [hash] of text?.matchAll(HASH) ?? []) spoken.add(hash);
  let gone = 0;
  const files = join(dataFolder, FILES_FOLDER);
  for (const shelf of readdirSync(files))
    for (const name of readdirSync(join(files, shelf))) {
      const path = join(files, shelf, name);
      if (spoken.has(name) || now - statSync(path).mtimeMs < GRACE_MS) continue;
      rmSync(path);
      gone++;
    }
  return gone;
}
