import 'reflect-metadata';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { MIGRATIONS } from '@rakuen/server/store/migrations/all';
import { temporaryFolder } from './rakuen.ts';

const folder = temporaryFolder();
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The migrations up to one and with it. */
const upTo = (name: string) => MIGRATIONS.slice(0, MIGRATIONS.findIndex((m) => m.name.startsWith(name)) + 1);

const opened = (migrations: typeof MIGRATIONS, database = join(folder, 'old.sqlite')) =>
  new DataSource({
    type: 'better-sqlite3',
    database,
    entities: [],
    migrations,
    migrationsRun: true,
  }).initialize();

const PAPER = `INSERT INTO papers (id, createdAt, maker, name, coating, base, surface, brightenerClaim, weightGsm, thicknessUm, sizes, currency, notes)
  VALUES (?, '2026-01-01T00:00:00Z', 'M', ?, 'matt', 'cotton', 'smooth', 'none', ?, 400, '[]', 'EUR', '')`;

const PICTURE = `INSERT INTO pictures (id, addedAt, title, fileName, contentHash, previewHash, format, widthPx, heightPx, bitsPerChannel,
    profile, profileAssumed, notes, figures, colourCells, cells)
  VALUES ('i', '2026-01-01T00:00:00Z', 'Tide', 't.png', 'h', 'h', 'PNG', 30, 20, 8, 'sRGB', 0, '[]', '{}', 1, x'00')`;

/** Place of the step by which figures left the rows of print conditions. */
const TOLD_APART = MIGRATIONS.findIndex((m) => m.name === 'ToldApart1778000000000');

describe('a studio of the version before', () => {
  it('keeps what was claimed of its papers; from then on it may be left open, and there is one of each name and weight still', async () => {
    const at = join(folder, 'claims.sqlite');
    const open = (migrations: typeof MIGRATIONS) => opened(migrations, at);
    const older = await open(upTo('Finding'));
    await older.query(PAPER, ['p', 'Rag', 310.5]);
    await older.destroy();
    const now = await open(upTo('OpenClaims'));
    const claimed = () =>
      now.query<object[]>('SELECT id, weightGsm, thicknessUm, coating, surface, revision FROM papers');
    const kept = { id: 'p', weightGsm: 310.5, thicknessUm: 400, coating: 'matt', surface: 'smooth', revision: 1 };
    expect(await claimed()).toEqual([kept]);
    await now.query(`UPDATE papers SET surface = NULL, weightGsm = NULL WHERE id = 'p'`);
    expect(await claimed()).toEqual([{ ...kept, surface: null, weightGsm: null, revision: 2 }]);
    const [event] = await now.query<{ before: string; after: string }[]>(
      `SELECT before, after FROM events WHERE subject = 'papers' AND deed = 'changed' ORDER BY seq LIMIT 1`,
    );
    expect(JSON.parse(event.before)).toMatchObject({ surface: 'smooth', weightGsm: 310.5 });
    await expect(now.query(PAPER, ['q', 'rag', null])).rejects.toThrow(/UNIQUE/);
    await now.undoLastMigration();
    expect(await claimed()).toEqual([{ ...kept, weightGsm: 0, revision: 2 }]);
    await now.destroy();
  });

  it('its figures leave the rows they stood in; what is recorded of a print condition stays, and an earlier version computes them anew', async () => {
    const at = join(folder, 'told-apart.sqlite');
    const open = (migrations: typeof MIGRATIONS) => opened(migrations, at);
    const older = await open(upTo('OpenClaims'));
    await older.query(PAPER, ['p', 'Rag', 310.5]);
    for (const id of ['read', 'bare'])
      await older.query(
        `INSERT INTO conditions (id, createdAt, paperId, printer, inkSet, blackInk, mediaSetting, resolution, printMode, profile, blackOvercoat, notes, facts, mesh)
         VALUES (?, '2026-01-02T00:00:00Z', 'p', 'P', 'I', 'matt black', 'Matt', '720', 'colour through a profile', '', 0, '', '{"version":7}', '{}')`,
        [id],
      );
    await older.query(
      `INSERT INTO readings (id, conditionId, fileName, contentHash, part, importedAt, patchCount, colourFrom, source, batch)
       VALUES ('r', 'read', 'r.txt', 'h', 0, '2026-01-03T00:00:00Z', 9, 'Lab', 'measured', '')`,
    );
    await older.query(`INSERT INTO derived (subject, kind, inputsKey, value) VALUES ('gone', 'model', 'k', '{}')`);
    const [{ revision }] = await older.query<{ revision: number }[]>(`SELECT revision FROM conditions LIMIT 1`);
    await older.destroy();

    const now = await open(MIGRATIONS);
    const names = async () => (await now.query<{ name: string }[]>('PRAGMA table_info(conditions)')).map((c) => c.name);
    expect(await names()).not.toEqual(expect.arrayContaining(['facts']));
    expect(await now.query('SELECT id, revision FROM conditions ORDER BY id')).toEqual([
      { id: 'bare', revision },
      { id: 'read', revision },
    ]);
    expect(await now.query('SELECT subject FROM derived')).toEqual([]);
    await now.query(`UPDATE conditions SET notes = 'thin' WHERE id = 'read'`);
    const [event] = await now.query<{ after: string }[]>(
      `SELECT after FROM events WHERE subject = 'conditions' AND deed = 'changed'`,
    );
    expect(JSON.parse(event.after)).toMatchObject({ notes: 'thin', printer: 'P' });
    // A result goes with what it was told of.
    for (const subject of ['read', 'r', 'bare'])
      await now.query(`INSERT INTO derived (subject, kind, inputsKey, value) VALUES (?, 'facts', 'k', '{}')`, [
        subject,
      ]);
    await now.query('PRAGMA foreign_keys = ON');
    await now.query(`DELETE FROM conditions WHERE id = 'read'`);
    expect(await now.query('SELECT subject FROM derived')).toEqual([{ subject: 'bare' }]);

    await now.query(
      `INSERT INTO readings (id, conditionId, fileName, contentHash, part, importedAt, patchCount, colourFrom, source, batch)
       VALUES ('s', 'bare', 's.txt', 'h', 0, '2026-01-03T00:00:00Z', 9, 'Lab', 'measured', '')`,
    );
    // Back to before figures stood apart: every later step goes back first.
    for (let i = MIGRATIONS.length; i > TOLD_APART; i--) await now.undoLastMigration();
    const [{ facts }] = await now.query<{ facts: string }[]>('SELECT facts FROM conditions');
    expect(JSON.parse(facts)).toMatchObject({ version: 0 });
    await now.destroy();
  });

  it('keeps its profiles: those brought stay, names written into print conditions become profiles, and the conditions point to them', async () => {
    const before = await opened(MIGRATIONS.slice(0, 5));
    await before.query(PAPER, ['p', 'N', 300]);
    for (const [id, profile] of [
      ['c1', 'Own.icc'],
      ['c2', 'own.ICC'],
      ['c3', ''],
      ['c4', 'Brought one'],
    ])
      await before.query(
        `INSERT INTO conditions (id, createdAt, paperId, printer, inkSet, blackInk, mediaSetting, resolution, printMode, profile, blackOvercoat, notes)
         VALUES (?, '2026-01-02T00:00:00Z', 'p', 'P', 'I', 'matt black', 'Matt', '720', 'colour through a profile', ?, 0, '')`,
        [id, profile],
      );
    await before.query(
      `INSERT INTO profiles (id, createdAt, name, contentHash, space, volume, mesh) VALUES ('b', '2026-01-01T00:00:00Z', 'Brought one', 'h', 'RGB', 1000, '{}')`,
    );
    await before.destroy();

    const now = await opened(MIGRATIONS);
    const profiles = await now.query<{ id: string; name: string; source: string; volume: number | null }[]>(
      'SELECT id, name, source, volume FROM profiles ORDER BY source',
    );
    expect(profiles.map((p) => [p.source, p.name.toLowerCase(), p.volume])).toEqual([
      ['brought', 'brought one', 1000],
      ['named', 'own.icc', null],
    ]);
    const named = profiles.find((p) => p.source === 'named')!.id;
    expect(await now.query('SELECT id, profile, profileId FROM conditions ORDER BY id')).toEqual([
      { id: 'c1', profile: 'Own.icc', profileId: named },
      { id: 'c2', profile: 'own.ICC', profileId: named },
      { id: 'c3', profile: '', profileId: null },
      { id: 'c4', profile: 'Brought one', profileId: 'b' },
    ]);
    // The record goes on: a profile that is removed can come back.
    await now.query(`DELETE FROM profiles WHERE id = 'b'`);
    const [event] = await now.query<{ before: string }[]>(
      `SELECT before FROM events WHERE subject = 'profiles' AND id = 'b' AND deed = 'removed'`,
    );
    expect(JSON.parse(event.before)).toMatchObject({ name: 'Brought one', contentHash: 'h', source: 'brought' });
    await expect(
      now.query(`INSERT INTO profiles (id, createdAt, name, source) VALUES ('x', 'now', 'No file', 'made')`),
    ).rejects.toThrow(/CHECK/);
    await now.destroy();
  });

  it('what it wrote with a number about where its print is becomes the first entry of its history, and goes back with an earlier version', async () => {
    const at = join(folder, 'fates.sqlite');
    const open = (migrations: typeof MIGRATIONS) => opened(migrations, at);
    const older = await open(upTo('PrintProofs'));
    await older.query(PAPER, ['p', 'Rag', 310.5]);
    for (const sql of [
      `INSERT INTO conditions (id, createdAt, paperId, printer, inkSet, blackInk, mediaSetting, resolution, printMode, profile, blackOvercoat, notes)
       VALUES ('c', '2026-01-02T00:00:00Z', 'p', 'P', 'I', 'matt black', 'Matt', '720', 'colour through a profile', '', 0, '')`,
      PICTURE,
      `INSERT INTO editions (id, createdAt, pictureId, conditionId, name, size, artist, printer, good, widthMm, heightMm, batch, accepted, notes)
       VALUES ('e', '2026-01-02T00:00:00Z', 'i', 'c', 'Tide', 12, 0, 0, 0, 300, 200, '', '[]', '')`,
    ])
      await older.query(sql);
    const number = `INSERT INTO numbers (id, editionId, series, number, givenAt, batch, fate, fateOn, fateTo, price, currency, note)
      VALUES (?, 'e', 'edition', ?, '2026-01-03T00:00:00Z', '', ?, ?, ?, ?, ?, ?)`;
    await older.query(number, ['n1', 1, 'sold', '2026-02-01', 'A. Collector', 900, 'EUR', 'Framed.']);
    await older.query(number, ['n2', 2, 'gifted', null, 'B. Friend', null, null, '']);
    await older.query(number, ['n3', 3, 'here', null, '', null, null, '']);
    await older.destroy();
    const now = await open(MIGRATIONS);
    expect(
      await now.query(
        'SELECT numberId, "to", copies, withWhom, "on", price, currency, note FROM moves ORDER BY numberId',
      ),
    ).toEqual([
      {
        numberId: 'n1',
        to: 'sold',
        copies: 1,
        withWhom: 'A. Collector',
        on: '2026-02-01',
        price: 900,
        currency: 'EUR',
        note: 'Framed.',
      },
      {
        numberId: 'n2',
        to: 'given',
        copies: 1,
        withWhom: 'B. Friend',
        on: '2026-01-03',
        price: null,
        currency: null,
        note: '',
      },
    ]);
    expect(await now.query(`SELECT id, outcome FROM entries WHERE kind = 'number' ORDER BY id`)).toEqual([
      { id: 'n1', outcome: 'sold' },
      { id: 'n2', outcome: 'given' },
      { id: 'n3', outcome: 'studio' },
    ]);
    await now.undoLastMigration();
    expect(await now.query('SELECT id, fate, fateTo, price FROM numbers ORDER BY id')).toEqual([
      { id: 'n1', fate: 'sold', fateTo: 'A. Collector', price: 900 },
      { id: 'n2', fate: 'gifted', fateTo: 'B. Friend', price: null },
      { id: 'n3', fate: 'here', fateTo: '', price: null },
    ]);
    await now.destroy();
  });
});
