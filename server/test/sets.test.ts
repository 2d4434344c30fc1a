import { writeCgats } from '@rakuen/core/formats/cgats-write';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn, type StandInFacts } from '@rakuen/core/simulation/stand-in';
import { condition, start, type Running } from './rakuen.ts';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

const SHEET: StandInFacts = {
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
const model = standIn(SHEET);
const full = surfaceChart(3, 17, 2);
const greys = Array.from({ length: 33 }, (_, i) => ({ id: `G${i}`, rgb: [i / 32, i / 32, i / 32] as const }));
const read = (
  chart: typeof full,
  seed: number,
  light: MeasurementCondition = 'M1',
  createdAt = '2026-03-02T10:00:00Z',
) => writeCgats({ ...readChart(model, chart, light as 'M1', seed), createdAt });
const bring = (id: string, name: string, text: string, fields: Record<string, string> = {}) =>
  rakuen.upload(`/api/conditions/${id}/readings`, name, text, fields);

type View = {
  facts: {
    readingId: string;
    borrowed?: Record<string, string>;
    figures: Record<string, { shape: string; value: number; why: string; lab: number[] }>;
  };
  readings: { id: string; fileName: string }[];
};
const view = async (id: string) => (await rakuen.call<View>('GET', `/api/conditions/${id}`)).body;
const named = ({ readings }: View, id: string | undefined) => readings.find((r) => r.id === id)?.fileName;

describe('which set speaks', () => {
  it('greys brought after a full chart give the greys; the gamut stays with the chart that holds one, and is named', async () => {
    const id = await condition(rakuen, 'Greys later');
    await bring(id, 'full.txt', read(full, 1));
    const before = (await view(id)).facts.figures.gamutVolume.value;
    expect((await bring(id, 'greys.txt', read(greys, 2))).status).toBe(201);
    const now = await view(id);
    expect(named(now, now.facts.readingId)).toBe('greys.txt');
    expect(now.facts.figures.gamutVolume.value).toBe(before);
    expect(named(now, now.facts.borrowed?.gamutVolume)).toBe('full.txt');
    expect(now.facts.borrowed?.neutrality).toBeUndefined();
  });

  it('without bare patches no colour is called the paper’s white', async () => {
    const id = await condition(rakuen, 'No white');
    const noWhite = full.filter(({ rgb }) => !rgb.every((v) => v === 1));
    await bring(id, 'colours.txt', read(noWhite, 3));
    const { figures } = (await view(id)).facts;
    for (const key of ['white', 'dmin', 'contrastRatio', 'brightenerShift', 'whiteness'])
      expect([key, figures[key]]).toEqual([key, { shape: 'missing', why: expect.stringMatching(/bare paper|M2/) }]);
    expect(figures.dmax.shape).toBe('scalar');
  });

  it('a set read before its print had dried does not displace a dried one', async () => {
    const id = await condition(rakuen, 'Wet later');
    await bring(id, 'dried.txt', read(full, 4, 'M1', '2026-03-03T10:00:00Z'), { printedAt: '2026-03-02T09:00:00Z' });
    await bring(id, 'wet.txt', read(full, 5, 'M1', '2026-03-05T10:00:00Z'), { printedAt: '2026-03-05T09:50:00Z' });
    const now = await view(id);
    expect(named(now, now.facts.readingId)).toBe('dried.txt');
  });

  it('M1 and M2 of different days are not joined into one Δb*, and the row says why', async () => {
    const id = await condition(rakuen, 'Two days');
    await bring(id, 'm1.txt', read(full, 6, 'M1', '2026-03-02T10:00:00Z'));
    await bring(id, 'm2-late.txt', read(full, 7, 'M2', '2026-05-02T10:00:00Z'));
    const apart = (await view(id)).facts.figures.brightenerShift;
    expect(apart).toMatchObject({
      shape: 'scalar',
      between: [expect.any(Number), expect.any(Number)],
      note: expect.stringMatching(/m2-late\.txt.*another day/),
    });
    await bring(id, 'm2.txt', read(full, 8, 'M2', '2026-03-02T10:20:00Z'));
    const joined = (await view(id)).facts.figures.brightenerShift;
    expect(joined).not.toHaveProperty('between');
    // Estimated beforehand, and measured now.
    expect(Math.abs(joined.value! - apart.value!)).toBeLessThan(1);
  });

  it('the set chosen by hand speaks alone', async () => {
    const id = await condition(rakuen, 'By hand');
    await bring(id, 'full.txt', read(full, 9));
    await bring(id, 'greys.txt', read(greys, 10));
    const { readings } = await view(id);
    const chosen = readings.find((r) => r.fileName === 'greys.txt')!;
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: chosen.id });
    const { facts } = await view(id);
    expect(facts.borrowed).toBeUndefined();
    expect(facts.figures.gamutVolume.shape).toBe('missing');
  });
});
