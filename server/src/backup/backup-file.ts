import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartError } from '../app/config.ts';
import { checkDatabase, DATABASE_FILE, FILES_FOLDER, isNew } from '../store/check-database.ts';
import { readZip, writeZip } from './zip.ts';

/** What an archive says of itself. */
interface Manifest {
  readonly format: 'rakuen-backup';
  readonly version: 1;
  readonly writtenAt: string;
  /** SHA-256 of the database, hex. The kept files carry theirs as their names. */
  readonly database: string;
  readonly files: readonly string[];
}

const MANIFEST = 'manifest.json';

export async function sha256(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** Names of the kept files, "ab/abcd…". */
export async function keptFiles(folder: string): Promise<string[]> {
  const files = join(folder, FILES_FOLDER);
  if (!existsSync(files)) return [];
  const names = await Promise.all(
    (await readdir(files)).map(async (sub) => (await readdir(join(files, sub))).map((name) => `${sub}/${name}`)),
  );
  return names.flat().sort();
}

/**
 * One file that holds a studio: its database as it stands at one moment, and its kept files. The server may go on
 * writing: what it writes after that moment is not in it. Files are kept before the rows that name them, so that every
 * row in it finds its file.
 */
export async function writeBackup(dataFolder: string, to: string, signal?: AbortSignal): Promise<void> {
  const copy = join(dataFolder, `backup-${randomUUID()}.sqlite`);
  try {
    const database = new Database(join(dataFolder, DATABASE_FILE), { readonly: true, fileMustExist: true });
    try {
      database.pragma('busy_timeout = 10000');
      database.prepare('VACUUM INTO ?').run(copy);
    } finally {
      database.close();
    }
    const files = await keptFiles(dataFolder);
    const manifest: Manifest = {
      format: 'rakuen-backup',
      version: 1,
      writtenAt: new Date().toISOString(),
      database: await sha256(copy),
      files,
    };
    const entries = [
      { name: MANIFEST, bytes: Buffer.from(JSON.stringify(manifest, null, 1)) },
      { name: DATABASE_FILE, path: copy },
      ...files.map((name) => ({ name: `${FILES_FOLDER}/${name}`, path: join(dataFolder, FILES_FOLDER, name) })),
    ];
    await writeZip(to, entries, signal);
  } finally {
    await rm(copy, { force: true });
  }
}

const unsound = (from: string, why: string) =>
  new StartError(`The backup ${from} can’t be put back: ${why}. Nothing was changed; choose another backup.`);

/** Unpacks a backup and looks every part of it over. @throws StartError */
async function unpack(from: string, folder: string): Promise<void> {
  if (!existsSync(from)) throw unsound(from, 'there is no such file');
  const names = await readZip(from, folder).catch((error: Error) => {
    throw unsound(from, error.message);
  });
  let manifest: Manifest;
  try {
    manifest = JSON.parse(await readFile(join(folder, MANIFEST), 'utf8')) as Manifest;
  } catch {
    throw unsound(from, 'it has no manifest and was not written by Rakuen');
  }
  if (manifest.format !== 'rakuen-backup' || manifest.version !== 1 || !Array.isArray(manifest.files))
    throw unsound(from, 'its manifest is of another kind, or of a newer Rakuen');
  if (!names.includes(DATABASE_FILE) || (await sha256(join(folder, DATABASE_FILE))) !== manifest.database)
    throw unsound(from, 'its database is not the one that was put in');
  for (const name of manifest.files) {
    const hash = name.slice(3);
    const path = join(folder, FILES_FOLDER, name);
    if (!names.includes(`${FILES_FOLDER}/${name}`) || (await sha256(path)) !== hash)
      throw unsound(from, `the kept file ${hash.slice(0, 12)}… is missing or changed`);
  }
  checkDatabase({ dataFolder: folder, readOnly: false });
}

/** Where a studio goes that another is put over. */
const asideName = () => `replaced-${new Date().toISOString().replaceAll(/[:.]/g, '-')}`;

/** Looks a backup over without putting anything back. @throws StartError */
export async function checkBackup(dataFolder: string, from: string): Promise<void> {
  const draft = join(dataFolder, `checking-${randomUUID()}`);
  try {
    await mkdir(draft, { recursive: true, mode: 0o700 });
    await unpack(from, draft);
  } finally {
    await rm(draft, { recursive: true, force: true });
  }
}

/**
 * Puts a backup back, looked over first. A studio that is there already is moved aside, whole, into a folder beside it.
 * @returns the folder it was moved to, where there was one
 * @throws StartError; nothing was changed then
 */
export async function restoreBackup(dataFolder: string, from: string, over: boolean): Promise<string | undefined> {
  await mkdir(dataFolder, { recursive: true, mode: 0o700 });
  const occupied = !isNew(dataFolder) || (await keptFiles(dataFolder)).length > 0;
  if (occupied && !over)
    throw new StartError(
      `There is a studio in ${dataFolder} already. Choose an empty folder, or say --over: it is then moved aside and kept.`,
    );
  const draft = join(dataFolder, `restoring-${randomUUID()}`);
  try {
    await mkdir(draft, { recursive: true, mode: 0o700 });
    await unpack(from, draft);
    const aside = occupied ? join(dataFolder, asideName()) : undefined;
    if (aside) {
      await mkdir(aside, { mode: 0o700 });
      for (const name of [`${DATABASE_FILE}-wal`, `${DATABASE_FILE}-shm`, DATABASE_FILE, FILES_FOLDER])
        if (existsSync(join(dataFolder, name))) await rename(join(dataFolder, name), join(aside, name));
    }
    await mkdir(join(draft, FILES_FOLDER), { recursive: true });
    await rename(join(draft, FILES_FOLDER), join(dataFolder, FILES_FOLDER));
    await rename(join(draft, DATABASE_FILE), join(dataFolder, DATABASE_FILE));
    return aside;
  } finally {
    await rm(draft, { recursive: true, force: true });
  }
}
