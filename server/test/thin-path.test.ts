import { readFileSync } from 'node:fs';
import { openProfile } from '@rakuen/server/colour-management/lcms';
import { writeCxf } from '@rakuen/core/formats/cxf-write';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { PIGMENT_INKS } from '@rakuen/core/simulation/inks';
import { readChart } from '@rakuen/core/simulation/instrument';
import sharp from 'sharp';
import { blocks } from './files.ts';
import { condition, CONDITION, fixture, PAPER, picture, start, type Running } from './rakuen.ts';
import { CLASS_SHEETS, RELIEFS } from '@rakuen/core/simulation/stand-in';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

const coated = readFileSync(fixture('fogra39l.cgats.txt'));
const uncoated = readFileSync(fixture('fogra29l.cgats.txt'));

type Facts = {
  facts: {
    figures: Record<string, { shape: string; value: number; lab: number[]; why: string }>;
    outline: unknown[];
    ramp: unknown[];
    gamutMethod: string;
  };
  readings: { id: string; primary: boolean; measurementCondition?: string }[];
};

describe('readings', () => {
  it('shows what a file holds before it is kept, and keeps nothing', async () => {
    const { status, body } = await rakuen.upload<{
      patchCount: number;
      recognised: string[];
      missing: string[];
      deviceSpace: string;
      instrument: string;
    }>('/api/readings/preview', 'coated.txt', coated);
    expect(status).toBe(200);
    expect(body).toMatchObject({ patchCount: 1617, deviceSpace: 'CMYK' });
    expect(body.recognised.join()).toContain('CMYK device values, 0–100');
    expect(body.missing.join()).toContain('Measurement condition');
    expect((await rakuen.call<unknown[]>('GET', '/api/conditions')).body).toHaveLength(0);
  });

  it('keeps a file and computes the figures of the print condition from it', async () => {
    const id = await condition(rakuen, 'Coated');
    const { status, body } = await rakuen.upload<Facts>(`/api/conditions/${id}/readings`, 'coated.txt', coated, {
      measurementCondition: 'M0',
    });
    expect(status).toBe(201);
    expect(body.facts.figures.white.lab).toEqual([95, 0, -2]);
    expect(body.facts.figures.gamutVolume.value).toBeGreaterThan(370_000);
    expect(body.facts.gamutMethod).toBe('modified hull');
    expect(body.facts.outline).toHaveLength(72);
    expect(body.facts.ramp.length).toBeGreaterThan(8);
    expect(body.readings[0]).toMatchObject({ primary: true, measurementCondition: 'M0' });
    expect(body.facts.figures.brightenerShift.why).toContain('M2');

    const file = await fetch(`${rakuen.url}/api/readings/${body.readings[0].id}/file`);
    expect(Buffer.from(await file.arrayBuffer()).equals(coated)).toBe(true);
    expect((await rakuen.upload(`/api/conditions/${id}/readings`, 'again.txt', coated)).status).toBe(409);

    const removed = await rakuen.call<Facts>('DELETE', `/api/readings/${body.readings[0].id}`);
    expect(removed.body.facts).toBeUndefined();
    expect(removed.body.readings).toHaveLength(0);
    expect((await rakuen.upload(`/api/conditions/${id}/readings`, 'coated.txt', coated)).status).toBe(201);
  });
});

describe('a file with several readings', () => {
  it('CxF3 of one pass is kept as a reading a condition, and gives the brightener', async () => {
    const id = await condition(rakuen, 'One Pass');
    const sheet = { ...CLASS_SHEETS.matt, brightener: 0.5, relief: RELIEFS.smooth, weightGsm: 230, thicknessUm: 300 };
    const press = { sheet, inks: PIGMENT_INKS, blackInk: 'matt' as const, inkLoad: 1 };
    const [m1, m2] = (['M1', 'M2'] as const).map((uv, i) =>
      writeCxf(readChart(press, surfaceChart(3, 9, 3), uv, i + 1)),
    );
    // Two files made one: the objects of both, and both specifications.
    const between = (text: string, name: string) =>
      text.slice(text.indexOf(`<cc:${name}>`) + name.length + 5, text.indexOf(`</cc:${name}>`));
    const one = m1
      .replace('</cc:ObjectCollection>', () => `${between(m2, 'ObjectCollection')}</cc:ObjectCollection>`)
      .replace(
        '</cc:ColorSpecificationCollection>',
        () => `${between(m2, 'ColorSpecificationCollection')}</cc:ColorSpecificationCollection>`,
      );
    const preview = await rakuen.upload<{ parts: { measurementCondition: string }[] }>(
      '/api/readings/preview',
      'pass.cxf',
      one,
    );
    expect(preview.body.parts.map((p) => p.measurementCondition)).toEqual(['M1', 'M2']);
    const { status, body } = await rakuen.upload<Facts>(`/api/conditions/${id}/readings`, 'pass.cxf', one);
    expect(status).toBe(201);
    expect(body.readings.map((r) => [r.measurementCondition, r.primary])).toEqual([
      ['M1', true],
      ['M2', false],
    ]);
    expect(body.facts.figures.brightenerShift.value).toBeGreaterThan(2);
    expect(body.facts.gamutMethod).toBe('device surface');
    for (const [as, type] of [
      ['cgats', 'text/plain'],
      ['cxf', 'application/xml'],
      ['csv', 'text/csv'],
    ] as const) {
      const file = await fetch(`${rakuen.url}/api/readings/${body.readings[0].id}/file?as=${as}`);
      expect(file.headers.get('content-type')).toContain(type);
      expect(file.headers.get('content-disposition')).toContain(
        `pass-M1.${{ cgats: 'txt', cxf: 'cxf', csv: 'csv' }[as]}`,
      );
      const text = await file.text();
      if (as === 'csv')
        expect(text.split('\r\n')[0].split(',').slice(0, 4)).toEqual(['name', 'RGB_R', 'RGB_G', 'RGB_B']);
      else
        expect((await rakuen.upload<{ parts: object[] }>('/api/readings/preview', 'again', text)).body.parts).toEqual([
          preview.body.parts[0],
        ]);
    }
    expect((await rakuen.call('GET', `/api/readings/${body.readings[0].id}/file?as=xls`)).status).toBe(400);
    const without = await rakuen.call<Facts>('DELETE', `/api/readings/${body.readings[1].id}`);
    // Without its M2 it is no longer measured: it is estimated, and says so.
    expect(without.body.facts.figures.brightenerShift).toMatchObject({
      shape: 'scalar',
      between: [expect.any(Number), expect.any(Number)],
    });
  });
});

describe('pictures', () => {
  const colours: [number, number, number][] = [
    [0, 0, 0],
    [1, 1, 1],
    [1, 0, 0],
    [0.2, 0.5, 0.3],
    [0.5, 0.5, 0.5],
  ];

  it('gives the Lab that LittleCMS gives through the embedded profile, and another with another profile', async () => {
    const withP3 = await blocks(colours, 'p3');
    const icc = (await sharp(withP3).metadata()).icc!;
    const profile = await openProfile(icc);
    const known = profile.toLab(Float32Array.from(colours.flat()));
    profile.close();
    const mean = (c: number) => colours.reduce((s, _, i) => s + known[i * 3 + c], 0) / colours.length;
    const chroma = colours.reduce((s, _, i) => s + Math.hypot(known[i * 3 + 1], known[i * 3 + 2]), 0) / colours.length;

    type View = {
      figures: {
        meanL: number;
        meanChroma: number;
        nearBlackShare: number;
        nearWhiteShare: number;
        pixelsRead: number;
      };
      profileAssumed: boolean;
      bitsPerChannel: number;
      colourCells: number;
    };
    const view = async (name: string, bytes: Buffer) =>
      (await rakuen.call<View>('GET', `/api/pictures/${(await picture(rakuen, name, bytes)).job.pictureId}`)).body;
    const p3 = await view('wide.tif', withP3);
    expect(p3).toMatchObject({ profileAssumed: false, bitsPerChannel: 16, colourCells: colours.length });
    expect(p3.figures.pixelsRead).toBe(colours.length * 400);
    expect(p3.figures.meanL).toBeCloseTo(mean(0), 2);
    expect(p3.figures.meanChroma).toBeCloseTo(chroma, 2);
    expect(p3.figures.nearBlackShare).toBeCloseTo(0.2, 6);
    expect(p3.figures.nearWhiteShare).toBeCloseTo(0.2, 6);

    const bare = await view('bare.png', await blocks(colours, undefined, 'png'));
    expect(bare.profileAssumed).toBe(true);
    expect(p3.figures.meanChroma - bare.figures.meanChroma).toBeGreaterThan(2);
  });

  it.each(['jpeg', 'png', 'tiff'] as const)('reads 8-bit %s, colour and grey', async (format) => {
    for (const space of ['srgb', 'b-w'] as const) {
      const grey = sharp({ create: { width: 60, height: 40, channels: 3, background: { r: 119, g: 119, b: 119 } } });
      const bytes = await grey.toColourspace(space).toFormat(format).toBuffer();
      const { job } = await picture(rakuen, `grey.${format}`, bytes);
      expect(job).toMatchObject({ state: 'done' });
      const { body } = await rakuen.call<{ figures: { medianL: number; colour: string } }>(
        'GET',
        `/api/pictures/${job.pictureId}`,
      );
      expect(body.figures).toMatchObject({ medianL: 50, colour: 'black and white' });
      const preview = await fetch(`${rakuen.url}/api/pictures/${job.pictureId}/preview`);
      expect((await sharp(Buffer.from(await preview.arrayBuffer())).metadata()).format).toBe('jpeg');
    }
  });
});

describe('match, decision, print, ledger', () => {
  it('walks from a measured paper to the ledger', async () => {
    const wide = await condition(rakuen, 'Wide Sheet');
    const narrow = await condition(rakuen, 'Narrow Sheet', 'matt');
    const bare = await condition(rakuen, 'Unread Sheet');
    await rakuen.upload(`/api/conditions/${wide}/readings`, 'c.txt', coated);
    await rakuen.upload(`/api/conditions/${narrow}/readings`, 'u.txt', uncoated);
    const { job } = await picture(
      rakuen,
      'saturated.tif',
      await blocks(
        [
          [0.9, 0.1, 0.05],
          [0.1, 0.3, 0.8],
          [0.05, 0.05, 0.05],
          [0.1, 0.7, 0.2],
        ],
        'p3',
      ),
      { title: 'Four lamps' },
    );
    const pictureId = job.pictureId!;

    type Match = {
      places: {
        conditionId: string;
        place: number;
        cost: number;
        reasons: { sentence: string; figures: unknown[] }[];
        figures: { outsideShare: number; outsideMeanDeltaE: number; outside95DeltaE: number; meanDeltaE: number };
        decision?: { stamp: string };
      }[];
      leftOut: { conditionId: string; why: string }[];
    };
    const match = await rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: [narrow, wide, bare] });
    expect(match.status).toBe(200);
    expect(match.body.places.map((p) => p.conditionId)).toEqual([wide, narrow]);
    expect(match.body.leftOut).toEqual([{ conditionId: bare, why: 'Nothing was measured of it yet.' }]);
    const [best, other] = match.body.places;
    expect(other.figures.outsideShare).toBeGreaterThanOrEqual(best.figures.outsideShare);
    expect(other.figures.meanDeltaE).toBeGreaterThan(best.figures.meanDeltaE);
    expect(best.figures.outside95DeltaE).toBeGreaterThanOrEqual(best.figures.outsideMeanDeltaE);
    for (const p of match.body.places) for (const r of p.reasons) expect(r.figures.length).toBeGreaterThan(0);

    const held = await rakuen.call<{ id: string }>('POST', '/api/decisions', {
      pictureId,
      conditionId: wide,
      stamp: 'held',
      reason: 'Wait for daylight.',
    });
    const decided = await rakuen.call<{ id: string; place: number; costDeltaE: number }>('POST', '/api/decisions', {
      pictureId,
      conditionId: wide,
      stamp: 'chosen',
      reason: 'The reds hold.',
      decidedBy: 'client',
    });
    expect(decided.status).toBe(201);
    expect(decided.body.place).toBeGreaterThan(0);
    const again = await rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: [wide] });
    expect(again.body.places[0].decision?.stamp).toBe('chosen');
    expect((await rakuen.call('DELETE', `/api/decisions/${decided.body.id}`)).status).toBe(204);
    const back = await rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: [wide] });
    expect(back.body.places[0].decision).toMatchObject({ stamp: 'held' });
    expect(held.status).toBe(201);

    type Proposal = { settings: Record<string, string | boolean>; carriedFrom: Record<string, string> };
    const proposal = await rakuen.call<Proposal>(
      'GET',
      `/api/prints/proposal?pictureId=${pictureId}&conditionId=${wide}`,
    );
    expect(proposal.body.settings).toMatchObject({
      mediaSetting: CONDITION.mediaSetting,
      intent: 'relative colorimetric',
    });
    expect(proposal.body.carriedFrom.mediaSetting).toBe('the print condition');
    const print = {
      pictureId,
      conditionId: wide,
      printedOn: '2026-11-20',
      widthMm: 300,
      heightMm: 75,
      copies: 1,
      settings: { ...proposal.body.settings, sharpening: 'strong' },
      carriedOver: ['printer', 'mediaSetting'],
      verdict: 'good',
      verdictReason: '=reds as on the wall',
      misprints: 1,
      misprintCause: 'clogged nozzle',
    };
    const made = await rakuen.call<{ id: string }>('POST', '/api/prints', print);
    expect(made.status).toBe(201);
    expect((await rakuen.call('POST', '/api/prints', { ...print, misprintCause: ' ' })).body).toMatchObject({
      field: 'misprintCause',
    });
    expect((await rakuen.call('PUT', `/api/prints/${made.body.id}`, { ...print, verdict: 'good enough' })).status).toBe(
      200,
    );
    const next = await rakuen.call<Proposal>('GET', `/api/prints/proposal?pictureId=${pictureId}&conditionId=${wide}`);
    expect(next.body.settings.sharpening).toBe('strong');
    expect(next.body.carriedFrom.sharpening).toBe('the print of 2026-11-20');

    type Ledger = { entries: { kind: string; outcome: string; picture: string; paper: string }[] };
    const ledger = await rakuen.call<Ledger>('GET', '/api/ledger?q=wide%20four');
    expect(ledger.body.entries.map((e) => `${e.kind} ${e.outcome}`).sort()).toEqual([
      'decision held',
      'misprint clogged nozzle',
      'print good enough',
    ]);
    expect((await rakuen.call<Ledger>('GET', '/api/ledger?q=nozzle')).body.entries).toHaveLength(1);
    expect((await rakuen.call<Ledger>('GET', '/api/ledger?kind=decision&q=nozzle')).body.entries).toHaveLength(0);
    const csv = await (await fetch(`${rakuen.url}/api/ledger.csv?q=wide`)).text();
    expect(csv.split('\n')[0]).toContain('kind,at,picture,paper,condition,outcome,reason');
    expect(csv).toContain('clogged nozzle');
    // A spreadsheet would run a cell that begins with =.
    expect(csv).toContain("'=reds as on the wall");
    const json = await fetch(`${rakuen.url}/api/ledger.json`);
    expect(json.headers.get('content-disposition')).toContain('rakuen-ledger.json');
    expect(((await json.json()) as Ledger).entries.length).toBe(3);

    expect((await rakuen.call('DELETE', `/api/conditions/${wide}`)).body).toMatchObject({ statusCode: 409 });
    expect((await rakuen.call('DELETE', `/api/pictures/${pictureId}`)).body).toMatchObject({ statusCode: 409 });
    expect((await rakuen.call('DELETE', `/api/conditions/${bare}`)).status).toBe(204);
  });
});

describe('papers, settings, table', () => {
  it('refuses a twin, changes and removes a paper', async () => {
    const twin = { ...PAPER, name: 'Twin Sheet' };
    const { body } = await rakuen.call<{ id: string; pricePerM2: number }>('POST', '/api/papers', twin);
    expect(body.pricePerM2).toBeCloseTo(50 / (25 * 0.21 * 0.297), 9);
    expect((await rakuen.call('POST', '/api/papers', twin)).body).toMatchObject({ statusCode: 409, field: 'name' });
    expect(
      (await rakuen.call<{ weightGsm: number }>('PUT', `/api/papers/${body.id}`, { ...twin, weightGsm: 310 })).body
        .weightGsm,
    ).toBe(310);
    expect((await rakuen.call('DELETE', `/api/papers/${body.id}`)).status).toBe(204);
  });

  it('keeps the printmaker’s thresholds and refuses nonsense', async () => {
    const { body } = await rakuen.call<{
      thresholds: { deltaE: { edgeToEdge: number; acrossRoom: number } };
      limits: object;
      revision: number;
    }>('GET', '/api/settings');
    expect(body.thresholds.deltaE).toEqual({ edgeToEdge: 1, acrossRoom: 2 });
    const changed = { ...body, thresholds: { ...body.thresholds, deltaE: { edgeToEdge: 0.7, acrossRoom: 1.5 } } };
    expect((await rakuen.call('PUT', '/api/settings', changed)).status).toBe(200);
    expect((await rakuen.call('GET', '/api/settings')).body).toEqual({ ...changed, revision: body.revision + 1 });
    // The second of two windows is told, and shown what the first wrote.
    const stale = { 'If-Match': `"${body.revision}"` };
    expect(await rakuen.call('PUT', '/api/settings', body, stale)).toMatchObject({
      status: 412,
      body: { current: { thresholds: changed.thresholds, revision: body.revision + 1 } },
    });
    expect(
      (
        await rakuen.call('PUT', '/api/settings', {
          ...changed,
          thresholds: { ...changed.thresholds, deltaE: { edgeToEdge: 3, acrossRoom: 1 } },
        })
      ).status,
    ).toBe(400);
  });

  it('the table forgets what no longer exists and holds six', async () => {
    const id = await condition(rakuen, 'Laid Sheet');
    const ghost = '00000000-0000-4000-8000-000000000000';
    const does = (deed: string, id?: string) => rakuen.call('POST', '/api/table/deeds', { deed, id });
    await does('lay paper', id);
    await does('left hand', ghost);
    expect((await does('lay paper', ghost)).body).toEqual({ conditionIds: [id], pictureIds: [] });
    const others = await Promise.all([1, 2, 3, 4, 5, 6].map((i) => condition(rakuen, `Laid Sheet ${i}`)));
    // Five windows at once lose nothing of each other.
    await Promise.all(others.slice(0, 5).map((o) => does('lay paper', o)));
    const { body } = await rakuen.call<{ conditionIds: string[] }>('GET', '/api/table');
    expect([...body.conditionIds].sort()).toEqual([id, ...others.slice(0, 5)].sort());
    expect((await does('lay paper', others[5])).status).toBe(409);
    expect((await does('sweep')).status).toBe(400);
  });

  it('describes itself: OpenAPI with a schema for every request', async () => {
    expect((await fetch(`${rakuen.url}/api/docs`)).status).toBe(200);
    const { body } = await rakuen.call<{
      paths: Record<string, object>;
      components: { schemas: Record<string, { properties?: object }> };
    }>('GET', '/api/docs-json');
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining(['/api/papers', '/api/conditions/{id}/readings', '/api/matches', '/api/ledger.csv']),
    );
    for (const name of ['PaperInput', 'ConditionInput', 'MatchRequest', 'DecisionInput', 'PrintInput', 'ApiError'])
      expect(Object.keys(body.components.schemas[name].properties ?? {})).not.toHaveLength(0);
  });
});
