import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartError } from '../app/config.ts';
import { DATABASE_FILE, FILES_FOLDER, isNew } from '../store/check-database.ts';
import { RECORDED } from '../store/record.ts';
import { keptFiles, sha256 } from './backup-file.ts';
import { readZip, writeZip } from './zip.ts';

const STUDIO = 'studio.json';
/** Tables that earlier archives do not have. */
const LATER = new Set(
  'profile_checks matches schools boxes causes misprints editions numbers runs run_items recipes photographs rules notes inbox shows show_pictures show_papers print_files print_proofs clients places orders order_lines moves'.split(
    ' ',
  ),
);
/** What is told of a studio: all that was recorded, and what is set. Figures are left out: they are computed from what is told. */
const TABLES = [...Object.keys(RECORDED), 'column_mappings', 'documents', 'events', 'undoings'];

type Cell = string | number | null | { readonly base64: string };
type Row = Record<string, Cell>;

interface Studio {
  readonly format: 'rakuen-studio';
  readonly version: 1;
  readonly writtenAt: string;
  readonly tables: Readonly<Record<string, readonly Row[]>>;
  readonly files: readonly string[];
}

/** Writes a studio as an open archive: `studio.json` with every row, and the kept files as they came. See docs/formats.md. */
export async function exportStudio(dataFolder: string, to: string): Promise<void> {
  const database = new Database(join(dataFolder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  let studio: Studio;
  try {
    const rowsOf = (table: string): Row[] =>
      (database.prepare(`SELECT * FROM ${table} ORDER BY rowid`).all() as Record<string, unknown>[]).map((row) =>
        Object.fromEntries(
          Object.entries(row).map(([column, v]) => [
            column,
            Buffer.isBuffer(v) ? { base64: v.toString('base64') } : (v as Cell),
          ]),
        ),
      );
    // One moment for all tables.
    const tables = database.transaction(() => Object.fromEntries(TABLES.map((t) => [t, rowsOf(t)])))();
    studio = {
      format: 'rakuen-studio',
      version: 1,
      writtenAt: new Date().toISOString(),
      tables,
      files: await keptFiles(dataFolder),
    };
  } finally {
    database.close();
  }
  await writeZip(to, [
    { name: STUDIO, bytes: Buffer.from(JSON.stringify(studio, null, 1)) },
    ...studio.files.map((name) => ({ name: `${FILES_FOLDER}/${name}`, path: join(dataFolder, FILES_FOLDER, name) })),
  ]);
}

/**
 * Brings an archive into an empty folder.
 * @param migrate makes an empty database of today's in a folder
 * @throws StartError; nothing is left behind then
 */
export async function importStudio(
  dataFolder: string,
  from: string,
  migrate: (folder: string) => Promise<void>,
): Promise<void> {
  await mkdir(dataFolder, { recursive: true, mode: 0o700 });
  if (!isNew(dataFolder) || (await keptFiles(dataFolder)).length > 0)
    throw new StartError(`There is a studio in ${dataFolder} already. Choose an empty folder with --data FOLDER.`);
  const draft = join(dataFolder, `importing-${randomUUID()}`);
  const fault = (why: string) =>
    new StartError(`The archive ${from} can’t be brought in: ${why}. Nothing was changed.`);
  try {
    await mkdir(draft, { recursive: true, mode: 0o700 });
    await readZip(from, draft).catch((error: Error) => {
      throw fault(error.message);
    });
    const studio = await parse(join(draft, STUDIO)).catch((error: Error) => {
      throw fault(error.message);
    });
    for (const name of studio.files)
      if ((await sha256(join(draft, FILES_FOLDER, name)).catch(() => '')) !== name.slice(3))
        throw fault(`the kept file ${name.slice(3, 15)}… is missing or changed`);
    await migrate(draft);
    try {
      fill(join(draft, DATABASE_FILE), studio);
    } catch (error) {
      throw fault((error as Error).message);
    }
    await mkdir(join(draft, FILES_FOLDER), { recursive: true });
    await rename(join(draft, FILES_FOLDER), join(dataFolder, FILES_FOLDER));
    await rename(join(draft, DATABASE_FILE), join(dataFolder, DATABASE_FILE));
  } finally {
    await rm(draft, { recursive: true, force: true });
  }
}

async function parse(path: string): Promise<Studio> {
  const studio = JSON.parse(await readFile(path, 'utf8')) as Studio;
  if (studio.format !== 'rakuen-studio' || studio.version !== 1 || !Array.isArray(studio.files))
    throw new Error('it is of another kind, or of a newer Rakuen');
  for (const table of TABLES)
    if (!Array.isArray(studio.tables[table]) && !LATER.has(table)) throw new Error(`it lacks “${table}”`);
  const { documents, numbers = [] } = studio.tables;
  return { ...studio, tables: { rules: rulesOf(documents), moves: firstMoves(numbers), ...studio.tables } };
}

/** Earlier archives keep what holds for the studio among the documents. */
function rulesOf(documents: readonly Row[]): Row[] {
  return ['settings', 'rates'].map((id) => {
    const said = documents.find((d) => d.key === id)?.value;
    const { revision, ...value } = JSON.parse(typeof said === 'string' ? said : '{}') as { revision?: number };
    return { id, value: said === undefined ? null : JSON.stringify(value), revision: revision ?? 1 };
  });
}

/** What a number said of where it is in earlier archives, as it is said now. */
const FATES_BEFORE: Readonly<Record<string, string>> = {
  here: 'studio',
  sold: 'sold',
  gifted: 'given',
  destroyed: 'destroyed',
  returned: 'studio',
};

const said = (cell: Cell | undefined): boolean => cell !== null && cell !== undefined;

/** Earlier archives keep with each number where its print is; it becomes its first move. */
function firstMoves(numbers: readonly Row[]): Row[] {
  return numbers
    .filter((n) => typeof n.fate === 'string' && (n.fate !== 'here' || n.note || n.fateTo || said(n.price)))
    .map((n) => {
      const at = String(n.fateOn ?? n.givenAt);
      const priced = said(n.price) && said(n.currency);
      return {
        id: randomUUID(),
        recordedAt: at,
        numberId: n.id ?? null,
        to: FATES_BEFORE[String(n.fate)] ?? 'studio',
        copies: 1,
        withWhom: n.fateTo ?? '',
        on: at.slice(0, 10),
        price: priced ? n.price : null,
        currency: priced ? n.currency : null,
        note: n.note ?? '',
      };
    });
}

/** Puts the rows in as they were, without recording that as if somebody had made them today. */
function fill(path: string, { tables }: Studio): void {
  const database = new Database(path);
  try {
    const triggers = database.prepare("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").all() as {
      name: string;
      sql: string;
    }[];
    database.pragma('foreign_keys = OFF');
    database.transaction(() => {
      for (const { name } of triggers) database.exec(`DROP TRIGGER ${name}`);
      for (const table of TABLES) {
        database.exec(`DELETE FROM ${table}`);
        const columns = (database.pragma(`table_info(${table})`) as { name: string }[]).map((c) => c.name);
        for (const row of tables[table] ?? []) {
          const known = columns.filter((c) => c in row);
          database
            .prepare(
              `INSERT INTO ${table} (${known.map((c) => `"${c}"`).join(', ')}) VALUES (${known.map(() => '?').join(', ')})`,
            )
            .run(known.map((c) => value(row[c])));
        }
      }
      for (const { sql } of triggers) database.exec(sql);
      const broken = database.pragma('foreign_key_check') as { table: string }[];
      if (broken.length > 0) throw new Error(`rows of “${broken[0].table}” speak of others that are not there`);
    })();
  } finally {
    database.close();
  }
}

const value = (cell: Cell) => (typeof cell === 'object' && cell !== null ? Buffer.from(cell.base64, 'base64') : cell);
