import { asThree } from '@rakuen/core/colour/three';
import { readFileSync } from 'node:fs';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { labToXyz } from '@rakuen/core/colour/lab';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { COLUMN_ROLES } from '@rakuen/core/formats/column-mapping';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { press } from '@rakuen/core/simulation/printer';
import { seededRandom } from '@rakuen/core/random';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn } from '@rakuen/core/simulation/stand-in';
import { readingFromProfile } from '@rakuen/server/work/profile-reading';
import { cmykProfile } from './cmyk-profile.ts';
import { condition, fixture, start, type Running } from './rakuen.ts';
import { facts, read } from './sheet-read.ts';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

type Figures = Record<string, { shape: string; value: number; lab: Lab; why: string; note?: string }>;
type View = {
  id: string;
  paperId: string;
  facts?: { figures: Figures; source?: string; readingId: string; gamutMethod: string };
  readings: { id: string; source: string; batch: string; measurementCondition?: string; patchCount?: number }[];
  figuresFrom?: string;
  observations: { kind: string }[];
};
type Preview = {
  parts: unknown[];
  source: string;
  patchCount: number;
  spreadsheet?: { columns: string[]; roles: string[]; remembered: boolean; fault?: string };
  recognised: string[];
  message: string;
};

describe('a spreadsheet', () => {
  const HEAD = 'Feld;Rot;Grün;Blau;hell;rot-grün;gelb-blau';
  const rows = [0, 0.25, 0.5, 0.75, 1]
    .flatMap((r) => [0, 0.5, 1].map((g) => [r, g, (r + g) / 2]))
    .map(([r, g, b], i) =>
      [
        `F${i + 1}`,
        ...[r, g, b].map((v) => String(Math.round(v * 255))),
        ...rgbToLab(SRGB, [r, g, b]).map((v) => v.toFixed(2).replace('.', ',')),
      ].join(';'),
    );
  const csv = [HEAD, ...rows].join('\r\n');
  const roles = ['id', 'rgb.0', 'rgb.1', 'rgb.2', 'lab.0', 'lab.1', 'lab.2'];

  it('whose columns say nothing is asked about, and kept when they are mapped; the mapping is remembered', async () => {
    const id = await condition(rakuen, 'Mapped');
    const asked = (await rakuen.upload<Preview>('/api/readings/preview', 'sheet.csv', csv)).body;
    expect(asked.parts).toHaveLength(0);
    expect(asked.spreadsheet).toMatchObject({
      columns: HEAD.split(';'),
      remembered: false,
      fault: expect.stringMatching(/colour|L\*/),
    });
    expect((await rakuen.upload<Preview>(`/api/conditions/${id}/readings`, 'sheet.csv', csv)).status).toBe(422);
    const mapping = JSON.stringify({ roles });
    expect((await rakuen.upload<Preview>('/api/readings/preview', 'sheet.csv', csv, { mapping })).body).toMatchObject({
      patchCount: 15,
      spreadsheet: { roles },
    });
    const kept = await rakuen.upload<View>(`/api/conditions/${id}/readings`, 'sheet.csv', csv, { mapping });
    expect(kept.status).toBe(201);
    expect(deltaE2000(kept.body.facts!.figures.white.lab, rgbToLab(SRGB, [1, 1, 1]))).toBeLessThan(0.05);
    const next = (await rakuen.upload<Preview>('/api/readings/preview', 'next.csv', csv.replace('F1;', 'F1a;'))).body;
    expect(next.spreadsheet).toMatchObject({ remembered: true, roles });
    expect(next.patchCount).toBe(15);
  });

  it.each([
    ['no JSON', '{'],
    ['a role nobody knows', JSON.stringify({ roles: roles.map((r, i) => (i === 1 ? 'beauty' : r)) })],
    ['a field nobody knows', JSON.stringify({ roles, colour: 1 })],
  ])('a mapping that is %s is refused', async (_, mapping) => {
    const { status, body } = await rakuen.upload<{ field: string }>('/api/readings/preview', 'sheet.csv', csv, {
      mapping,
    });
    expect(status).toBe(400);
    expect(body.field).toBe('mapping');
    expect(Object.keys(COLUMN_ROLES)).not.toContain('beauty');
  });
});

/** A profile of a space, made out to be one of a print. */
function ofAPrint(): Buffer {
  const bytes = readFileSync(fixture('sRGB.icc'));
  bytes.write('prtr', 12, 'latin1');
  return bytes;
}

describe('a profile', () => {
  it('of a monitor or a working space is no reading of a paper', async () => {
    const id = await condition(rakuen, 'Monitor');
    const refused = await rakuen.upload<{ message: string; remedy: string }>(
      `/api/conditions/${id}/readings`,
      'work.icc',
      readFileSync(fixture('sRGB.icc')),
    );
    expect(refused.status).toBe(422);
    expect(refused.body.message).toMatch(/monitor or a working space/);
  });

  it('stands in for readings, says so, and gives way to a measurement', async () => {
    const id = await condition(rakuen, 'Profiled');
    const kept = (await rakuen.upload<View>(`/api/conditions/${id}/readings`, 'work.icc', ofAPrint())).body;
    expect(kept.facts).toMatchObject({ source: 'profile', gamutMethod: 'device surface' });
    expect(kept.facts!.figures.gamutVolume.value).toBeGreaterThan(800_000);
    expect(kept.facts!.figures.metamerism.shape).toBe('missing');
    const measured = (
      await rakuen.upload<View>(
        `/api/conditions/${id}/readings`,
        'coated.txt',
        readFileSync(fixture('fogra39l.cgats.txt')),
      )
    ).body;
    expect(measured.facts!.source).not.toBe('profile');
    expect(measured.facts!.figures.white.lab).toEqual([95, 0, -2]);
  });

  it('RGB: what our reading tells are the colours of the space on the profile’s white, to ΔE00 0.05', async () => {
    const { reading } = await readingFromProfile(ofAPrint());
    expect(reading.patches.length).toBeGreaterThan(400);
    const onWhite = absoluteOnWhite(reading.patches.find((p) => p.device!.every((v) => v === 1))!.lab);
    const worst = Math.max(
      ...reading.patches.map((p) => deltaE2000(p.lab, onWhite(rgbToLab(SRGB, asThree(p.device!))))),
    );
    expect(worst).toBeLessThan(0.05);
  });

  it('CMYK: at the corners of the ink cube, the colours that were put into it, on its paper', async () => {
    const white: Lab = [93, 1, 5];
    const ink = (c: number, m: number, y: number, k: number): Lab => [
      100 - 25 * c - 30 * m - 5 * y - 30 * k,
      50 * (m - c) * (1 - k),
      60 * (y - (c + m) / 2) * (1 - k),
    ];
    const { reading } = await readingFromProfile(cmykProfile(ink, labToXyz(white)));
    const onPaper = absoluteOnWhite(white);
    const corners = reading.patches.filter((p) => p.device!.every((v) => v === 0 || v === 1));
    expect(corners.length).toBeGreaterThanOrEqual(15);
    for (const { lab, device } of corners) {
      const [c, m, y, k] = device!;
      expect(deltaE2000(lab!, onPaper(ink(c, m, y, k)))).toBeLessThan(0.2);
    }
  });
});

describe('sets of readings', () => {
  it('a later box stands beside the first, with figures of its own; a hand chooses which of them speaks', async () => {
    const id = await condition(rakuen, 'Two boxes');
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      'first.cxf',
      read((s) => s, '2026-03-01T10:00:00Z', 1),
      { printedAt: '2026-02-28T10:00:00Z' },
    );
    const later = (
      await rakuen.upload<View>(
        `/api/conditions/${id}/readings`,
        'later.cxf',
        read((s) => ({ ...s, warmth: 0.08, inkHold: 0.9 }), '2026-09-01T10:00:00Z', 2),
        { batch: 'autumn' },
      )
    ).body;
    const { entries } = (
      await rakuen.call<{ entries: { readingId: string; batch: string; driedHours?: number; figures: Figures }[] }>(
        'GET',
        `/api/conditions/${id}/history`,
      )
    ).body;
    expect(entries.map((e) => e.batch)).toEqual(['', 'autumn']);
    expect(entries[0].driedHours).toBe(24);
    expect(entries[1].driedHours).toBeUndefined();
    expect(entries[0].figures.dmax.value - entries[1].figures.dmax.value).toBeGreaterThan(0.1);
    expect(entries[1].figures.white.lab[2] - entries[0].figures.white.lab[2]).toBeGreaterThan(1);
    // The newest speaks, until a hand says otherwise.
    expect(later.facts!.figures.dmax.value).toBe(entries[1].figures.dmax.value);
    const chosen = await rakuen.call<View>('PUT', `/api/conditions/${id}/figures-from`, {
      readingId: entries[0].readingId,
    });
    expect(chosen.body).toMatchObject({ figuresFrom: entries[0].readingId });
    expect(chosen.body.facts!.figures.dmax.value).toBe(entries[0].figures.dmax.value);
    expect((await rakuen.call<View>('PUT', `/api/conditions/${id}/figures-from`, {})).body.facts!.readingId).toBe(
      entries[1].readingId,
    );
    const stranger = await condition(rakuen, 'A stranger');
    expect(
      (await rakuen.call('PUT', `/api/conditions/${stranger}/figures-from`, { readingId: entries[0].readingId }))
        .status,
    ).toBe(404);
  });
});

it('a removed set comes back though another was chosen since; what was chosen since stands', async () => {
  const id = await condition(rakuen, 'Chosen again');
  const bring = async (name: string, at: string, seed: number) =>
    (
      await rakuen.upload<View>(
        `/api/conditions/${id}/readings`,
        name,
        read((s) => s, at, seed),
      )
    ).body;
  await bring('one.cxf', '2026-03-01T10:00:00Z', 1);
  await bring('two.cxf', '2026-03-02T10:00:00Z', 2);
  const view = (await rakuen.call<View>('GET', `/api/conditions/${id}`)).body;
  const ids = view.readings.map((r) => r.id);
  const [one, two] = [ids[0], ids.at(-1)!];
  await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: one });
  expect((await rakuen.call('DELETE', `/api/readings/${one}`)).status).toBe(200);
  await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: two });
  const [{ change }] = (await rakuen.call<{ change: string }[]>('GET', '/api/bin')).body;
  expect((await rakuen.call('POST', `/api/events/${change}/undo`)).status).toBeLessThan(300);
  const back = (await rakuen.call<View>('GET', `/api/conditions/${id}`)).body;
  expect(back.readings.map((r) => r.id).sort()).toEqual([...ids].sort());
  expect(back.figuresFrom).toBe(two);
  expect(back.facts!.readingId).toBe(two);
});

describe('two sets, patch by patch', () => {
  const lab = (device: readonly (readonly number[])[], labs: readonly Lab[]) =>
    [
      'CGATS.17',
      'MEASUREMENT_CONDITION "M1"',
      'BEGIN_DATA_FORMAT',
      'SAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B',
      'END_DATA_FORMAT',
      'BEGIN_DATA',
      ...labs.map((v, i) => [i + 1, ...device[i].map((d) => 255 * d), ...v.map((x) => x.toFixed(4))].join(' ')),
      'END_DATA',
    ].join('\n');
  const net = [0, 0.5, 1].flatMap((r) => [0, 0.5, 1].flatMap((g) => [0, 0.5, 1].map((b): Rgb => [r, g, b])));
  const turn = ([L, a, b]: Lab): Lab => {
    const [c, s] = [Math.cos(0.14), Math.sin(0.14)];
    return [L, a * c - b * s, a * s + b * c];
  };
  type Compared = { verdict: string; common: number; mean: number; worst: { deltaE00: number }[]; message: string };

  it('hues that turned are reported with mean and worst patches; sets that can’t be compared say why', async () => {
    const id = await condition(rakuen, 'Turned hues');
    const labs = net.map((rgb) => rgbToLab(SRGB, rgb));
    const bring = async (name: string, text: string, batch: string) => {
      const { status, body } = await rakuen.upload<View>(`/api/conditions/${id}/readings`, name, text, { batch });
      expect(status).toBe(201);
      return body.readings.find((r) => r.batch === batch)!.id;
    };
    const first = await bring('before.txt', lab(net, labs), '');
    const later = await bring('after.txt', lab(net, labs.map(turn)), 'box 2');
    const { status, body } = await rakuen.call<Compared>('GET', `/api/readings/${later}/against/${first}`);
    expect(status).toBe(200);
    const off = labs.map((l) => deltaE2000(turn(l), l));
    expect(body).toMatchObject({ verdict: 'visible across the room', common: 27 });
    expect(body.mean).toBeCloseTo(off.reduce((s, v) => s + v, 0) / 27, 2);
    expect(body.worst[0].deltaE00).toBeCloseTo(Math.max(...off), 2);
    expect(body.worst).toHaveLength(12);
    const withoutUv = await bring('m2.txt', lab(net, labs).replace('"M1"', '"M2"'), 'box 3');
    const unlike = await rakuen.call<Compared>('GET', `/api/readings/${withoutUv}/against/${first}`);
    expect([unlike.status, unlike.body.message]).toEqual([409, 'One set was read in M2, the other in M1.']);
    const others = net.map(([r, g, b]): Rgb => [0.1 + 0.8 * r, 0.1 + 0.8 * g, 0.1 + 0.8 * b]);
    const apart = await bring(
      'others.txt',
      lab(
        others,
        others.map((rgb) => rgbToLab(SRGB, rgb)),
      ),
      'box 4',
    );
    const none = await rakuen.call<Compared>('GET', `/api/readings/${apart}/against/${first}`);
    // The middle grey is in both: one patch is too few.
    expect(none.body).toMatchObject({ verdict: 'too few patches', common: 1 });
    const nobody = '00000000-0000-4000-8000-000000000000';
    expect((await rakuen.call('GET', `/api/readings/${nobody}/against/${first}`)).status).toBe(404);
  });
});

describe('a CGATS file that leaves something open', () => {
  const cgats = (columns: string, rows: string[]) =>
    ['CGATS.17', 'BEGIN_DATA_FORMAT', columns, 'END_DATA_FORMAT', 'BEGIN_DATA', ...rows, 'END_DATA'].join('\n');
  const GREYS = [0.1, 0.2, 0.3, 0.4, 0.5, 0.62, 0.78];
  const row = (name: string, v: number, full: number) =>
    [name, ...[v, v, v].map((x) => Math.round(x * full)), ...rgbToLab(SRGB, [v, v, v]).map((x) => x.toFixed(2))].join(
      ' ',
    );

  it('is asked about its columns, kept with the answer, and known again', async () => {
    const id = await condition(rakuen, 'Odd names');
    const text = cgats(
      'WHO ROT GRUEN BLAU HELL ROTGRUEN GELBBLAU',
      [...GREYS, 1].map((v, i) => row(`P${i}`, v, 255)),
    );
    const asked = (await rakuen.upload<Preview>('/api/readings/preview', 'odd.txt', text)).body;
    expect(asked.parts).toHaveLength(0);
    expect(asked.spreadsheet).toMatchObject({
      columns: ['WHO', 'ROT', 'GRUEN', 'BLAU', 'HELL', 'ROTGRUEN', 'GELBBLAU'],
      fault: expect.stringMatching(/no colour/),
    });
    expect((await rakuen.upload<Preview>(`/api/conditions/${id}/readings`, 'odd.txt', text)).status).toBe(422);
    const mapping = JSON.stringify({ roles: ['id', 'rgb.0', 'rgb.1', 'rgb.2', 'lab.0', 'lab.1', 'lab.2'] });
    const kept = await rakuen.upload<View>(`/api/conditions/${id}/readings`, 'odd.txt', text, { mapping });
    expect(kept.status).toBe(201);
    expect(kept.body.facts!.figures.white.lab[0]).toBeCloseTo(100, 1);
    const next = (await rakuen.upload<Preview>('/api/readings/preview', 'next.txt', text.replace('P0 ', 'Q0 '))).body;
    expect(next.spreadsheet).toMatchObject({ remembered: true });
    expect(next.parts).toHaveLength(1);
  });

  it('is asked what its device values run to, where nothing tells it', async () => {
    // As dark on a scale of 100 as they would be light on one of 255: neither is likelier.
    const rows = GREYS.map((v, i) => [`P${i}`, 100 * v, 100 * v, 100 * v, 12 + 84 * v * 0.69, 0, 0].join(' '));
    const text = cgats('SAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B', rows);
    const asked = (await rakuen.upload<Preview>('/api/readings/preview', 'open.txt', text)).body;
    expect(asked.spreadsheet).toMatchObject({ fault: expect.stringMatching(/nothing tells whether/) });
    const roles = ['id', 'rgb.0', 'rgb.1', 'rgb.2', 'lab.0', 'lab.1', 'lab.2'];
    for (const deviceScale of [100, 255]) {
      const mapping = JSON.stringify({ roles, deviceScale });
      const told = (await rakuen.upload<Preview>('/api/readings/preview', 'open.txt', text, { mapping })).body;
      expect(told.parts).toHaveLength(1);
      expect(told.recognised.join()).toMatch(`RGB device values, 0–${deviceScale}`);
    }
    const wrong = JSON.stringify({ roles, deviceScale: 300 });
    expect((await rakuen.upload('/api/readings/preview', 'open.txt', text, { mapping: wrong })).status).toBe(400);
  });

  it('that is broken stays an error and is not asked about', async () => {
    const text = cgats('WHO ROT GRUEN BLAU', ['P0 1 2']);
    expect((await rakuen.upload('/api/readings/preview', 'broken.txt', text)).status).toBe(422);
  });
});

describe('a file of 10 000 spectral patches', () => {
  it('is taken in without anything else having to wait', async () => {
    const typical = standIn(facts);
    const print = press(typical, 'M1');
    const base = readChart(typical, surfaceChart(4, 11, 3), 'M1', 1);
    const random = seededRandom(8);
    const patches = [
      ...base.patches,
      ...Array.from({ length: 10_000 - base.patches.length }, (_, i) => {
        const device: Rgb = [random(), random(), random()];
        return { ...base.patches[0], id: `X${i}`, device, reflectance: print(device) };
      }),
    ];
    const text = writeCgats({ ...base, patches });
    const id = await condition(rakuen, 'Ten thousand');
    let done = false;
    const from = performance.now();
    const kept = rakuen.upload<View>(`/api/conditions/${id}/readings`, 'large.txt', text).finally(() => (done = true));
    const waits: number[] = [];
    while (!done) {
      const began = performance.now();
      await rakuen.call('GET', '/api/settings');
      waits.push(performance.now() - began);
      await new Promise((go) => setTimeout(go, 10));
    }
    const { status, body } = await kept;
    expect(status).toBe(201);
    expect(body.readings[0]).toMatchObject({ patchCount: 10_000 });
    expect(waits.length).toBeGreaterThan(5);
    // Were it computed where requests are answered, one of them would wait for most of it.
    expect(Math.max(...waits)).toBeLessThan((performance.now() - from) / 3);
  });

  it('the first separate greys follow the threshold of the settings, in the figures and in the history', async () => {
    const id = await condition(rakuen, 'Own threshold');
    const base = readChart(standIn(facts), surfaceChart(4, 21, 3), 'M1', 1);
    await rakuen.upload<View>(`/api/conditions/${id}/readings`, 'greys.txt', writeCgats(base));
    const shadow = async () => {
      const view = (await rakuen.call<View>('GET', `/api/conditions/${id}`)).body;
      const { entries } = (
        await rakuen.call<{ entries: { figures: Figures }[] }>('GET', `/api/conditions/${id}/history`)
      ).body;
      return {
        figure: view.facts!.figures.shadowSeparation,
        history: entries[0].figures.shadowSeparation,
      };
    };
    const before = await shadow();
    const { body: settings } = await rakuen.call<{ thresholds: { deltaE: object } }>('GET', '/api/settings');
    const put = (deltaE: object) =>
      rakuen.call('PUT', '/api/settings', { ...settings, thresholds: { ...settings.thresholds, deltaE } });
    try {
      expect((await put({ edgeToEdge: 2, acrossRoom: 3 })).status).toBe(200);
      const after = await shadow();
      expect(after.figure.value).toBeGreaterThan(before.figure.value);
      expect(after.figure.note).toMatch(/told from ΔE00 2\.0/);
      expect(after.history).toEqual(after.figure);
    } finally {
      await put(settings.thresholds.deltaE);
    }
    expect(await shadow()).toEqual(before);
  });
});
