import 'reflect-metadata';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { MIGRATIONS } from '@rakuen/server/store/migrations/all';
import { temporaryFolder } from './rakuen.ts';

const folder = temporaryFolder();
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const opened = (migrations: typeof MIGRATIONS) =>
  new DataSource({
    type: 'better-sqlite3',
    database: join(folder, 'old.sqlite'),
    entities: [],
    migrations,
    migrationsRun: true,
  }).initialize();

describe('a studio of the version before', () => {
  it('keeps its profiles: those brought stay, names written into print conditions become profiles, and the conditions point to them', async () => {
    const before = await opened(MIGRATIONS.slice(0, 5));
    const paper = `INSERT INTO papers (id, createdAt, maker, name, coating, base, surface, brightenerClaim, weightGsm, thicknessUm, sizes, currency, notes)
      VALUES ('p', '2026-01-01T00:00:00Z', 'M', 'N', 'matt', 'cotton', 'smooth', 'none', 300, 400, '[]', 'EUR', '')`;
    await before.query(paper);
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
});
