import { asThree } from '@rakuen/core/colour/three';
import Database from 'better-sqlite3';
import { join } from 'node:path';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readProfile } from '@rakuen/core/formats/icc/profile-read';
import { readChart } from '@rakuen/core/simulation/instrument';
import { ownSheet } from '@rakuen/core/simulation/stand-in';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { condition, CONDITION, PAPER, start, type Running } from './rakuen.ts';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

interface Model {
  deviceSpace: string;
  spectral: boolean;
  brightenerApart: boolean;
  like?: { name: string; deltaE00: number };
  sets: string[];
  error: { patches: number; stated: { all: { mean: number } } };
  canBuildFrom: string[];
}
interface Profile {
  id: string;
  name: string;
  source: string;
  kept: boolean;
  usedBy: string[];
  supersededBy?: string;
  uses: { conditionId: string; since: string; until?: string }[];
  checks: number;
}
interface Job {
  id: string;
  state: string;
  progress: number;
  profileId?: string;
  error?: { message: string };
}
const SETTINGS = { name: 'Cotton own', version: 2, grid: 17, greys: 'paper', light: 'D50' };

const bring = (
  id: string,
  name: string,
  sheet: keyof typeof SHEETS,
  count: number,
  seed: number,
  light: 'M1' | 'M2' = 'M1',
) =>
  rakuen.upload(
    `/api/conditions/${id}/readings`,
    name,
    writeCgats(readChart(SHEETS[sheet], scatteredChart(count), light, seed)),
  );
const model = (id: string) => rakuen.call<Model>('GET', `/api/conditions/${id}/model`);
const profiles = async () => (await rakuen.call<Profile[]>('GET', '/api/profiles')).body;

async function made(id: string, settings: object = SETTINGS): Promise<Job> {
  const { body, status } = await rakuen.call<Job>('POST', `/api/conditions/${id}/profiles`, settings);
  expect(status).toBe(201);
  for (;;) {
    const job = (await rakuen.call<Job>('GET', `/api/profile-jobs/${body.id}`)).body;
    if (job.state !== 'waiting' && job.state !== 'reading') return job;
    await new Promise((done) => setTimeout(done, 50));
  }
}

describe('the model of a print condition', () => {
  it('is learned from its readings, once, and anew when they change', async () => {
    const id = await condition(rakuen, 'Learned', 'cotton');
    expect((await model(id)).status).toBe(404);
    await bring(id, 'first.txt', 'cotton', 300, 1);
    const first = (await model(id)).body;
    expect(first).toMatchObject({ deviceSpace: 'RGB', spectral: true, brightenerApart: false, sets: ['first.txt'] });
    const database = new Database(join(rakuen.data, 'rakuen.sqlite'), { readonly: true });
    const keys = () =>
      database.prepare("SELECT inputsKey FROM derived WHERE subject = ? AND kind LIKE 'model%'").all(id);
    const before = keys();
    expect(before).toHaveLength(1);
    await bring(id, 'dark.txt', 'cotton', 300, 2, 'M2');
    const second = (await model(id)).body;
    expect(second.brightenerApart).toBe(true);
    expect(second.canBuildFrom).toEqual(['M1', 'M2']);
    // It is kept once the writer is free, and nobody waits for that.
    for (let i = 0; i < 50 && JSON.stringify(keys()) === JSON.stringify(before); i++)
      await new Promise((done) => setTimeout(done, 100));
    expect(keys()).not.toEqual(before);
    expect(keys()).toHaveLength(1);
    database.close();
  });

  it('of few patches begins from a like of the same printer and inks, and says which', async () => {
    const id = await condition(rakuen, 'Few', 'cotton');
    await bring(id, 'few.txt', 'cotton', 40, 5);
    const told = (await model(id)).body;
    expect(told.like!.name).toMatch(/Learned/);
    expect(told.like!.deltaE00).toBeLessThan(1);
    expect(told.error.stated.all.mean).toBeLessThan(1);
  });

  it('tells how far the learning is, can be left, and is learned when it is asked for again', async () => {
    const id = await condition(rakuen, 'Learned in the open', 'baryta');
    const set = writeCgats(readChart(SHEETS.baryta, scatteredChart(900), 'M1', 77));
    await rakuen.upload(`/api/conditions/${id}/readings`, 'open.txt', set);
    const work = crypto.randomUUID();
    const ask = () => rakuen.call<{ error: { patches: number } }>('GET', `/api/conditions/${id}/model?work=${work}`);
    const far = async () => (await rakuen.call<{ done: number; total: number }>('GET', `/api/under-way/${work}`)).body;
    const asked = ask();
    let now = await far();
    for (; now.done < 1; now = await far()) await new Promise((done) => setTimeout(done, 10));
    expect(now.total).toBe(100);
    expect(now.done).toBeLessThan(100);
    expect((await rakuen.call('DELETE', `/api/under-way/${work}`)).status).toBe(204);
    expect((await asked).status).toBe(409);
    expect(await far()).toEqual({ done: 0, total: 0 });
    const again = await ask();
    expect(again.status).toBe(200);
    expect(again.body.error.patches).toBeGreaterThan(800);
    expect((await rakuen.call('GET', `/api/conditions/${id}/model?work=me`)).status).toBe(400);
  }, 240_000);

  it('of a press is learned too, and no profile is written of it', async () => {
    const id = await condition(rakuen, 'Press');
    const few = readChart(SHEETS.cotton, scatteredChart(60), 'M1', 1);
    const cmyk = writeCgats({
      ...few,
      deviceSpace: 'CMYK',
      patches: few.patches.map((p) => ({ ...p, device: [...p.device!.map((v) => 1 - v), 0] })),
    });
    await rakuen.upload(`/api/conditions/${id}/readings`, 'inks.txt', cmyk);
    expect((await model(id)).body.deviceSpace).toBe('CMYK');
    const job = await made(id);
    expect(job.state).toBe('failed');
    expect(job.error!.message).toMatch(/driven in RGB/);
  });
});

describe('profiles', () => {
  let id: string;
  let first: string;
  it('are made, kept, given out, and superseded by the next of the same use', async () => {
    id = (await rakuen.call<{ id: string; paper: { name: string } }[]>('GET', '/api/conditions')).body.find(
      (c) => c.paper.name === 'Learned',
    )!.id;
    first = (await made(id)).profileId!;
    const bytes = new Uint8Array(await (await fetch(`${rakuen.url}/api/profiles/${first}/file`)).arrayBuffer());
    expect(readProfile(bytes)).toMatchObject({ description: 'Cotton own', header: { major: 2, deviceClass: 'prtr' } });
    const used = async () =>
      (await rakuen.call<{ profile: string; profileId: string }>('GET', `/api/conditions/${id}`)).body;
    expect(await used()).toMatchObject({ profile: 'Cotton own', profileId: first });
    const declined = (await made(id, { ...SETTINGS, use: false })).profileId!;
    expect(await used()).toMatchObject({ profile: 'Cotton own', profileId: first });
    const second = (await made(id, { ...SETTINGS, name: 'Cotton own, again' })).profileId!;
    expect(await used()).toMatchObject({ profile: 'Cotton own, again', profileId: second });
    const list = await profiles();
    // One name, one profile: by it the record says which was used when.
    expect(list.find((p) => p.id === declined)!.name).toBe('Cotton own (2)');
    const usesOf = (of: string) => list.find((p) => p.id === of)!.uses.filter((u) => u.conditionId === id);
    expect(usesOf(first)).toEqual([{ conditionId: id, since: expect.any(String), until: expect.any(String) }]);
    expect(usesOf(second)).toEqual([{ conditionId: id, since: usesOf(first)[0].until }]);
    expect(usesOf(declined)).toEqual([]);
    expect(list.find((p) => p.id === first)!.supersededBy).toBe(declined);
    expect(list.find((p) => p.id === declined)!.supersededBy).toBe(second);
    expect(list.find((p) => p.id === second)!.supersededBy).toBeUndefined();
  });

  it('a condition points to one, and one that is used stays', async () => {
    await rakuen.call('PUT', `/api/conditions/${id}/profile`, { profileId: first });
    expect((await profiles()).find((p) => p.id === first)!.usedBy).toEqual([id]);
    expect(
      (await rakuen.call<{ profile: string; profileId: string }>('GET', `/api/conditions/${id}`)).body,
    ).toMatchObject({
      profile: 'Cotton own',
      profileId: first,
    });
    expect((await rakuen.call('DELETE', `/api/profiles/${first}`)).status).toBe(409);
  });

  it('a name written into a condition is a profile known by name, once for all who write it', async () => {
    const named = (await profiles()).filter((p) => p.name === CONDITION.profile);
    expect(named).toHaveLength(1);
    expect(named[0]).toMatchObject({ source: 'named', kept: false });
    const paper = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name: 'Named' });
    const other = await rakuen.call<{ id: string; profileId: string }>('POST', '/api/conditions', {
      ...CONDITION,
      profile: CONDITION.profile.toUpperCase(),
      paperId: paper.body.id,
    });
    expect(other.body.profileId).toBe(named[0].id);
  });

  it('a strip printed through one is laid out, read, and held against it; the check stays', async () => {
    const chart = await rakuen.call<{ id: string; patchCount: number }>('POST', `/api/profiles/${first}/strip`);
    expect(chart.status).toBe(201);
    expect(chart.body.patchCount).toBeGreaterThan(45);
    const reference = await (await fetch(`${rakuen.url}/api/charts/${chart.body.id}/file?as=cgats`)).text();
    const rows = reference
      .split('BEGIN_DATA\n')[1]
      .split('\nEND_DATA')[0]
      .split('\n')
      .map((r) => r.split(' '));
    const patches = rows.map(([name, ...values], i) => ({
      id: name,
      rgb: asThree(values.slice(-3).map((v) => Number(v) / 255)),
      i,
    }));
    expect(patches.every((p) => p.rgb.every((v) => v >= 0 && v <= 1))).toBe(true);
    const read = writeCgats(readChart(SHEETS.cotton, patches, 'M1', 9));
    const check = await rakuen.upload<{
      words: string;
      result: { mean: number; greys: object; recognised: { sentence: string } };
    }>(`/api/profiles/${first}/check-files`, 'strip.txt', read, { conditionId: id });
    expect(check.status).toBe(201);
    expect(check.body.result.mean).toBeLessThan(0.7);
    expect(check.body.result.greys).toBeDefined();
    expect(check.body.words).toMatch(/^It passes/);
    expect(check.body.result.recognised.sentence).toMatch(/^As it was meant/);
    // The same strip, printed with the media setting of another condition of this paper: it is known by what was read there.
    const { paperId } = (await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${id}`)).body;
    const thin = { ...SHEETS.cotton, inkLoad: 0.7 };
    const other = await rakuen.call<{ id: string }>('POST', '/api/conditions', {
      ...CONDITION,
      paperId,
      mediaSetting: 'Plain photo',
    });
    await rakuen.upload(
      `/api/conditions/${other.body.id}/readings`,
      'thin.txt',
      writeCgats(readChart(thin, scatteredChart(300), 'M1', 21)),
    );
    const mistaken = await rakuen.upload<{
      result: { off: string[]; recognised: { sentence: string; causes: { which?: string }[] } };
    }>(`/api/profiles/${first}/check-files`, 'mistaken.txt', writeCgats(readChart(thin, patches, 'M1', 22)), {
      conditionId: id,
    });
    expect(mistaken.body.result.recognised.sentence).toMatch(/^Most likely another media setting \(Plain photo\)/);
    expect(mistaken.body.result.off.length).toBeGreaterThan(0);
    await rakuen.call('DELETE', `/api/conditions/${other.body.id}`);
    // A later box was read: a strip that was printed on it is known by that.
    const laterBox = { ...SHEETS.cotton, sheet: ownSheet(SHEETS.cotton.sheet, 'Cotton', 'new label') };
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      'box.txt',
      writeCgats(readChart(laterBox, scatteredChart(300), 'M1', 31)),
      { batch: 'new label' },
    );
    const onIt = await rakuen.upload<{ result: { recognised: { sentence: string; causes: { which?: string }[] } } }>(
      `/api/profiles/${first}/check-files`,
      'box-strip.txt',
      writeCgats(readChart(laterBox, patches, 'M1', 32)),
      { conditionId: id },
    );
    expect(onIt.body.result.recognised.causes[0].which).toBe('new label');
    const wrong = await rakuen.upload<{ words: string }>(
      `/api/profiles/${first}/check-files`,
      'other.txt',
      writeCgats(readChart(SHEETS.baryta, patches, 'M1', 9)),
    );
    expect(wrong.body.words).toMatch(/would be visible/);
    const kept = await rakuen.call<{ checks: { fileName: string }[] }>('GET', `/api/profiles/${first}/checks`);
    expect(kept.body.checks.map((c) => c.fileName)).toEqual([
      'other.txt',
      'box-strip.txt',
      'mistaken.txt',
      'strip.txt',
    ]);
  });

  it('readings are not held against a profile for another lamp, nor one built from another measurement condition', async () => {
    const { readings } = (
      await rakuen.call<{ readings: { id: string; measurementCondition: string }[] }>('GET', `/api/conditions/${id}`)
    ).body;
    const light = (await made(id, { ...SETTINGS, name: 'Warm', light: 'led-warm' })).profileId!;
    const dark = (await made(id, { ...SETTINGS, name: 'Dark', builtFrom: 'M2' })).profileId!;
    const m1 = readings.find((r) => r.measurementCondition === 'M1')!.id;
    const m2 = readings.find((r) => r.measurementCondition === 'M2')!.id;
    const check = (profile: string, readingId: string) =>
      rakuen.call<{ message: string }>('POST', `/api/profiles/${profile}/checks`, { readingId });
    expect((await check(light, m1)).body.message).toMatch(/another light than D50/);
    // Nearly as white as D50, and still another light: the brightener does not answer in it.
    const uvFree = (await made(id, { ...SETTINGS, name: 'Without UV', light: 'D50-no-uv' })).profileId!;
    expect((await check(uvFree, m1)).body.message).toMatch(/another light than D50/);
    expect((await check(dark, m1)).body.message).toMatch(/built from M2; these readings are M1/);
    expect((await check(dark, m2)).status).toBe(201);
    // Built from what speaks it remembers what that was; of readings that do not say theirs it is told what may part them.
    expect((await check(first, m2)).body.message).toMatch(/built from M1; these readings are M2/);
    const { condition: _, ...silent } = readChart(SHEETS.cotton, scatteredChart(60), 'M1', 9);
    const held = await rakuen.upload<{ result: { off: string[] } }>(
      `/api/profiles/${first}/check-files`,
      'silent.txt',
      writeCgats(silent),
    );
    expect(held.body.result.off[0]).toMatch(/do not say their measurement condition, and .* was built from M1/);
  });

  it('a strip that was read before it had dried is said to be', async () => {
    const box = { batch: 'Wet box', printedAt: new Date(Date.now() - 600_000).toISOString() };
    const strip = { ...readChart(SHEETS.cotton, scatteredChart(60), 'M1', 19), createdAt: undefined };
    const brought = await rakuen.upload(`/api/conditions/${id}/readings`, 'wet-strip.txt', writeCgats(strip), box);
    expect(brought.status).toBe(201);
    const { readings } = (
      await rakuen.call<{ readings: { id: string; fileName: string }[] }>('GET', `/api/conditions/${id}`)
    ).body;
    const readingId = readings.find((r) => r.fileName === 'wet-strip.txt')!.id;
    const held = await rakuen.call<{ result: { off: string[] } }>('POST', `/api/profiles/${first}/checks`, {
      readingId,
    });
    expect(held.body.result.off[0]).toMatch(/read before its print had dried/);
    expect((await rakuen.call('DELETE', `/api/readings/${readingId}`)).status).toBeLessThan(300);
  });

  it('built from what speaks anyway, it is the condition’s own model: not learned twice, its brightener told apart', async () => {
    await made(id, { ...SETTINGS, name: 'As it speaks', builtFrom: 'M1' });
    const database = new Database(join(rakuen.data, 'rakuen.sqlite'), { readonly: true });
    const kinds = database
      .prepare("SELECT kind FROM derived WHERE subject = ? AND kind LIKE 'model%' ORDER BY kind")
      .pluck()
      .all(id);
    database.close();
    expect(kinds).toEqual(['model', 'model M2']);
  });

  it('the patches that help most are laid out as a chart', async () => {
    const few = (await rakuen.call<{ id: string; paper: { name: string } }[]>('GET', '/api/conditions')).body.find(
      (c) => c.paper.name === 'Few',
    )!.id;
    const chart = await rakuen.call<{ patchCount: number; spec: { purpose: string; patches: number } }>(
      'POST',
      `/api/conditions/${few}/next-patches`,
      { count: 12 },
    );
    expect(chart.body.spec).toMatchObject({ purpose: 'next', patches: 12 });
    // Twelve different ones, a white and a black.
    expect(chart.body.patchCount).toBe(14);
  });

  it('one that was removed comes back with its checks', async () => {
    await rakuen.call('PUT', `/api/conditions/${id}/profile`, {});
    expect((await rakuen.call('DELETE', `/api/profiles/${first}`)).status).toBe(204);
    const { body: entries } = await rakuen.call<{ change: string; name: string }[]>('GET', '/api/bin');
    const entry = entries.find((e) => e.name === 'Cotton own')!;
    await rakuen.call('POST', `/api/events/${entry.change}/undo`);
    const back = (await profiles()).find((p) => p.id === first)!;
    expect(back).toMatchObject({ name: 'Cotton own', checks: 6 });
  });

  it('settings that make no sense are refused with the field', async () => {
    const answer = await rakuen.call<{ field: string }>('POST', `/api/conditions/${id}/profiles`, {
      ...SETTINGS,
      light: 'moon',
    });
    expect(answer.status).toBe(422);
    expect(answer.body.field).toBe('light');
  });
});
