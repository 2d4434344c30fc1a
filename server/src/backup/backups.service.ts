import { existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import type { BackupView } from '@rakuen/contract/backups';
import { CONFIG, StartError, type Config } from '../app/config.ts';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { checkBackup, writeBackup } from './backup-file.ts';

export const BACKUPS_FOLDER = 'backups';
/** A backup that is put back at the next start. */
export const NEXT_START = 'restore-at-next-start.zip';
const NAME = /^(daily|asked|before)-[\w.-]+\.zip$/;
const A_DAY_MS = 24 * 3_600_000;
const AN_HOUR_MS = 3_600_000;
const FIRST_LOOK_MS = 60_000;
const KEPT = 7;

const stamped = (kind: string, at: Date) => `${kind}-${at.toISOString().slice(0, 19).replaceAll(':', '-')}.zip`;

/** Backups of the studio: on demand, daily, before every change of the database's form; and one put back. */
@Injectable()
export class BackupsService implements OnApplicationBootstrap, OnModuleDestroy {
  private first?: NodeJS.Timeout;
  private timer?: NodeJS.Timeout;
  private last: Promise<unknown> = Promise.resolve();
  private readonly closing = new AbortController();

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    private readonly settings: SettingsService,
    private readonly files: FileStore,
  ) {}

  private get folder(): string {
    return join(this.config.dataFolder, BACKUPS_FOLDER);
  }

  onApplicationBootstrap(): void {
    if (this.config.readOnly || this.config.draft) return;
    const look = () =>
      void this.daily().catch((error: unknown) => {
        if (!this.closing.signal.aborted) console.error(error);
      });
    // Not while the studio opens: nobody waits for it.
    this.first = setTimeout(look, FIRST_LOOK_MS).unref();
    this.timer = setInterval(look, AN_HOUR_MS).unref();
  }

  /** Nothing reads the folder any more when this returns: what was begun is given up, and leaves nothing behind. */
  async onModuleDestroy(): Promise<void> {
    clearTimeout(this.first);
    clearInterval(this.timer);
    this.closing.abort();
    await this.last;
  }

  /** The newest first. */
  async list(): Promise<BackupView[]> {
    if (!existsSync(this.folder)) return [];
    const names = (await readdir(this.folder)).filter((name) => NAME.test(name));
    const all = await Promise.all(
      names.map(async (name): Promise<BackupView> => {
        const { size, mtime } = await stat(join(this.folder, name));
        return { name, at: mtime.toISOString(), bytes: size };
      }),
    );
    return all.sort((p, q) => q.at.localeCompare(p.at));
  }

  /** One backup after another: two at once would only make each other slow. */
  make(kind: 'asked' | 'daily'): Promise<BackupView> {
    const made = this.last.then(async () => {
      const { signal } = this.closing;
      signal.throwIfAborted();
      const name = stamped(kind, new Date());
      await writeBackup(this.config.dataFolder, join(this.folder, name), signal);
      return (await this.list()).find((b) => b.name === name)!;
    });
    this.last = made.catch(() => undefined);
    return made;
  }

  pathOf(name: string): string {
    const path = join(this.folder, name);
    if (!NAME.test(name) || !existsSync(path)) throw notFound('backup');
    return path;
  }

  /** Looks a backup over and lays it ready: the next start puts it in place and moves today's studio aside. */
  async restoreNext(path: string, label: string): Promise<void> {
    await checkBackup(this.config.dataFolder, path).catch((error: unknown) => {
      throw error instanceof StartError
        ? new RakuenError(422, error.message, { file: label, remedy: 'Choose another backup.' })
        : error;
    });
    await rename(path, join(this.config.dataFolder, NEXT_START));
  }

  async take(file: IncomingFile): Promise<void> {
    await this.restoreNext(file.path, file.originalname);
    await this.files.discard(file.path);
  }

  /** Makes today's backup where there is none yet, and lets go of the oldest beyond those that are kept. */
  async daily(now: Date = new Date()): Promise<void> {
    const daily = (await this.list()).filter((b) => b.name.startsWith('daily-'));
    if (daily.length > 0 && now.getTime() - Date.parse(daily[0].at) < A_DAY_MS) return;
    await this.make('daily');
    const kept = (await this.settings.get()).backupsKept ?? KEPT;
    for (const { name } of (await this.list()).filter((b) => b.name.startsWith('daily-')).slice(kept))
      await rm(join(this.folder, name), { force: true });
  }
}

/** Before the database changes its form: what was there is kept. */
export async function backupBefore(dataFolder: string, migration: string): Promise<void> {
  await mkdir(join(dataFolder, BACKUPS_FOLDER), { recursive: true, mode: 0o700 });
  await writeBackup(dataFolder, join(dataFolder, BACKUPS_FOLDER, stamped(`before-${migration}`, new Date())));
}
