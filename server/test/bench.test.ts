import { designChart, type WishedSpec } from '@rakuen/core/chart/chart-design';
import sharp from 'sharp';
import { condition, CONDITION, start, type Running } from './rakuen.ts';

let rakuen: Running;
let id: string;
let sibling: string;
beforeAll(async () => {
  rakuen = await start();
  id = await condition(rakuen);
  const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${id}`);
  sibling = (
    await rakuen.call<{ id: string }>('POST', '/api/conditions', {
      ...CONDITION,
      mediaSetting: 'Plain',
      paperId: body.paperId,
    })
  ).body.id;
});
afterAll(async () => void (await rakuen.stop()));

type View = {
  observations: { id: string; kind: string; scanHash?: string }[];
  facts?: { figures: Record<string, { shape: string; value: number; sd: number; why: string }> };
};
const view = async (of = id) => (await rakuen.call<View>('GET', `/api/conditions/${of}`)).body;
const judged = { takenAt: '2026-11-20T10:00:00Z', by: 'Ines', instrument: '', light: 'D50, 2000 lx' };
const observe = (kind: string, value: object, more: object = {}) =>
  rakuen.call<View & { message: string; field: string }>('POST', `/api/conditions/${id}/observations`, {
    observations: [{ kind, value, ...judged, ...more }],
  });
const bytesOf = async (path: string) => {
  const response = await fetch(`${rakuen.url}${path}`);
  return { type: response.headers.get('content-type'), bytes: Buffer.from(await response.arrayBuffer()) };
};

describe('observations', () => {
  it('what is weighed is a figure of every print condition on the paper, and gone when it is removed', async () => {
    const { status, body } = await observe('weight', { grams: [18.7, 18.72, 18.71], widthMm: 210, heightMm: 297 });
    expect(status).toBe(201);
    expect(body.facts!.figures.weight.value).toBeCloseTo(18.71 / 0.06237, 1);
    expect((await view(sibling)).facts!.figures.weight.value).toBeCloseTo(18.71 / 0.06237, 1);
    expect(body.facts!.figures.dmax).toMatchObject({ shape: 'missing', why: expect.stringContaining('chart') });
    const [{ id: weighed }] = body.observations;
    expect((await rakuen.call('DELETE', `/api/observations/${weighed}`)).status).toBe(200);
    expect((await view(sibling)).facts).toBeUndefined();
  });

  it('what is hard to believe is asked about, and kept when somebody says that it is right', async () => {
    const per = { grams: [70], widthMm: 210, heightMm: 297 };
    const refused = await observe('weight', per);
    expect(refused.status).toBe(409);
    expect(refused.body).toMatchObject({ field: 'grams', message: expect.stringMatching(/1.?122 g\/m²/) });
    expect((await view()).observations).toEqual([]);
    const observations = [{ kind: 'weight', value: per, ...judged }];
    const sure = await rakuen.call<View>('POST', `/api/conditions/${id}/observations`, { observations, sure: true });
    expect(sure.status).toBe(201);
    await rakuen.call('DELETE', `/api/observations/${sure.body.observations[0].id}`);
  });

  it('of two entries of one instant the later one gives the figure, whatever their ids', async () => {
    const grams = [18.5, 18.6, 18.7, 18.8, 18.9, 19];
    for (const g of grams) await observe('weight', { grams: [g], widthMm: 210, heightMm: 297 });
    const { facts, observations } = await view();
    expect(facts!.figures.weight.value).toBeCloseTo(19 / 0.06237, 3);
    expect(observations.map((o) => (o as unknown as { value: { grams: number[] } }).value.grams[0])).toEqual(grams);
    for (const o of observations) await rakuen.call('DELETE', `/api/observations/${o.id}`);
  });

  it('what is judged of a print stays with that print condition, with who looked and under which light', async () => {
    await observe('rub', { minutesAfterPrinting: 10, grade: 2 });
    const { body } = await observe('bronzing', { grade: 3 });
    expect(body.facts!.figures).toMatchObject({
      rubAfterMinutes: { value: 2 },
      bronzing: { value: 3 },
      rubAfterADay: { shape: 'missing' },
    });
    expect(body.observations.find((o) => o.kind === 'bronzing')).toMatchObject({ by: 'Ines', light: 'D50, 2000 lx' });
    expect((await view(sibling)).facts).toBeUndefined();
  });

  it.each([
    ['a grade beyond the scale', 'rub', { minutesAfterPrinting: 10, grade: 7 }, 'grade'],
    ['a field nobody knows', 'bronzing', { grade: 1, colour: 'red' }, 'colour'],
    ['no readings at all', 'weight', { grams: [], widthMm: 210, heightMm: 297 }, 'grams'],
    ['an angle no gloss meter has', 'gloss', { angleDeg: 45, white: [3], black: [] }, 'angleDeg'],
  ])('%s is refused and named', async (_, kind, value, field) => {
    const { status, body } = await observe(kind, value);
    expect(status).toBe(400);
    expect(`${body.field} ${body.message}`).toContain(field);
  });

  it('of several at once, one that is wrong keeps all of them out', async () => {
    const before = (await view()).observations.length;
    const { status } = await rakuen.call('POST', `/api/conditions/${id}/observations`, {
      observations: [
        { kind: 'gloss', value: { angleDeg: 60, white: [40], black: [60] }, ...judged },
        { kind: 'gloss', value: { angleDeg: 20, white: ['x'], black: [] }, ...judged },
      ],
    });
    expect(status).toBe(400);
    expect((await view()).observations).toHaveLength(before);
  });

  it.each(['gloss', 'weight', 'thickness', 'opacity'])(
    'the stand-in for %s gives values that can be kept as they are',
    async (kind) => {
      const { body } = await rakuen.call<{ instrument: string; values: object[] }>(
        'POST',
        `/api/conditions/${id}/bench`,
        { kind },
      );
      expect(body.instrument).toMatch(/^Simulated/);
      const kept = await rakuen.call<View>('POST', `/api/conditions/${id}/observations`, {
        observations: body.values.map((value) => ({ kind, value, ...judged, instrument: body.instrument })),
      });
      expect(kept.status).toBe(201);
      const key = kind === 'gloss' ? 'glossDifferential' : kind;
      expect(kept.body.facts!.figures[key].shape).toBe('scalar');
    },
  );
});

describe('a raking-light scan', () => {
  const ppi = 300;
  const wavelengthMm = 1.2;
  /** A sheet whose tooth is a wave of a known length. */
  const wave = async () => {
    const side = 300;
    const data = Uint8Array.from(
      { length: side * side },
      (_, i) => 190 + 8 * Math.sin((2 * Math.PI * ((i % side) * 25.4)) / ppi / wavelengthMm),
    );
    return sharp(data, { raw: { width: side, height: side, channels: 1 } })
      .png()
      .toBuffer();
  };

  it('gives the wavelength that was put in; the scan is kept, and shown with its contrast raised', async () => {
    const { status, body } = await rakuen.upload<View>(`/api/conditions/${id}/scans`, 'scan.png', await wave(), {
      ppi: String(ppi),
      by: 'Ines',
      instrument: 'Flatbed and lamp',
    });
    expect(status).toBe(201);
    expect(Math.abs(body.facts!.figures.textureWavelength.value - wavelengthMm)).toBeLessThan(0.08);
    expect(body.facts!.figures.textureAmplitude.value).toBeGreaterThan(1);
    const scan = body.observations.find((o) => o.scanHash)!;
    const spread = async (query: string) => {
      const { bytes } = await bytesOf(`/api/observations/${scan.id}/scan${query}`);
      const { depth } = await sharp(bytes).metadata();
      return (await sharp(bytes).stats()).channels[0].stdev / (depth === 'ushort' ? 65_535 : 255);
    };
    expect(await spread('?as=raised')).toBeGreaterThan(3 * (await spread('')));
  });

  it('a simulated one is measured as any other', async () => {
    const { status, body } = await rakuen.call<View>('POST', `/api/conditions/${sibling}/scans/simulated`, {
      by: 'Ines',
    });
    expect(status).toBe(201);
    expect(body.facts!.figures.textureWavelength.value).toBeGreaterThan(0.2);
  });

  it.each([
    ['not a picture', 'scan.png', Buffer.from('hello'), '300'],
    ['too coarse to tell', 'scan.png', undefined, '5'],
    ['of no resolution', 'scan.png', undefined, 'many'],
  ])('one that is %s is refused, and nothing is kept', async (_, name, bytes, dpi) => {
    const before = (await view()).observations.length;
    const { status, body } = await rakuen.upload<{ message: string; remedy: string }>(
      `/api/conditions/${id}/scans`,
      name,
      bytes ?? (await wave()),
      { ppi: dpi, by: 'Ines', instrument: '' },
    );
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect(body.remedy).toBeTruthy();
    expect((await view()).observations).toHaveLength(before);
  });
});

/** Device values 0–255 by patch, from a reference file, as any reader of columns finds them. */
const reference = (text: string) =>
  new Map(
    text
      .split('BEGIN_DATA\n')[1]
      .split('\nEND_DATA')[0]
      .split('\n')
      .map((l) => l.split(' '))
      .map(([name, ...rgb]) => [name, rgb.map(Number)] as const),
  );

describe('charts', () => {
  const spec: WishedSpec = { purpose: 'gamut', patches: 300, sheet: 'A4', patchMm: 8, dpi: 150, seed: 77 };
  type Chart = { id: string; patchCount: number; stripCount: number; pageCount: number };
  let chart: Chart;

  it('a chart is laid out and kept', async () => {
    const { status, body } = await rakuen.call<Chart>('POST', '/api/charts', { name: 'Proof chart', spec });
    expect(status).toBe(201);
    chart = body;
    expect(chart.patchCount).toBeGreaterThanOrEqual(300);
  });

  it('the TIFF has 16 bits, no profile, and holds exactly the device values of the reference file', async () => {
    const values = reference((await bytesOf(`/api/charts/${chart.id}/file?as=cgats`)).bytes.toString());
    expect(values.size).toBe(chart.patchCount);
    const { type, bytes } = await bytesOf(`/api/charts/${chart.id}/file?as=tiff`);
    expect(type).toBe('image/tiff');
    const image = sharp(bytes);
    const head = await image.metadata();
    expect(head).toMatchObject({ format: 'tiff', depth: 'ushort', channels: 3, density: 150 });
    expect(head.icc).toBeUndefined();
    const { data, info } = await image
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const pixels = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const { strips } = designChart(spec);
    let compared = 0;
    for (const patch of strips.filter((s) => s.page === 0).flatMap((s) => s.patches)) {
      const [x, y] = [patch.xMm, patch.yMm].map((mm) => Math.round(((mm + spec.patchMm / 2) / 25.4) * spec.dpi));
      const at = (y * info.width + x) * 3;
      expect([...pixels.subarray(at, at + 3)]).toEqual(
        values.get(patch.id)!.map((v) => Math.round((v / 255) * 65_535)),
      );
      compared++;
    }
    expect(compared).toBeGreaterThan(200);
  });

  it('the PDF has a page a sheet and its patches as vectors', async () => {
    const { type, bytes } = await bytesOf(`/api/charts/${chart.id}/file?as=pdf`);
    expect(type).toBe('application/pdf');
    const text = bytes.toString('latin1');
    expect(text.startsWith('%PDF-')).toBe(true);
    expect(text.match(/\/Type \/Page\b/g)).toHaveLength(chart.pageCount);
    expect(text).not.toContain('/Subtype /Image');
  });

  it('what can’t be laid out is refused by its field', async () => {
    const far = await rakuen.call<{ field: string }>('POST', '/api/charts', {
      name: 'Too much',
      spec: { ...spec, patches: 5000, patchMm: 30 },
    });
    expect(far).toMatchObject({ status: 422, body: { field: 'spec.patches' } });
    expect((await rakuen.call('POST', '/api/charts', { name: 'x', spec: { ...spec, colour: 1 } })).status).toBe(400);
    expect((await rakuen.call('GET', `/api/charts/${chart.id}/file?as=tiff&page=40`)).status).toBe(404);
    expect((await rakuen.call('GET', `/api/charts/${chart.id}/file?as=gif`)).status).toBe(400);
  });

  it('an unread chart is removed', async () => {
    expect((await rakuen.call('DELETE', `/api/charts/${chart.id}`)).status).toBe(204);
    expect((await rakuen.call<unknown[]>('GET', '/api/charts')).body).toHaveLength(0);
  });
});

describe('the test page', () => {
  const query = new URLSearchParams({
    sheet: 'A4',
    paper: 'Testmill Proof “Sheet” ½',
    printer: 'P',
    mediaSetting: 'Gloss',
    printMode: 'colour',
    date: '25 Nov',
    resolution: '1440 dpi',
  });
  const page = (as: string, dpi = 100) => bytesOf(`/api/test-page?as=${as}&dpi=${dpi}&${query}`);

  it('is 16 bits without a profile as TIFF, a page as PDF, a look as PNG, with its settings in the margin', async () => {
    const tiff = await page('tiff');
    const head = await sharp(tiff.bytes).metadata();
    expect(head).toMatchObject({ format: 'tiff', depth: 'ushort' });
    expect(head.icc).toBeUndefined();
    expect((await page('pdf')).bytes.toString('latin1').startsWith('%PDF-')).toBe(true);
    const named = await page('png');
    query.set('paper', '');
    const bare = await page('png');
    expect(await sharp(named.bytes).metadata()).toMatchObject({ format: 'png', depth: 'uchar' });
    expect(named.bytes.equals(bare.bytes)).toBe(false);
  });

  it('its bar of greys has a reference of 21 steps between its marks', async () => {
    const values = [...reference((await page('cgats')).bytes.toString()).values()];
    expect(values.every(([r, g, b]) => r === g && g === b)).toBe(true);
    expect(new Set(values.map(([r]) => r)).size).toBe(21);
  });

  it('a sheet too large for one picture is refused in words', async () => {
    const { status } = await rakuen.call('GET', `/api/test-page?as=tiff&dpi=2000&${query}`);
    expect(status).toBe(400);
  });
});
