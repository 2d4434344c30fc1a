import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { blocks } from './files.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Figure {
  readonly shape: string;
  readonly lab?: number[];
  readonly value?: number;
}
interface Facts {
  readonly readingId?: string;
  readonly figures: Record<string, Figure>;
  readonly greys?: number[][];
}
interface View {
  readonly id: string;
  readonly facts?: Facts;
  readonly readings: { id: string; fileName: string; primary: boolean }[];
}
/** Measures a list shows. */
const SHOWN = ['white', 'black', 'dmax', 'gamutVolume'] as const;

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(() => rakuen.stop());

const get = async <T>(path: string) => (await rakuen.call<T>('GET', `/api/${path}`)).body;
const set = (sheet: keyof typeof SHEETS, seed: number, createdAt = '2026-03-02T10:00:00Z') =>
  writeCgats({ ...readChart(SHEETS[sheet], surfaceChart(3, 13, 1), 'M1', seed), createdAt });
const bring = (id: string, name: string, text: string, fields: Record<string, string> = {}) =>
  rakuen.upload<View>(`/api/conditions/${id}/readings`, name, text, fields);

/** What each place of the interface tells of a print condition: one and the same. */
async function toldOf(id: string) {
  const view = await get<View>(`conditions/${id}`);
  const [whole] = await get<View[]>(`conditions/whole?ids=${id}`);
  const head = (await get<View[]>('conditions')).find((c) => c.id === id)!;
  const { entries } = await get<{ entries: { readingId: string; figures: Record<string, Figure> }[] }>(
    `conditions/${id}/history`,
  );
  const ofSet = entries.find((e) => e.readingId === view.facts?.readingId);
  return { view, whole, head, ofSet };
}

async function expectOne(id: string): Promise<Facts> {
  const { view, whole, head, ofSet } = await toldOf(id);
  expect(whole.facts).toEqual(view.facts);
  expect(head.facts?.readingId).toBe(view.facts?.readingId);
  for (const key of SHOWN) {
    expect([key, head.facts?.figures[key]]).toEqual([key, view.facts?.figures[key]]);
    expect([key, ofSet?.figures[key]]).toEqual([key, view.facts?.figures[key]]);
  }
  expect(view.readings.filter((r) => r.primary).map((r) => r.id)).toEqual([view.facts?.readingId]);
  return view.facts!;
}

describe('a print condition’s figures', () => {
  it('are the same in the list, whole, and in the history; another box, another choice, a removal: all of them follow', async () => {
    const id = await condition(rakuen, 'One told');
    await bring(id, 'first.txt', set('baryta', 1), { batch: 'first' });
    const first = await expectOne(id);
    await bring(id, 'second.txt', set('cotton', 2, '2026-05-02T10:00:00Z'), { batch: 'second' });
    const second = await expectOne(id);
    expect(second.figures.dmax.value!).toBeLessThan(first.figures.dmax.value! - 0.3);
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: first.readingId });
    expect(await expectOne(id)).toEqual(first);
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, {});
    expect(await expectOne(id)).toEqual(second);
    expect((await rakuen.call('DELETE', `/api/readings/${second.readingId}`)).status).toBe(200);
    expect(await expectOne(id)).toEqual(first);
  });

  it('what a match says rests on the set that speaks now, and not on the one that spoke before', async () => {
    const id = await condition(rakuen, 'Matched');
    const chart = (sheet: keyof typeof SHEETS, seed: number, createdAt: string) =>
      writeCgats({ ...readChart(SHEETS[sheet], scatteredChart(300), 'M1', seed), createdAt });
    await bring(id, 'glossy.txt', chart('baryta', 21, '2026-03-02T10:00:00Z'), { batch: 'glossy' });
    const { readings } = await get<View>(`conditions/${id}`);
    const dark = await blocks([
      [0.02, 0.02, 0.02],
      [0.2, 0.15, 0.1],
    ]);
    const { pictureId } = (await picture(rakuen, 'dark.tif', dark)).job;
    const blackSeen = async () => {
      const ask = { pictureId, conditionIds: [id] };
      const { body } = await rakuen.call<{ places: { figures: { blackL: number } }[] }>('POST', '/api/matches', ask);
      return body.places[0].figures.blackL;
    };
    const first = await blackSeen();
    await bring(id, 'soft.txt', chart('cotton', 22, '2026-05-02T10:00:00Z'), { batch: 'soft' });
    const second = await blackSeen();
    expect(second).toBeGreaterThan(first + 5);
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: readings[0].id });
    expect(await blackSeen()).toBe(first);
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, {});
    expect(await blackSeen()).toBe(second);
  }, 240_000);

  it('two sets kept at once: the figures rest on what is kept, whichever came first', async () => {
    const id = await condition(rakuen, 'Two at once');
    const answers = await Promise.all([
      bring(id, 'p.txt', set('baryta', 3), { batch: 'p' }),
      bring(id, 'q.txt', set('cotton', 4, '2026-06-02T10:00:00Z'), { batch: 'q' }),
    ]);
    expect(answers.map((a) => a.status)).toEqual([201, 201]);
    const facts = await expectOne(id);
    const { readings } = await get<View>(`conditions/${id}`);
    expect(readings).toHaveLength(2);
    expect(readings.map((r) => r.id)).toContain(facts.readingId);
    // And anew, from nothing but what is kept: the same.
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: facts.readingId });
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, {});
    expect(await expectOne(id)).toEqual(facts);
  });

  it('what is kept, removed and chosen at once leaves no figure of what is gone', async () => {
    const id = await condition(rakuen, 'Hurried');
    await bring(id, 'a.txt', set('baryta', 5), { batch: 'a' });
    const [{ id: first }] = (await get<View>(`conditions/${id}`)).readings;
    await Promise.all([
      bring(id, 'b.txt', set('cotton', 6, '2026-06-02T10:00:00Z'), { batch: 'b' }),
      rakuen.call('DELETE', `/api/readings/${first}`),
      rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: first }),
    ]);
    const facts = await expectOne(id);
    const { readings } = await get<View>(`conditions/${id}`);
    expect(readings.map((r) => r.id)).toEqual([facts.readingId]);
  });

  it('the last reading removed: nothing is told of it any more, and it comes back with its figures from the bin', async () => {
    const id = await condition(rakuen, 'Emptied');
    await bring(id, 'only.txt', set('baryta', 7));
    const facts = await expectOne(id);
    expect((await rakuen.call('DELETE', `/api/readings/${facts.readingId}`)).status).toBe(200);
    const { view, head } = await toldOf(id);
    expect([view.facts, head.facts]).toEqual([undefined, undefined]);
    const [entry] = await get<{ change: string }[]>('bin');
    expect((await rakuen.call('POST', `/api/events/${entry.change}/undo`)).status).toBe(204);
    expect(await expectOne(id)).toEqual(facts);
  });

  it('what is found at the bench stands beside what was read, and alone where nothing was', async () => {
    const [read, unread] = [await condition(rakuen, 'Read and weighed'), await condition(rakuen, 'Weighed alone')];
    await bring(read, 'set.txt', set('baryta', 8));
    const before = await expectOne(read);
    const seen = { takenAt: '2026-11-20T10:00:00Z', by: 'Ines', instrument: '', light: '', note: '' };
    const weigh = (id: string) =>
      rakuen.call<View>('POST', `/api/conditions/${id}/observations`, {
        observations: [{ kind: 'weight', value: { grams: [19.1, 19.3], widthMm: 210, heightMm: 297 }, ...seen }],
      });
    for (const id of [read, unread]) expect((await weigh(id)).status).toBe(201);
    const after = await expectOne(read);
    expect(after.figures.weight.shape).toBe('scalar');
    // Bulk rests on the weight, too.
    const rest = { weight: null, bulk: null };
    expect({ ...after.figures, ...rest }).toEqual({ ...before.figures, ...rest });
    const { view, head } = await toldOf(unread);
    expect(view.facts!.figures.weight).toEqual(after.figures.weight);
    expect(view.facts!.figures.white.shape).toBe('missing');
    expect(head.facts!.figures.white).toEqual(view.facts!.figures.white);
    expect(view.facts!.readingId).toBeUndefined();
  });
});
