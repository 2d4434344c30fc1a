import { accessSync, constants, existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartError, type Config } from '../app/config.ts';
import { MIGRATIONS } from './migrations/all.ts';

export const DATABASE_FILE = 'rakuen.sqlite';
export const FILES_FOLDER = 'files';

/** Columns that name a kept file by its hash, where any are named. */
export const NAMING: readonly (readonly [table: string, column: string])[] = [
  ['readings', 'contentHash'],
  ['observations', 'scanHash'],
  ['pictures', 'contentHash'],
  ['pictures', 'previewHash'],
  ['profiles', 'contentHash'],
  ['profile_checks', 'contentHash'],
  ['photographs', 'contentHash'],
  ['print_proofs', 'contentHash'],
  ['inbox', 'contentHash'],
];

const keeps = (folder: string) =>
  existsSync(join(folder, FILES_FOLDER)) && readdirSync(join(folder, FILES_FOLDER)).length > 0;

/** Whether nothing was ever kept here: the demo studio may be laid out. */
export const isNew = (folder: string): boolean =>
  !existsSync(join(folder, DATABASE_FILE)) || isBlank(join(folder, DATABASE_FILE));

/** A start that was cut short before it wrote anything leaves a file of no length. */
const isBlank = (path: string) =>
  statSync(path).size === 0 && !(existsSync(`${path}-wal`) && statSync(`${path}-wal`).size > 0);

/**
 * Looks a kept studio over before anything is written to it: whether the database is there and whole, whether this
 * program is new enough for it, and whether the files it speaks of are there.
 * @throws StartError in one line: what is wrong, and what to do
 */
export function checkDatabase({ dataFolder, readOnly }: Pick<Config, 'dataFolder' | 'readOnly'>): void {
  const path = join(dataFolder, DATABASE_FILE);
  const advice =
    'Put a backup back into an empty folder (npm run restore), or choose another folder with --data FOLDER.';
  if (!existsSync(path)) {
    if (readOnly || keeps(dataFolder))
      throw new StartError(
        `The database ${path} is missing${keeps(dataFolder) ? ' beside kept files' : ''}; nothing was written. ${advice}`,
      );
    return;
  }
  if (isBlank(path)) {
    if (!readOnly && !keeps(dataFolder)) return;
    throw new StartError(
      `The database ${path} is empty${keeps(dataFolder) ? ' beside kept files' : ''}; nothing was written. ${advice}`,
    );
  }
  if (!readOnly) refuseUnwritable(path);
  let database: Database.Database | undefined;
  try {
    database = new Database(path, { readonly: true, fileMustExist: true });
    refuseDamaged(database, path, readOnly);
    refuseNewer(database, path);
    if (!readOnly) refuseLacking(database, dataFolder);
  } catch (error) {
    if (error instanceof StartError) throw error;
    const { code, message } = error as { code?: string; message: string };
    if (code === 'SQLITE_CANTOPEN' || code === 'SQLITE_READONLY_DIRECTORY')
      throw new StartError(
        `The database ${path} can’t be opened (${code}): look at the rights of the folder and the disk.`,
      );
    throw new StartError(
      `The database ${path} is damaged (${message}); nothing was written. ${advice} With --read-only what can still be read is shown.`,
    );
  } finally {
    database?.close();
  }
}

function refuseUnwritable(path: string): void {
  try {
    accessSync(path, constants.W_OK);
  } catch (error) {
    throw new StartError(
      `The database ${path} can’t be written (${(error as NodeJS.ErrnoException).code}). Change its rights, or start with --read-only to look at it.`,
    );
  }
}

function refuseDamaged(database: Database.Database, path: string, readOnly: boolean): void {
  const found = database.pragma('quick_check(1)', { simple: true }) as string;
  if (found !== 'ok' && !readOnly)
    throw new StartError(
      `The database ${path} is damaged (${found.split('\n')[0]}); nothing was written. Put a backup back (npm run restore), or start with --read-only to see what can still be read.`,
    );
}

function refuseNewer(database: Database.Database, path: string): void {
  const has = database.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'migrations'").get();
  if (!has) return;
  const known = new Set(MIGRATIONS.map((m) => m.name));
  const rows = database.prepare('SELECT name FROM migrations').all() as { name: string }[];
  const unknown = rows.find(({ name }) => !known.has(name));
  if (unknown)
    throw new StartError(
      `The database ${path} was written by a newer Rakuen (${unknown.name}); nothing was changed. Start that one, or choose another folder with --data FOLDER.`,
    );
}

function refuseLacking(database: Database.Database, dataFolder: string): void {
  const tables = new Set(
    (database.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").all() as { name: string }[]).map(
      (t) => t.name,
    ),
  );
  const lacking = NAMING.filter(([table]) => tables.has(table)).flatMap(([table, column]) =>
    (
      database.prepare(`SELECT DISTINCT ${column} AS hash FROM ${table} WHERE ${column} IS NOT NULL`).all() as {
        hash: string;
      }[]
    ).filter(({ hash }) => !existsSync(join(dataFolder, FILES_FOLDER, hash.slice(0, 2), hash))),
  );
  if (lacking.length > 0)
    throw new StartError(
      `${lacking.length} kept ${lacking.length === 1 ? 'file is' : 'files are'} missing from ${join(dataFolder, FILES_FOLDER)} (the first is ${lacking[0].hash.slice(0, 12)}…); nothing was written. Copy the folder “files” of the studio too, put a backup back (npm run restore), or start with --read-only.`,
    );
}

/** The first step that a studio's database has still to take; undefined where it is today's, or not there. */
export function pendingMigration(dataFolder: string): string | undefined {
  if (isNew(dataFolder)) return undefined;
  const database = new Database(join(dataFolder, DATABASE_FILE), { readonly: true });
  try {
    const taken = new Set(
      (database.prepare('SELECT name FROM migrations').all() as { name: string }[]).map((row) => row.name),
    );
    return MIGRATIONS.find((m) => !taken.has(m.name))?.name;
  } catch {
    // No list of steps: a database that was begun and never written to.
    return undefined;
  } finally {
    database.close();
  }
}
