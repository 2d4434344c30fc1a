import { existsSync } from 'node:fs';
import { constants, cp, mkdir, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import { AppModule } from '../app/app.module.ts';
import type { Config } from '../app/config.ts';
import { DATABASE_FILE, FILES_FOLDER } from '../store/check-database.ts';
import { DemoStudio } from './demo-studio.ts';

/** Beside the studio to be; it is one name away from being there, or it is not there at all. */
const DRAFT = 'laying-out';
/** What backups and restores that were cut short leave. */
const DRAFTS = /^(checking|restoring|importing|backup)-[0-9a-f-]{36}(\.sqlite)?$/;

/** Takes away what a start that was cut short had begun to lay out. Nobody was let into it. */
export async function clearDraft({ dataFolder }: Pick<Config, 'dataFolder'>): Promise<void> {
  for (const name of await readdir(dataFolder))
    if (name === DRAFT || DRAFTS.test(name)) await rm(join(dataFolder, name), { recursive: true, force: true });
}

/** Whether a start was cut short while it laid the demo studio out. */
export const hasDraft = ({ dataFolder }: Pick<Config, 'dataFolder'>): boolean => existsSync(join(dataFolder, DRAFT));

/**
 * Lays the demo studio out, or a copy of one laid out before, in a folder of its own and moves it into place when it is
 * whole: the files first, the database last. No row and no file of anyone's is touched on the way.
 */
export async function layOutDemo(config: Config): Promise<void> {
  const draft = join(config.dataFolder, DRAFT);
  await clearDraft(config);
  await mkdir(draft, { recursive: true, mode: 0o700 });
  if (config.prepared) for (const part of [FILES_FOLDER, DATABASE_FILE]) await copy(config.prepared, draft, part);
  else await fill({ ...config, dataFolder: draft, draft: true });
  // Files without a database can only be those of an earlier draft; they are set aside all the same, and not removed.
  const files = join(config.dataFolder, FILES_FOLDER);
  if (existsSync(files)) await rename(files, `${files}-before-${Date.now()}`);
  await rename(join(draft, FILES_FOLDER), join(config.dataFolder, FILES_FOLDER));
  await rename(join(draft, DATABASE_FILE), join(config.dataFolder, DATABASE_FILE));
  await clearDraft(config);
}

async function fill(config: Config): Promise<void> {
  const app = await NestFactory.createApplicationContext(AppModule.with(config), {
    logger: false,
    abortOnError: false,
  });
  try {
    await app.get(DemoStudio).fill();
  } finally {
    await app.close();
  }
}

/** By reference where the disk can: a copy of one's own all the same, whatever becomes of either. */
const copy = (from: string, to: string, part: string) =>
  cp(join(from, part), join(to, part), { recursive: true, mode: constants.COPYFILE_FICLONE });
