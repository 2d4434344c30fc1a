import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { condition, fixture, launch, PAPER, start, temporaryFolder, type Running } from './rakuen.ts';

const sha = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

async function refused(args: string[]): Promise<string> {
  const child = launch(['--port', '0', ...args]);
  let output = '';
  for (const stream of [child.stdout!, child.stderr!]) stream.on('data', (c: Buffer) => (output += c.toString()));
  const code = await new Promise<number | null>((done) => child.on('close', done));
  expect(code).toBe(1);
  expect(output.trim().split('\n')).toHaveLength(1);
  return output.trim();
}

/** A studio with a paper, a condition and a reading in it, stopped; its folder. */
async function kept(): Promise<string> {
  const rakuen = await start();
  const id = await condition(rakuen);
  await rakuen.upload(`/api/conditions/${id}/readings`, 'u.txt', readFileSync(fixture('fogra29l.cgats.txt')));
  await rakuen.kill();
  // Whatever the write-ahead log holds is put into the file, so that the file alone is the studio.
  const db = new Database(join(rakuen.data, 'rakuen.sqlite'));
  db.pragma('wal_checkpoint(TRUNCATE)');
  db.close();
  return rakuen.data;
}

describe('a start that finds a studio', () => {
  let folder: string;
  beforeAll(async () => void (folder = await kept()));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const database = () => join(folder, 'rakuen.sqlite');
  /** Changes something, looks that a start is refused and that the database stays as it was, and puts it back. */
  async function isRefused(spoil: () => () => void, args: string[] = []): Promise<string> {
    const mend = spoil();
    try {
      const before = existsSync(database()) ? sha(readFileSync(database())) : undefined;
      const said = await refused(['--data', folder, ...args]);
      expect(existsSync(database()) ? sha(readFileSync(database())) : undefined).toBe(before);
      return said;
    } finally {
      mend();
    }
  }
  const replaced = (path: string, bytes: Buffer | undefined) => () => {
    const before = readFileSync(path);
    if (bytes) writeFileSync(path, bytes);
    else rmSync(path);
    return () => writeFileSync(path, before);
  };

  it('missing beside kept files: told, and not laid out anew', async () => {
    expect(await isRefused(replaced(database(), undefined))).toMatch(/is missing beside kept files.*npm run restore/);
  });

  it('empty: told, and not filled', async () => {
    expect(await isRefused(replaced(database(), Buffer.alloc(0)))).toMatch(
      /is empty beside kept files; nothing was written/,
    );
  });

  it('damaged: told; with --read-only it is shown', async () => {
    const bytes = Buffer.from(readFileSync(database()));
    bytes.fill(0x41, 8192, 20_000);
    expect(await isRefused(replaced(database(), bytes))).toMatch(/is damaged.*--read-only/);
  });

  it('newer than the program: told, and not migrated', async () => {
    const db = new Database(database());
    db.prepare("INSERT INTO migrations (timestamp, name) VALUES (9, 'Later9')").run();
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
    expect(await isRefused(() => () => undefined)).toMatch(/written by a newer Rakuen \(Later9\)/);
    const again = new Database(database());
    again.prepare("DELETE FROM migrations WHERE name = 'Later9'").run();
    again.close();
  });

  it('with files missing: told how many; looked at all the same with --read-only, where nothing can be changed', async () => {
    const files = join(folder, 'files');
    const [sub] = readdirSync(files);
    const path = join(files, sub, readdirSync(join(files, sub))[0]);
    expect(await isRefused(replaced(path, undefined))).toMatch(/1 kept file is missing/);
    const mend = replaced(path, undefined)();
    const looking = await start(folder, ['--read-only']);
    expect((await looking.call<unknown[]>('GET', '/api/conditions')).body).toHaveLength(1);
    expect(await looking.call('POST', '/api/papers', PAPER)).toMatchObject({ status: 403 });
    await looking.kill();
    mend();
  });

  it('sound: opened again', async () => {
    const rakuen = await start(folder, []);
    expect((await rakuen.call<unknown[]>('GET', '/api/papers')).body).toHaveLength(1);
    await rakuen.kill();
  });
});

describe('laying the demo out', () => {
  it('cut short, what is recorded after an empty start stays; a plain start then fills nothing and removes nothing', async () => {
    const folder = temporaryFolder();
    // Laid out from the first paper on, as where no copy is ready.
    const child = launch(['--port', '0', '--data', folder], { RAKUEN_PREPARED: '' });
    while (!existsSync(join(folder, 'laying-out', 'rakuen.sqlite'))) await new Promise((done) => setTimeout(done, 50));
    await new Promise((done) => setTimeout(done, 1500));
    child.kill('SIGKILL');
    await new Promise((done) => child.on('close', done));
    expect(existsSync(join(folder, 'rakuen.sqlite'))).toBe(false);

    const empty = await start(folder);
    await condition(empty, 'My own');
    await empty.kill();
    const plain = await start(folder, []);
    expect((await plain.call<{ name: string }[]>('GET', '/api/papers')).body.map((p) => p.name)).toEqual(['My own']);
    expect(existsSync(join(folder, 'laying-out'))).toBe(false);
    await plain.stop();
  });
});

describe('one writer', () => {
  let rakuen: Running;
  beforeAll(async () => void (rakuen = await start()));
  afterAll(async () => void (await rakuen.stop()));
  const fifty = <T>(call: (i: number) => Promise<{ status: number; body: T }>) =>
    Promise.all(Array.from({ length: 50 }, (_, i) => call(i)));
  const statuses = (answers: { status: number }[]) => {
    const counts: Record<number, number> = {};
    for (const { status } of answers) counts[status] = (counts[status] ?? 0) + 1;
    return counts;
  };

  it('fifty papers of one name at once: one is made, the others are told', async () => {
    expect(statuses(await fifty(() => rakuen.call('POST', '/api/papers', { ...PAPER, name: 'Twin' })))).toEqual({
      201: 1,
      409: 49,
    });
    expect((await rakuen.call('POST', '/api/papers', { ...PAPER, name: 'TWIN' })).status).toBe(409);
  });

  it('fifty times the same file at once: one reading', async () => {
    const id = await condition(rakuen, 'Raced');
    const bytes = readFileSync(fixture('fogra29l.cgats.txt'));
    expect(statuses(await fifty(() => rakuen.upload(`/api/conditions/${id}/readings`, 'u.txt', bytes)))).toEqual({
      201: 1,
      409: 49,
    });
    expect((await rakuen.call<{ readings: unknown[] }>('GET', `/api/conditions/${id}`)).body.readings).toHaveLength(1);
  });

  it('fifty strips at once and fifty finishes: no 500, no strip twice, one set of readings', async () => {
    const conditionId = await condition(rakuen, 'Strips');
    const chart = await rakuen.call<{ id: string }>('POST', '/api/charts', {
      name: 'Greys',
      spec: { purpose: 'neutral', patches: 220, sheet: 'A4', patchMm: 8, dpi: 360, seed: 8_016 },
    });
    const session = await rakuen.call<{ id: string; stripCount: number }>('POST', '/api/sessions', {
      conditionId,
      chartId: chart.body.id,
      instrument: 'Simulated bench spectrophotometer',
      passes: 1,
      printedAt: '2026-01-02T10:00:00.000Z',
      rehearsal: 'none',
    });
    if (session.status !== 201) throw new Error(JSON.stringify(session.body));
    const { id, stripCount } = session.body;
    const reads = statuses(await fifty(() => rakuen.call('POST', `/api/sessions/${id}/read`)));
    expect(reads).toEqual({ 200: stripCount, 409: 50 - stripCount });
    const ends = statuses(
      await fifty(() => rakuen.call('POST', `/api/sessions/${id}/finish`, { takeDriftOut: false })),
    );
    expect(ends).toEqual({ 200: 1, 409: 49 });
    const { body } = await rakuen.call<{ readings: unknown[] }>('GET', `/api/conditions/${conditionId}`);
    expect(body.readings).toHaveLength(3);
  });

  it('a repeat under one key gets the first answer, and nothing is made twice', async () => {
    const headers = { 'Idempotency-Key': 'a-key-of-its-own' };
    const paper = { ...PAPER, name: 'Once' };
    const [first, second] = [
      await rakuen.call<{ id: string }>('POST', '/api/papers', paper, headers),
      await rakuen.call<{ id: string }>('POST', '/api/papers', paper, headers),
    ];
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(second.body).toEqual(first.body);
    expect((await rakuen.call('DELETE', `/api/papers/${first.body.id}`, undefined, headers)).status).toBe(422);
    expect((await rakuen.call('POST', '/api/papers', paper, { 'Idempotency-Key': '!' })).status).toBe(400);
  });

  it('fifty repeats at once under one key make one thing, of what has no name of its own too', async () => {
    const spec = { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 };
    const headers = { 'Idempotency-Key': 'fifty-of-one-kind' };
    const charts = await fifty(() =>
      rakuen.call<{ id: string }>('POST', '/api/charts', { name: 'Fifty', spec }, headers),
    );
    expect(new Set(charts.map((c) => c.status))).toEqual(new Set([201]));
    expect(new Set(charts.map((c) => c.body.id)).size).toBe(1);
    const same = (await rakuen.call<{ name: string }[]>('GET', '/api/charts')).body.filter((c) => c.name === 'Fifty');
    expect(same).toHaveLength(1);
  });

  it('a keyed deed that is refused leaves nothing behind, and its key free', async () => {
    const headers = { 'Idempotency-Key': 'refused-then-mended' };
    const wrong = await rakuen.call('POST', '/api/papers', { ...PAPER, name: 'Refused', coating: 'tin' }, headers);
    expect(wrong.status).toBe(400);
    expect((await rakuen.call('POST', '/api/papers', { ...PAPER, name: 'Refused' }, headers)).status).toBe(201);
  });

  it('the second of two windows is told, and shown what the first wrote', async () => {
    const made = await rakuen.call<{ id: string; revision: number }>('POST', '/api/papers', {
      ...PAPER,
      name: 'Two windows',
    });
    const path = `/api/papers/${made.body.id}`;
    const from = { 'If-Match': `"${made.body.revision}"` };
    const first = await rakuen.call<{ revision: number }>(
      'PUT',
      path,
      { ...PAPER, name: 'Two windows', notes: 'mine' },
      from,
    );
    expect(first).toMatchObject({ status: 200, body: { revision: made.body.revision + 1 } });
    const second = await rakuen.call('PUT', path, { ...PAPER, name: 'Two windows', notes: 'yours' }, from);
    expect(second).toMatchObject({
      status: 412,
      body: { current: { notes: 'mine', revision: made.body.revision + 1 } },
    });
    const conditionId = await condition(rakuen, 'Tagged');
    const { headers } = await fetch(`${rakuen.url}/api/conditions/${conditionId}`);
    expect(headers.get('etag')).toBe('"1"');
  });
});

describe('what happened, and the bin', () => {
  let rakuen: Running;
  beforeAll(async () => void (rakuen = await start()));
  afterAll(async () => void (await rakuen.stop()));
  type Bin = { change: string; noun: string; name: string; parts: string }[];
  const bin = async () => (await rakuen.call<Bin>('GET', '/api/bin')).body;
  const undo = (change: string) => rakuen.call('POST', `/api/events/${change}/undo`);

  it('a condition comes back whole: readings, observations, figures', async () => {
    const id = await condition(rakuen, 'Comes back');
    await rakuen.upload(`/api/conditions/${id}/readings`, 'u.txt', readFileSync(fixture('fogra29l.cgats.txt')));
    const weighed = {
      kind: 'weight',
      value: { grams: [18.6, 18.7], widthMm: 210, heightMm: 297 },
      takenAt: '2026-09-14T10:00:00Z',
      by: 'me',
      instrument: 'scale',
      light: '',
    };
    const path = `/api/conditions/${id}/observations`;
    expect((await rakuen.call('POST', path, { observations: [weighed] })).status).toBe(201);
    const before = (await rakuen.call<object>('GET', `/api/conditions/${id}`)).body;
    expect((await rakuen.call('DELETE', `/api/conditions/${id}`)).status).toBe(204);
    expect((await rakuen.call('GET', `/api/conditions/${id}`)).status).toBe(404);
    const [entry] = await bin();
    expect(entry).toMatchObject({ noun: 'print condition', name: 'Coated' });
    expect(entry.parts).toBe('1 reading, 1 observation');
    expect((await undo(entry.change)).status).toBe(204);
    expect((await rakuen.call<object>('GET', `/api/conditions/${id}`)).body).toEqual(before);
    expect(await bin()).toHaveLength(0);
    expect((await undo(entry.change)).status).toBe(409);
  });

  it('a change is on record with what was and what is, and is undone; a later one stands in its way', async () => {
    const { body } = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name: 'Changed' });
    const path = `/api/papers/${body.id}`;
    for (const notes of ['first', 'second']) await rakuen.call('PUT', path, { ...PAPER, name: 'Changed', notes });
    type Event = { change: string; deed: string; changes: { field: string; before: string; after: string }[] };
    const events = (await rakuen.call<Event[]>('GET', `/api/events?about=${body.id}`)).body;
    expect(events.map((e) => e.deed)).toEqual(['changed', 'changed', 'made']);
    expect(events[0].changes).toEqual([{ field: 'notes', before: 'first', after: 'second' }]);
    expect((await undo(events[1].change)).status).toBe(409);
    expect((await undo(events[0].change)).status).toBe(204);
    const papers = await rakuen.call<{ id: string; notes: string }[]>('GET', '/api/papers');
    expect(papers.body.find((p) => p.id === body.id)).toMatchObject({ notes: 'first' });
  });

  it('what holds for the studio is on record with every change, and each is undone; figures follow', async () => {
    type Event = { change: string; noun: string; name: string; undoable: boolean; changes: { field: string }[] };
    const last = async () => (await rakuen.call<Event[]>('GET', '/api/events')).body[0];
    const rates = async () => (await rakuen.call<Record<string, unknown>>('GET', '/api/rates')).body;
    const { said, revision, ...start } = await rates();
    expect(said).toBe(false);
    await rakuen.call('PUT', '/api/rates', { ...start, perHour: 41 });
    await rakuen.call('PUT', '/api/rates', { ...start, perHour: 43 }, { 'If-Match': `"${Number(revision) + 1}"` });
    const change = await last();
    expect(change).toMatchObject({
      noun: 'what holds for the studio',
      name: 'rates',
      undoable: true,
      changes: [{ field: 'perHour', before: '41', after: '43' }],
    });
    expect((await undo(change.change)).status).toBe(204);
    expect(await rates()).toMatchObject({ perHour: 41, said: true, revision: Number(revision) + 3 });
    const first = (await rakuen.call<Event[]>('GET', '/api/events')).body[2];
    await undo((await last()).change);
    await undo((await last()).change);
    expect((await undo(first.change)).status).toBe(204);
    expect(await rates()).toMatchObject({ ...start, said: false });

    const id = await condition(rakuen, 'Follows the threshold');
    await rakuen.upload(`/api/conditions/${id}/readings`, 'u.txt', readFileSync(fixture('fogra29l.cgats.txt')));
    const figures = async () =>
      (await rakuen.call<{ facts: { figures: object } }>('GET', `/api/conditions/${id}`)).body.facts.figures;
    const before = await figures();
    const { body: settings } = await rakuen.call<{ thresholds: Record<string, Record<string, number>> }>(
      'GET',
      '/api/settings',
    );
    const e00 = { edgeToEdge: 3, acrossRoom: 9 };
    const told = await rakuen.call('PUT', '/api/settings', {
      ...settings,
      thresholds: { ...settings.thresholds, deltaE: e00 },
    });
    expect(told.status).toBe(200);
    expect(await figures()).not.toEqual(before);
    await undo((await last()).change);
    expect(await figures()).toEqual(before);
  });

  it('what would come back to a place that was taken is refused, and stays in the bin', async () => {
    const { body } = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name: 'Taken' });
    await rakuen.call('DELETE', `/api/papers/${body.id}`);
    await rakuen.call('POST', '/api/papers', { ...PAPER, name: 'Taken' });
    const [entry] = await bin();
    expect((await undo(entry.change)).body).toMatchObject({
      statusCode: 409,
      message: expect.stringContaining('“Taken”'),
    });
    expect((await bin())[0]).toEqual(entry);
  });

  it('the record can’t be changed, not even by hand', () => {
    const db = new Database(join(rakuen.data, 'rakuen.sqlite'));
    expect(() => db.prepare("UPDATE events SET at = 'never'").run()).toThrow(/appended to/);
    expect(() => db.prepare('DELETE FROM events').run()).toThrow(/appended to/);
    db.close();
  });
});
