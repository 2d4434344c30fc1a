import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartError } from '../app/config.ts';

/** Who holds a folder, as it is written beside the lock. */
interface Holder {
  readonly pid: number;
  readonly since: string;
  readonly address?: string;
}

const LOCK = 'rakuen.lock';
const HOLDER = 'rakuen.lock.json';

/**
 * One folder, one server. The lock is SQLite's own on a file of its own: the system lets go of it when the process ends, however it
 * ends, so that none is ever stale. Who holds it is written beside it, to be told to whoever comes second.
 */
export class FolderLock {
  private constructor(
    private readonly folder: string,
    private readonly lock: Database.Database,
  ) {}

  /** @throws StartError when another process holds the folder; nothing in it was touched then */
  static take(folder: string): FolderLock {
    let lock: Database.Database | undefined;
    try {
      lock = new Database(join(folder, LOCK), { timeout: 0 });
      lock.exec('BEGIN EXCLUSIVE');
    } catch (error) {
      lock?.close();
      const { code, message } = error as { code?: string; message: string };
      if (code === 'SQLITE_BUSY') throw new StartError(heldBy(folder));
      throw new StartError(
        `The data folder ${folder} can’t be locked: ${code ?? message}. Choose another with --data FOLDER.`,
      );
    }
    const held = new FolderLock(folder, lock);
    held.tell();
    return held;
  }

  /** Tells the next who comes where this server is. */
  tell(address?: string): void {
    const holder: Holder = { pid: process.pid, since: new Date().toISOString(), address };
    try {
      writeFileSync(join(this.folder, HOLDER), JSON.stringify(holder));
    } catch {
      // A full disk keeps nobody from reading: the lock holds without its label.
    }
  }

  release(): void {
    rmSync(join(this.folder, HOLDER), { force: true });
    this.lock.close();
  }
}

function heldBy(folder: string): string {
  let who = 'another Rakuen';
  try {
    const { pid, since, address } = JSON.parse(readFileSync(join(folder, HOLDER), 'utf8')) as Holder;
    who = `another Rakuen: process ${pid}, since ${since}${address ? `, at ${address}` : ''}`;
  } catch {
    // It holds the folder and has not yet said who it is.
  }
  return `The data folder ${folder} is held by ${who}. Use that one, stop it first, or choose another folder with --data FOLDER.`;
}
