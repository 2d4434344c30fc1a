import 'reflect-metadata';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { Logger } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Config } from '@rakuen/server/app/config';
import { Derived } from '@rakuen/server/store/derived';
import { MIGRATIONS } from '@rakuen/server/store/migrations/all';
import { Writer } from '@rakuen/server/store/writer';
import { temporaryFolder } from './rakuen.ts';

const folder = temporaryFolder();
let database: DataSource;
let writer: Writer;
beforeAll(async () => {
  database = await new DataSource({
    type: 'better-sqlite3',
    database: join(folder, 'rakuen.sqlite'),
    entities: [],
    migrations: MIGRATIONS,
    migrationsRun: true,
  }).initialize();
  writer = new Writer(database);
});
afterAll(async () => {
  await database.destroy();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => database.query('DELETE FROM derived'));

const CONFIG: Config = { port: 0, dataFolder: folder, demo: false, readOnly: false, extraOrigins: [] };
const derived = (config: Partial<Config> = {}) => new Derived(database, writer, { ...CONFIG, ...config });
const rows = () => database.query<{ inputsKey: string; value: string }[]>('SELECT inputsKey, value FROM derived');
/** Waits until whatever waits for the writer has had its turn. */
const settled = () => writer.run('settled', () => Promise.resolve());

describe('results that follow from what is kept', () => {
  it('are computed once for their inputs, whoever asks, and anew for others', async () => {
    const results = derived();
    let computed = 0;
    const ask = (key: string) =>
      results.get('sheet', 'facts', () =>
        Promise.resolve({
          key,
          compute: () => {
            computed++;
            return Promise.resolve({ of: key });
          },
        }),
      );
    expect(await Promise.all([ask('a'), ask('a'), ask('a')])).toEqual([{ of: 'a' }, { of: 'a' }, { of: 'a' }]);
    expect(computed).toBe(1);
    await settled();
    expect(await ask('b')).toEqual({ of: 'b' });
    expect(computed).toBe(2);
    await settled();
    expect(await rows()).toEqual([{ inputsKey: 'b', value: '{"of":"b"}' }]);
    // Another server on the same studio finds them.
    expect(await derived().get('sheet', 'facts', () => Promise.resolve({ key: 'b', compute: fail }))).toEqual({
      of: 'b',
    });
  });

  it('of inputs that changed meanwhile are given out and not kept', async () => {
    let key = 'before';
    const told = await derived().get('sheet', 'facts', () =>
      Promise.resolve({
        key,
        compute: () => {
          key = 'after';
          return Promise.resolve(1);
        },
      }),
    );
    expect(told).toBe(1);
    await settled();
    expect(await rows()).toEqual([]);
  });

  it('are told to a deed that waits for what is being computed beside it: neither waits for the other', async () => {
    const results = derived();
    let go: (value: string) => void = fail;
    const slow = new Promise<string>((done) => (go = done));
    const ask = () => results.get('sheet', 'model', () => Promise.resolve({ key: 'k', compute: () => slow }));
    const read = ask();
    const deed = writer.run('PUT something', async () => {
      setImmediate(() => go('learned'));
      return ask();
    });
    expect(await Promise.all([read, deed])).toEqual(['learned', 'learned']);
  });

  it('are kept with the deed they were told in', async () => {
    await writer.run('PUT something', () =>
      derived().get('sheet', 'facts', () => Promise.resolve({ key: 'k', compute: () => Promise.resolve(1) })),
    );
    expect(await rows()).toEqual([{ inputsKey: 'k', value: '1' }]);
  });

  it('are told all the same where they can’t be kept', async () => {
    const warned: string[] = [];
    const warn = (message: string) => void warned.push(message);
    Logger.overrideLogger({ log: fail, error: fail, warn });
    await database.query(
      `CREATE TRIGGER full BEFORE INSERT ON derived BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END`,
    );
    try {
      const results = derived();
      const ask = () =>
        results.get('sheet', 'facts', () => Promise.resolve({ key: 'k', compute: () => Promise.resolve(1) }));
      expect(await ask()).toBe(1);
      await settled();
      expect(warned).toEqual([expect.stringContaining('facts of sheet was not kept')]);
    } finally {
      await database.query('DROP TRIGGER full');
      Logger.overrideLogger(false);
    }
  });

  it('stay in memory where nothing may be written', async () => {
    const results = derived({ readOnly: true });
    let computed = 0;
    const ask = () =>
      results.get('sheet', 'facts', () => Promise.resolve({ key: 'k', compute: () => Promise.resolve(++computed) }));
    expect([await ask(), await ask()]).toEqual([1, 1]);
    expect(await rows()).toEqual([]);
  });

  it('of many subjects are looked up at once, those that still hold', async () => {
    const results = derived();
    for (const [subject, key] of [
      ['p', 'now'],
      ['q', 'then'],
      ['r', 'now'],
    ])
      await results.keep(database.manager, subject, 'facts', key, { of: subject });
    const keys = new Map(['p', 'q', 's'].map((subject) => [subject, 'now']));
    expect(await results.kept('facts', keys)).toEqual([{ subject: 'p', value: '{"of":"p"}' }]);
    expect(await results.kept('facts', keys, "json_extract(d.value, '$.of') AS called")).toEqual([
      { subject: 'p', called: 'p' },
    ]);
    expect(await results.kept('solid', keys)).toEqual([]);
  });
});

function fail(): never {
  throw new Error('This must not be asked for.');
}
