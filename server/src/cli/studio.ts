import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { NestFactory } from '@nestjs/core';
import { AppModule } from '../app/app.module.ts';
import { StartError, type Config } from '../app/config.ts';
import { restoreBackup, writeBackup } from '../backup/backup-file.ts';
import { exportStudio, importStudio } from '../backup/studio-archive.ts';
import { FactsService } from '../conditions/facts.service.ts';
import { checkDatabase, isNew } from '../store/check-database.ts';
import { FolderLock } from '../store/folder-lock.ts';

const USAGE = `Use: backup [--data FOLDER] [--to FILE], restore FILE [--data FOLDER] [--over],
     export [--data FOLDER] [--to FILE], import FILE [--data FOLDER].`;

const stamped = (name: string) => `${name}-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}.zip`;

interface Words {
  readonly deed: string;
  readonly file?: string;
  readonly data: string;
  readonly to?: string;
  readonly over: boolean;
}

function parse(args: readonly string[]): Words {
  const [deed, ...rest] = args;
  const words = { deed: deed ?? '', data: resolve(process.env.RAKUEN_DATA ?? 'data'), over: false } as {
    -readonly [K in keyof Words]: Words[K];
  };
  for (let i = 0; i < rest.length; i++) {
    const word = rest[i];
    if (word === '--over') words.over = true;
    else if (word === '--data' || word === '--to') {
      const value = rest[++i];
      if (!value) throw new StartError(`${word} needs a value.`);
      words[word === '--data' ? 'data' : 'to'] = resolve(value);
    } else if (!word.startsWith('--') && !words.file) words.file = resolve(word);
    else throw new StartError(`Unknown word ${word}. ${USAGE}`);
  }
  return words;
}

/** The whole application without a port, on a folder; for what needs its services. */
async function within<T>(dataFolder: string, does: (facts: FactsService) => Promise<T>): Promise<T> {
  const config: Config = { port: 0, dataFolder, demo: false, readOnly: false, extraOrigins: [] };
  const app = await NestFactory.createApplicationContext(AppModule.with(config), {
    logger: false,
    abortOnError: false,
  });
  try {
    return await does(app.get(FactsService, { strict: false }));
  } finally {
    await app.close();
  }
}

const needFile = ({ file, deed }: Words): string => {
  if (!file) throw new StartError(`Say which file to ${deed}. ${USAGE}`);
  return file;
};

function needStudio({ data }: Words): void {
  if (!existsSync(data) || isNew(data))
    throw new StartError(`There is no studio in ${data}. Choose another with --data FOLDER.`);
  checkDatabase({ dataFolder: data, readOnly: false });
}

/** A studio saved, put back, taken elsewhere. @returns what is said in the end */
export async function studio(args: readonly string[]): Promise<string> {
  const words = parse(args);
  switch (words.deed) {
    case 'backup': {
      needStudio(words);
      const to = words.to ?? resolve(stamped('rakuen-backup'));
      await writeBackup(words.data, to);
      return `The studio in ${words.data} is in ${to}.`;
    }
    case 'export': {
      needStudio(words);
      const to = words.to ?? resolve(stamped('rakuen-studio'));
      await exportStudio(words.data, to);
      return `The studio in ${words.data} is told in ${to}.`;
    }
    case 'restore': {
      const lock = existsSync(words.data) ? FolderLock.take(words.data) : undefined;
      try {
        const aside = await restoreBackup(words.data, needFile(words), words.over);
        return `The studio is back in ${words.data}.${aside ? ` What was there is kept in ${aside}.` : ''}`;
      } finally {
        lock?.release();
      }
    }
    case 'import': {
      const lock = existsSync(words.data) ? FolderLock.take(words.data) : undefined;
      try {
        await importStudio(words.data, needFile(words), (folder) => within(folder, () => Promise.resolve()));
        await within(words.data, (facts) => facts.renew());
        return `The studio is in ${words.data}.`;
      } finally {
        lock?.release();
      }
    }
    default:
      throw new StartError(USAGE);
  }
}

/** The command line: one line said, exit code 1 when it could not be done. */
export async function main(args: readonly string[]): Promise<void> {
  try {
    console.log(await studio(args));
  } catch (error) {
    console.error(error instanceof StartError ? error.message : error);
    process.exit(1);
  }
}
