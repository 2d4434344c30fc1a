import { condition, start, type Running } from './rakuen.ts';

type Place = { strip: number; pass: number };
type Session = {
  id: string;
  state: string;
  kept: number;
  lay?: { sheet: number; of: number };
  stripCount: number;
  next?: Place;
  questioned?: Place;
  drift?: { misread: string; saw: string };
  sinceCalibration: number;
  driedHours: number;
  excluded: { patch: number; pass: number }[];
  outliers: { patch: number; pass: number; deltaE: number }[];
  strips: {
    label: string;
    patchIds: string[];
    expected: number[][];
    passes: {
      pass: number;
      state: string;
      findings: { misread: string; saw: string; patches?: number[] }[];
      labs: number[][];
    }[];
  }[];
  message: string;
};

let rakuen: Running;
let chartId: string;
beforeAll(async () => {
  rakuen = await start();
  chartId = (
    await rakuen.call<{ id: string }>('POST', '/api/charts', {
      name: 'Small, A3',
      spec: { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 },
    })
  ).body.id;
});
afterAll(async () => void (await rakuen.stop()));

const printedAt = new Date(Date.now() - 26 * 3_600_000).toISOString();
const begin = async (conditionId: string, rehearsal: string, passes = 1, more: object = {}) =>
  (
    await rakuen.call<Session>('POST', '/api/sessions', {
      conditionId,
      chartId,
      instrument: 'Simulated bench spectrophotometer',
      passes,
      printedAt,
      batch: '',
      rehearsal,
      ...more,
    })
  ).body;
const deed = (session: Session, name: string, body: object | undefined = undefined) =>
  rakuen.call<Session>('POST', `/api/sessions/${session.id}/${name}`, body);
const readAll = async (session: Session) => {
  let now = session;
  while (now.next) now = (await (now.lay ? deed(now, 'lay', { sheet: now.lay.sheet }) : deed(now, 'read'))).body;
  return now;
};

describe('a reading session', () => {
  it('a slipped strip is caught and named; nothing goes on before it is mended; read again it is right', async () => {
    let s = await begin(await condition(rakuen, 'Slipped'), 'slipped');
    expect(s).toMatchObject({ state: 'open', kept: 0, next: { strip: 0, pass: 0 } });
    s = (await deed(s, 'read')).body;
    expect(s).toMatchObject({ kept: 1, next: { strip: 1 } });
    s = (await deed(s, 'read')).body;
    expect(s.questioned).toEqual({ strip: 1, pass: 0 });
    expect(s.strips[1].passes[0].findings[0]).toMatchObject({
      misread: 'slipped',
      saw: expect.stringMatching(/moved one patch on.*ΔE00/),
    });
    expect((await deed(s, 'read')).status).toBe(409);
    expect((await deed(s, 'finish', { takeDriftOut: false })).status).toBe(409);
    expect((await deed(s, 'mend', { ...s.questioned, mend: 'leave out' })).status).toBe(409);
    s = (await deed(s, 'again', s.questioned)).body;
    expect(s).toMatchObject({ kept: 1, next: { strip: 1, pass: 0 } });
    expect(s.questioned).toBeUndefined();
    s = (await deed(s, 'read')).body;
    expect(s.kept).toBe(2);
    expect(s.questioned).toBeUndefined();
  });

  it('a chart of several sheets says which to lay, waits for it, and takes each but once', async () => {
    const { body: large } = await rakuen.call<{ id: string }>('POST', '/api/charts', {
      name: 'Three sheets',
      spec: { purpose: 'neutral', patches: 300, sheet: 'A4', patchMm: 14, dpi: 300, seed: 5 },
    });
    let s = await begin(await condition(rakuen, 'Three sheets'), 'none', 2, { chartId: large.id });
    expect(s.lay).toEqual({ sheet: 1, of: expect.any(Number) });
    const { of } = s.lay!;
    expect(of).toBeGreaterThan(1);
    const refused = await deed(s, 'read');
    expect(refused.status).toBe(409);
    expect(refused.body).toMatchObject({
      message: expect.stringMatching(/sheet 1 of/),
      remedy: expect.stringMatching(/Lay/),
    });
    expect((await deed(s, 'lay', { sheet: of + 1 })).status).toBe(404);
    const laid: number[] = [];
    while (s.next) {
      if (s.lay) laid.push(s.lay.sheet);
      s = (await (s.lay ? deed(s, 'lay', { sheet: s.lay.sheet }) : deed(s, 'read'))).body;
    }
    expect(laid).toEqual(Array.from({ length: of }, (_, i) => i + 1));
    // A strip taken back from another sheet asks for that sheet again.
    s = (await deed(s, 'again', { strip: 0, pass: 1 })).body;
    expect(s.lay).toEqual({ sheet: 1, of });
  });

  it.each([
    ['doubled', 'doubled'],
    ['turned', 'turned'],
  ])('a %s strip is named', async (rehearsal, misread) => {
    let s = await begin(await condition(rakuen, `Sheet ${rehearsal}`), rehearsal);
    s = (await deed(s, 'read')).body;
    s = (await deed(s, 'read')).body;
    expect(s.strips[1].passes[0].findings[0].misread).toBe(misread);
  });

  it.each([
    ['skipped', /^From patch (\d+) on the readings fit when moved one patch on/],
    ['repeated', /^From patch (\d+) on the readings fit when moved one patch back/],
    ['stopped', /^From patch (\d+) on every patch reads the same/],
  ])('a strip with patches %s within it is stopped, and the first wrong patch is named', async (rehearsal, words) => {
    let s = await begin(await condition(rakuen, `Within ${rehearsal}`), rehearsal);
    s = (await deed(s, 'read')).body;
    s = (await deed(s, 'read')).body;
    expect(s.questioned).toEqual({ strip: 1, pass: 0 });
    const found = s.strips[1].passes[0].findings[0];
    expect(found).toMatchObject({ misread: rehearsal, saw: expect.stringMatching(words) });
    const first = Number(words.exec(found.saw)![1]);
    expect(found.patches).toEqual(
      Array.from({ length: s.strips[1].patchIds.length - first + 1 }, (_, i) => first - 1 + i),
    );
    s = (await deed(s, 'again', s.questioned)).body;
    s = (await deed(s, 'read')).body;
    expect(s.questioned).toBeUndefined();
  });

  it('a dirty patch is left out on a word, and does not come into the reading; the last strip is undone', async () => {
    const id = await condition(rakuen, 'Dirty');
    let s = await begin(id, 'dirty', 2);
    s = (await deed(s, 'read')).body;
    s = (await deed(s, 'read')).body;
    const found = s.strips[1].passes[0].findings[0];
    expect(found).toMatchObject({ misread: 'dirty', patches: [expect.any(Number)] });
    s = (await deed(s, 'mend', { ...s.questioned, mend: 'leave out' })).body;
    expect(s.excluded).toHaveLength(1);
    s = (await deed(s, 'read')).body;
    const { kept } = s;
    s = (await deed(s, 'undo')).body;
    expect(s).toMatchObject({ kept: kept - 1, next: { strip: 2, pass: 0 } });
    s = await readAll(s);
    expect(s.kept).toBe(s.stripCount * 2);
    s = (await deed(s, 'finish', { takeDriftOut: true })).body;
    expect(s).toMatchObject({ state: 'finished' });
    const { body } = await rakuen.call<{
      readings: { id: string; patchCount: number; measurementCondition: string; printedAt: string; primary: boolean }[];
      facts: { repeats: number; figures: Record<string, { shape: string }> };
    }>('GET', `/api/conditions/${id}`);
    expect(body.readings.map((r) => r.measurementCondition).sort()).toEqual(['M0', 'M1', 'M2']);
    const patches = s.strips.reduce((n, t) => n + t.patchIds.length, 0);
    expect(body.readings[0].patchCount).toBe(2 * patches - 1);
    expect(body.readings[0].printedAt).toBe(printedAt);
    expect(body.facts.repeats).toBeGreaterThan(patches / 2);
    expect(body.facts.figures.brightenerShift.shape).toBe('scalar');
    const file = await (await fetch(`${rakuen.url}/api/readings/${body.readings[0].id}/file`)).text();
    expect(file).toContain('<?xml');
    expect(file).not.toContain(`"${s.strips[1].patchIds[found.patches![0]]}"`);
    expect((await deed(s, 'read')).status).toBe(409);
    expect((await rakuen.call('DELETE', `/api/charts/${chartId}`)).status).toBe(409);
  });

  it('drift between the repeated whites is told, and calibrating ends it', async () => {
    let s = await begin(await condition(rakuen, 'Drifting'), 'none', 4);
    s = await readAll(s);
    expect(s.drift).toMatchObject({ misread: 'drift', saw: expect.stringMatching(/fell by \d\.\d\d % of Y/) });
    s = (await deed(s, 'calibrate')).body;
    expect(s.sinceCalibration).toBe(0);
    // What was read before stays as it was read: the whites still tell of it, and the finish can take it out.
    const outPatch = { patch: 3, pass: 1, out: true };
    s = (await deed(s, 'patches', outPatch)).body;
    expect(s.excluded).toEqual([{ patch: 3, pass: 1 }]);
    s = (await deed(s, 'patches', { ...outPatch, out: false })).body;
    expect(s.excluded).toEqual([]);
  });

  it('what a printer of that kind should give bends towards what was read', async () => {
    let s = await begin(await condition(rakuen, 'Bending', 'cotton'), 'none');
    const before = s.strips.at(-1)!.expected;
    s = await readAll(s);
    const off = (expected: number[][]) =>
      expected.reduce(
        (sum, lab, i) => sum + Math.hypot(...lab.map((v, c) => v - s.strips.at(-1)!.passes[0].labs[i][c])),
        0,
      );
    expect(off(s.strips.at(-1)!.expected)).toBeLessThan(off(before));
  });

  it('the chart can’t have been printed tomorrow; an open session is given up, a finished one stays', async () => {
    const id = await condition(rakuen, 'Given up');
    const tomorrow = await rakuen.call<{ field: string }>('POST', '/api/sessions', {
      conditionId: id,
      chartId,
      instrument: 'Simulated bench spectrophotometer',
      passes: 1,
      printedAt: new Date(Date.now() + 86_400_000).toISOString(),
      rehearsal: 'none',
    });
    expect(tomorrow).toMatchObject({ status: 400, body: { field: 'printedAt' } });
    const s = await begin(id, 'none');
    expect((await rakuen.call('DELETE', `/api/sessions/${s.id}`)).status).toBe(204);
    expect((await rakuen.call('GET', `/api/sessions/${s.id}`)).status).toBe(404);
  });
});

describe('a session and the power', () => {
  it('after kill -9 it goes on at the strip where it stopped, with every strip that was acknowledged', async () => {
    const first = await start();
    const chart = (
      await first.call<{ id: string }>('POST', '/api/charts', {
        name: 'Small',
        spec: { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 },
      })
    ).body.id;
    const id = await condition(first);
    const { body: begun } = await first.call<Session>('POST', '/api/sessions', {
      conditionId: id,
      chartId: chart,
      instrument: 'Simulated bench spectrophotometer',
      passes: 1,
      printedAt,
      batch: 'second box',
      rehearsal: 'none',
    });
    for (let i = 0; i < 3; i++) await first.call('POST', `/api/sessions/${begun.id}/read`);
    const { body: before } = await first.call<Session>('GET', `/api/sessions/${begun.id}`);
    // One more is on its way when the power goes.
    const fourth = first.call('POST', `/api/sessions/${begun.id}/read`).catch(() => undefined);
    await first.kill();
    await fourth;
    const again = await start(first.data);
    let { body: s } = await again.call<Session>('GET', `/api/sessions/${begun.id}`);
    expect(s.strips.slice(0, 3).map((t) => t.passes[0].labs)).toEqual(
      before.strips.slice(0, 3).map((t) => t.passes[0].labs),
    );
    expect([3, 4]).toContain(s.kept);
    expect(s.next).toEqual({ strip: s.kept, pass: 0 });
    while (s.next) s = (await again.call<Session>('POST', `/api/sessions/${begun.id}/read`)).body;
    s = (await again.call<Session>('POST', `/api/sessions/${begun.id}/finish`, { takeDriftOut: false })).body;
    expect(s.state).toBe('finished');
    const { body: history } = await again.call<{ entries: { batch: string; driedHours: number }[] }>(
      'GET',
      `/api/conditions/${id}/history`,
    );
    expect(history.entries).toHaveLength(1);
    expect(history.entries[0].batch).toBe('second box');
    expect(history.entries[0].driedHours).toBeGreaterThan(25.9);
    await again.stop();
  });
});
