import { readFileSync } from 'node:fs';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import type { Lab } from '@rakuen/core/colour/types';
import { writeCxf } from '@rakuen/core/formats/cxf-write';
import { meshVolume, type GamutMesh } from '@rakuen/core/gamut/mesh';
import { lighting, litLabs, litXyz } from '@rakuen/core/light/lit-sheet';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn, type StandInFacts } from '@rakuen/core/simulation/stand-in';
import { pdfText } from './pdf-text.ts';
import { condition, CONDITION, fixture, start, type Running } from './rakuen.ts';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

const facts: StandInFacts = {
  coating: 'matt',
  surface: 'smooth',
  brightenerClaim: 'high',
  weightGsm: 230,
  thicknessUm: 300,
  blackInk: 'matt black',
  mediaSetting: 'Fine art matt',
  printMode: 'colour through a profile',
  blackOvercoat: false,
};
function read(over: Partial<StandInFacts>, seed: number): string {
  const model = standIn({ ...facts, ...over });
  const [m1, m2] = (['M1', 'M2'] as const).map((light) => ({
    ...readChart(model, surfaceChart(3, 11, 2), light, seed),
    createdAt: '2026-11-01T10:00:00Z',
  }));
  return writeCxf(m1, m2);
}

describe('a sheet for the comparison', () => {
  type Sheet = {
    mesh: GamutMesh;
    spectra: {
      startNm: number;
      stepNm: number;
      bands: number;
      reflected: string;
      luminous?: string;
      white: number;
      corners: number[];
    };
  };
  const floats = (text: string) => {
    const bytes = Buffer.from(text, 'base64');
    return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  };

  it('holds its solid and its spectra, brightener apart: under D50 its white is the figure that was measured', async () => {
    const id = await condition(rakuen, 'Bright', 'matt');
    const { body } = await rakuen.upload<{ facts: { figures: Record<string, { lab: Lab; value: number }> } }>(
      `/api/conditions/${id}/readings`,
      'bright.cxf',
      read({}, 1),
    );
    const sheet = (await rakuen.call<Sheet>('GET', `/api/conditions/${id}/sheet`)).body;
    expect(meshVolume(sheet.mesh)).toBeCloseTo(body.facts.figures.gamutVolume.value, -1);
    const spectra = {
      ...sheet.spectra,
      reflected: floats(sheet.spectra.reflected),
      luminous: floats(sheet.spectra.luminous!),
    };
    expect(spectra.reflected.length).toBe(spectra.luminous.length);
    expect(sheet.spectra.corners).toHaveLength(sheet.mesh.vertices.length);
    const under = lighting(TABLE_LIGHTS[0].power, GLASSES[0], spectra);
    const white = litLabs(litXyz(spectra, under), under)[spectra.white];
    white.forEach((v, c) => expect(v).toBeCloseTo(body.facts.figures.white.lab[c], 1));
  });

  it('without spectra it is a solid alone; without readings there is none', async () => {
    const id = await condition(rakuen, 'Offset');
    expect((await rakuen.call('GET', `/api/conditions/${id}/sheet`)).status).toBe(404);
    await rakuen.upload(`/api/conditions/${id}/readings`, 'coated.txt', readFileSync(fixture('fogra39l.cgats.txt')));
    const { body } = await rakuen.call<{ mesh: GamutMesh; spectra?: object }>('GET', `/api/conditions/${id}/sheet`);
    expect(body.mesh.triangles.length).toBeGreaterThan(100);
    expect(body.spectra).toBeUndefined();
  });
});

describe('lamps and profiles', () => {
  it('a lamp’s spectrum is imported, listed, and removed; a broken one is refused at its line', async () => {
    const rows = Array.from({ length: 36 }, (_, i) => `${380 + i * 10},${(1 + i / 10).toFixed(2)}`);
    const added = await rakuen.upload<{ id: string; name: string; values: number[] }>(
      '/api/lights',
      'lamp.csv',
      ['nm,power', ...rows].join('\n'),
      { name: 'Lamp by the easel' },
    );
    expect(added).toMatchObject({
      status: 201,
      body: { name: 'Lamp by the easel', stepNm: 10, uv: 'unknown', fileStepNm: 10 },
    });
    // What is known of its UV can be said, and nothing else.
    const uv = (value: string) => rakuen.call<{ uv: string }>('PATCH', `/api/lights/${added.body.id}`, { uv: value });
    expect(await uv('led')).toMatchObject({ status: 200, body: { uv: 'led' } });
    expect((await uv('bright')).status).toBe(400);
    expect((await rakuen.call<unknown[]>('GET', '/api/lights')).body).toHaveLength(1);
    const broken = await rakuen.upload<{ line: number; file: string }>(
      '/api/lights',
      'bad.csv',
      ['nm,power', ...rows.map((r, i) => (i === 9 ? '470,bright' : r))].join('\n'),
      { name: 'x' },
    );
    expect(broken).toMatchObject({ status: 422, body: { line: 11, file: 'bad.csv' } });
    expect((await rakuen.upload('/api/lights', 'lamp.csv', rows.join('\n'))).status).toBe(400);
    expect((await rakuen.call('DELETE', `/api/lights/${added.body.id}`)).status).toBe(204);
  });

  it('a profile becomes a solid, once; what is none is refused', async () => {
    const bytes = readFileSync(fixture('sRGB.icc'));
    const added = await rakuen.upload<{ id: string; volume: number }>('/api/profiles', 'work.icc', bytes);
    expect(added.status).toBe(201);
    expect(Math.abs(added.body.volume / 832_870 - 1)).toBeLessThan(0.003);
    expect((await rakuen.upload<{ id: string }>('/api/profiles', 'again.icc', bytes)).body.id).toBe(added.body.id);
    const { body } = await rakuen.call<{ mesh: GamutMesh }>('GET', `/api/profiles/${added.body.id}/solid`);
    expect(meshVolume(body.mesh)).toBeCloseTo(added.body.volume, 3);
    expect((await rakuen.upload('/api/profiles', 'none.icc', 'hello')).status).toBe(422);
    expect((await rakuen.call('DELETE', `/api/profiles/${added.body.id}`)).status).toBe(204);
  });

  it('the light over the table stays', async () => {
    await rakuen.call('POST', '/api/table/deeds', { deed: 'light', id: 'A' });
    await rakuen.call('POST', '/api/table/deeds', { deed: 'glass', id: 'museum' });
    expect((await rakuen.call('GET', '/api/table')).body).toMatchObject({ light: 'A', glass: 'museum' });
  });
});

describe('a comparison taken away', () => {
  it('as PDF of one or two pages and as CSV, under the light that was chosen, names in any letters', async () => {
    const ids: string[] = [];
    for (const [name, over, seed] of [
      ['Heller Bogen Ωμέγα vom Rand der alten Empfangsanlage', {}, 5],
      ['紙', { brightenerClaim: 'none' }, 6],
    ] as const) {
      const id = await condition(rakuen, name, 'matt');
      await rakuen.upload(`/api/conditions/${id}/readings`, `${seed}.cxf`, read(over, seed));
      ids.push(id);
    }
    const file = async (query: string) => {
      const response = await fetch(`${rakuen.url}/api/comparison?ids=${ids.join(',')}&${query}`);
      return { status: response.status, bytes: Buffer.from(await response.arrayBuffer()) };
    };
    const told = pdfText((await file('as=pdf')).bytes);
    const pages = told.split('\f').filter((page) => page.trim() !== '');
    expect(pages).toHaveLength(2);
    // Names are whole, wherever their lines were broken; nothing is cut short.
    for (const page of pages)
      for (const word of ['Heller', 'Bogen', 'Empfangsanlage', '紙']) expect(page).toContain(word);
    expect(told).not.toContain('…');
    for (const word of ['D50', 'a*, green', 'b*, yellow', 'Greys off the line']) expect(pages[0]).toContain(word);
    for (const word of ['White', 'Black', 'Greys', 'Dmax, D', 'Contrast ratio']) expect(pages[1]).toContain(word);
    expect(pages[1]).not.toContain('†');
    const glazedPage = pdfText((await file('as=pdf&light=A&glass=plain')).bytes);
    expect(glazedPage).toMatch(/ungsten, behind plain glass; CIELAB for an eye used to it/);
    expect(glazedPage).toContain('† As measured under D50');
    const rows = async (query: string) =>
      (await file(`as=csv${query}`)).bytes
        .toString('utf8')
        .split('\r\n')
        .map((l) => l.split(','));
    const black = (table: string[][]) => table.find((r) => r[0] === 'Dmax')!;
    const [plain, glazed] = [await rows(''), await rows('&light=A&glass=plain')];
    expect(plain[0].join()).toContain('Heller Bogen Ωμέγα');
    // A pane before it costs both sheets black.
    expect(Number(black(glazed)[2])).toBeLessThan(Number(black(plain)[2]));
    expect(black(plain)[4]).toBe('measured');
    expect(black(glazed)[4]).toBe('recomputed for the light');
    expect(glazed[1].join()).toContain('tungsten,plain glass,');
    // No spread is told to more digits than it has.
    for (const row of plain.slice(1, -1)) for (const at of [3, 6]) expect(row[at]).not.toMatch(/e-/);
    expect(plain.length).toBeGreaterThan(15);
    expect((await file('as=csv&light=moon')).status).toBe(404);
    expect((await rakuen.call('GET', `/api/comparison?as=csv&ids=${ids[0]}`)).status).toBe(400);
  });
});

describe('by eye', () => {
  type Eye = {
    id: string;
    left?: string;
    right?: string;
    pairCount: number;
    labels: { conditionId: string; code: string }[];
    places: { conditionId: string; scale: number; error?: number }[];
    verdict?: string;
    chance?: number;
    choices: { left: string; right: string }[];
  };
  const choose = (eye: Eye, said: string, turn = eye.choices.length) =>
    rakuen.call<Eye>('POST', `/api/eye/${eye.id}/choices`, { turn, said });
  let ids: string[];
  beforeAll(async () => void (ids = await Promise.all(['One', 'Two', 'Three'].map((n) => condition(rakuen, n)))));
  const begin = async (times = 2) =>
    (
      await rakuen.call<Eye>('POST', '/api/eye', {
        conditionIds: ids,
        criterion: 'deeper black',
        times,
        observer: 'Ines',
        light: 'D50, 2000 lx',
      })
    ).body;

  it('pairs come behind codes; what the eye prefers is found, with how sure it is, and only at the end', async () => {
    let eye = await begin(4);
    expect(eye).toMatchObject({ pairCount: 12, places: [] });
    expect(eye.verdict).toBeUndefined();
    // The comparison itself tells nothing of what lies behind its codes until every pair was seen.
    expect(eye.labels).toEqual([]);
    const { body: told } = await rakuen.call<Pick<Eye, 'labels'>>('GET', `/api/eye/${eye.id}/labels`);
    const rank = new Map(told.labels.map((l) => [l.code, ids.indexOf(l.conditionId)]));
    while (eye.left) {
      expect(rank.has(eye.left) && rank.has(eye.right!)).toBe(true);
      eye = (await choose(eye, rank.get(eye.left)! < rank.get(eye.right!)! ? 'left' : 'right')).body;
    }
    expect(eye.places.map((p) => p.conditionId)).toEqual(ids);
    expect(eye.verdict).toBe('distinguishable');
    // Six rankings of 2^12 ways to answer agree with themselves throughout.
    expect(eye.chance).toBeCloseTo(6 / 4096, 9);
    for (const p of eye.places) expect(p.error).toBeGreaterThan(0);
    expect((await choose(eye, 'left')).status).toBe(409);
  });

  it('eyes that could not tell are said to be such; a choice is taken back; the wrong turn is refused', async () => {
    let eye = await begin(1);
    expect((await choose(eye, 'left', 2)).status).toBe(409);
    eye = (await choose(eye, 'left')).body;
    eye = (await rakuen.call<Eye>('DELETE', `/api/eye/${eye.id}/choices/last`)).body;
    expect(eye.choices).toHaveLength(0);
    while (eye.left) eye = (await choose(eye, 'neither')).body;
    expect(eye).toMatchObject({ verdict: 'too few looks', chance: 1 });
    expect((await rakuen.call<unknown[]>('GET', '/api/eye')).body).toHaveLength(2);
  });

  it('an eye that never errs decides nothing with three looks at two prints; nine find what is obvious', async () => {
    for (const [times, verdict] of [
      [3, 'too few looks'],
      [9, 'distinguishable'],
    ] as const) {
      let eye = (
        await rakuen.call<Eye>('POST', '/api/eye', {
          conditionIds: ids.slice(0, 2),
          criterion: 'whiter',
          times,
          clarity: 'obvious',
          observer: 'Ines',
          light: 'D50',
        })
      ).body;
      const best = [eye.left!, eye.right!].sort()[0];
      while (eye.left) eye = (await choose(eye, eye.left === best ? 'left' : 'right')).body;
      expect(eye.verdict).toBe(verdict);
      const lefts = eye.choices.filter((c) => c.left === best).length;
      expect(Math.abs(2 * lefts - times)).toBeLessThanOrEqual(1);
      await rakuen.call('DELETE', `/api/eye/${eye.id}`);
    }
  });

  it('needs two prints', async () => {
    expect(
      (
        await rakuen.call('POST', '/api/eye', {
          conditionIds: [ids[0], ids[0]],
          criterion: 'whiter',
          times: 1,
          observer: 'I',
          light: 'day',
        })
      ).status,
    ).toBe(400);
    expect(
      (
        await rakuen.call('POST', '/api/eye', {
          conditionIds: ids,
          criterion: 'prettier',
          times: 1,
          observer: 'I',
          light: 'day',
        })
      ).status,
    ).toBe(400);
  });
});

describe('a sample pack', () => {
  type Pack = {
    id: string;
    plan: { id: string; sheets: { items: { kind: string }[] }[]; left: number; lacking: unknown[] }[];
    printed: string[];
    unread: string[];
  };

  it('is planned, ticked off, and knows which chart is unread', async () => {
    const types = await Promise.all(['Sample one', 'Sample two'].map((n) => condition(rakuen, n, 'matt')));
    const chartId = (
      await rakuen.call<{ id: string }>('POST', '/api/charts', {
        name: 'For packs',
        spec: { purpose: 'neutral', patches: 150, sheet: 'A4', patchMm: 8, dpi: 300, seed: 3 },
      })
    ).body.id;
    const input = {
      name: 'Spring',
      widthMm: 210,
      heightMm: 297,
      types: types.map((conditionId) => ({ conditionId, sheets: 4 })),
      chartId,
      testPage: true,
      crops: [],
    };
    // How it would lie is told before it is planned, as it will be; and nothing is kept of the asking.
    const { name: _, types: __, ...sheets } = input;
    const look = (over: object = {}) =>
      rakuen.call<{ each: Omit<Pack['plan'][number], 'id'> }>('POST', '/api/packs/look', {
        ...sheets,
        sheets: 4,
        ...over,
      });
    const { each } = (await look()).body;
    expect((await look({ sheets: 1 })).body.each).toMatchObject({ left: 0, lacking: [{ kind: 'test page' }] });
    for (const wrong of [{ sheets: 0 }, { sheets: 2.5 }, { widthMm: null }, { chartId: types[0] }, { colour: 1 }])
      expect((await look(wrong)).status).toBeGreaterThanOrEqual(400);
    expect((await rakuen.call<Pack[]>('GET', '/api/packs')).body).toEqual([]);

    const { status, body: pack } = await rakuen.call<Pack>('POST', '/api/packs', input);
    expect(pack.plan.map(({ id: _id, ...plan }) => plan)).toEqual([each, each]);
    expect(status).toBe(201);
    expect(pack.plan.map((t) => [t.id, t.sheets.map((s) => s.items.map((i) => i.kind)), t.left])).toEqual(
      types.map((id) => [id, [['chart'], ['test page']], 2]),
    );
    expect(pack.unread).toEqual(types);
    const sheet = `${types[0]}/0`;
    expect(
      (await rakuen.call<Pack>('POST', `/api/packs/${pack.id}/sheets`, { sheet, printed: true })).body.printed,
    ).toEqual([sheet]);
    expect(
      (await rakuen.call('POST', `/api/packs/${pack.id}/sheets`, { sheet: `${types[0]}/9`, printed: true })).status,
    ).toBe(404);
    await rakuen.upload(`/api/conditions/${types[0]}/readings`, 'read.cxf', read({}, 9));
    expect((await rakuen.call<Pack[]>('GET', '/api/packs')).body[0].unread).toEqual([types[1]]);
    for (const wrong of [
      { ...input, types: [] },
      { ...input, chartId: undefined, testPage: false },
      { ...input, colour: 1 },
    ])
      expect((await rakuen.call('POST', '/api/packs', wrong)).status).toBe(400);
    expect((await rakuen.call('DELETE', `/api/packs/${pack.id}`)).status).toBe(204);
  });
});

describe('a media-setting trial', () => {
  it('is ranked by what was measured, stamped by a hand, and found again', async () => {
    const right = await condition(rakuen, 'Tried', 'baryta');
    const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${right}`);
    expect(
      (await rakuen.call('POST', '/api/trials', { conditionId: right, reason: 'It is the only one.', by: 'Ines' }))
        .status,
    ).toBe(409);
    const starved = (
      await rakuen.call<{ id: string }>('POST', '/api/conditions', {
        ...CONDITION,
        mediaSetting: 'Plain',
        paperId: body.paperId,
      })
    ).body.id;
    const baryta = { coating: 'baryta', brightenerClaim: 'none', blackInk: 'photo black' } as const;
    await rakuen.upload(
      `/api/conditions/${right}/readings`,
      'right.cxf',
      read({ ...baryta, mediaSetting: 'Fibre gloss' }, 2),
    );
    await rakuen.upload(
      `/api/conditions/${starved}/readings`,
      'starved.cxf',
      read({ ...baryta, mediaSetting: 'Plain' }, 3),
    );
    await rakuen.call('POST', `/api/conditions/${right}/observations`, {
      observations: [
        {
          kind: 'rings',
          value: { grade: 0 },
          takenAt: '2026-11-20T10:00:00Z',
          by: 'Ines',
          instrument: '',
          light: 'D50',
        },
      ],
    });
    const { status, body: trial } = await rakuen.call<{
      id: string;
      mediaSetting: string;
      ranking: { conditionId: string; places: Record<string, number> }[];
    }>('POST', '/api/trials', { conditionId: right, reason: 'Open shadows.', by: 'Ines', light: 'D50' });
    expect(status).toBe(201);
    expect(trial.mediaSetting).toBe(CONDITION.mediaSetting);
    expect(trial.ranking.map((r) => r.conditionId)).toEqual([right, starved]);
    expect(trial.ranking[0].places.dmax).toBe(1);
    expect((await rakuen.call<{ reason: string }[]>('GET', '/api/trials')).body[0].reason).toBe('Open shadows.');
    expect((await rakuen.call('DELETE', `/api/trials/${trial.id}`)).status).toBe(204);
  });
});
