/** @jest-environment ./web/test/dom-environment.mjs */
import { jest } from '@jest/globals';
import type { ConditionView } from '@rakuen/contract/conditions';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import type { Figure } from '@rakuen/core/measurement/figure';
import { partly } from '../../test/partly.ts';
import { serve, using } from '../../test/studio.tsx';

/** A desk that computes when the test lets it: each light's answer waits to be given. */
const waiting: { id: string; light: unknown; give: (facts: object) => void }[] = [];
const kept: string[] = [];
jest.unstable_mockModule('./desk.ts', () => ({
  desk: () => ({
    keep: async (id: string) => void kept.push(id),
    lit: (id: string, { power: light }: { power: unknown }) => new Promise((give) => waiting.push({ id, light, give })),
  }),
}));
const { useLitTable } = await import('./use-light.ts');

const scalar = (value: number): Figure => ({ shape: 'scalar', value, sd: 0.1 });
const condition = (id: string, over: object = {}): ConditionView =>
  partly({
    id,
    paper: { name: id },
    readings: [{ id: `r-${id}` }],
    facts: {
      version: 1,
      readingId: `r-${id}`,
      figures: { dmax: scalar(2), weight: scalar(300) },
      outline: [{ a: 1 }],
      ramp: [{ step: 0 }],
    },
    ...over,
  });
const SPECTRA = { startNm: 380, stepNm: 10, bands: 36, reflected: '', white: 0, black: 1, greys: [], corners: [] };
const [D50, WARM, COLD] = TABLE_LIGHTS;

/** The table under a light, with sheets as the server knows them. */
async function under(laid: readonly ConditionView[], spectra: Record<string, object | undefined>) {
  waiting.length = kept.length = 0;
  let light = D50.key;
  serve(({ path, method, body }) => {
    if (method === 'POST') light = (body as { id: string }).id;
    if (path.startsWith('table')) return { conditionIds: laid.map((c) => c.id), pictureIds: [], light };
    if (path === 'lights') return [];
    const id = path.split('/')[1];
    return { conditionId: id, readingId: `r-${id}`, spectra: spectra[id], mesh: undefined };
  });
  const hand = await using(() => useLitTable(laid, false));
  const figure = (id: string, key = 'dmax') => hand.now().conditions.find((c) => c.id === id)!.facts!.figures[key];
  const choose = async (key: string) => {
    const { api } = await import('../api/api.ts');
    await hand.does(() => hand.store.dispatch(api.endpoints.atTable.initiate({ deed: 'light', id: key })));
    await hand.until((t) => t.light.key === key);
  };
  const asked = async (power: unknown) => {
    await hand.until(() => waiting.some((w) => w.light === power));
    return waiting.filter((w) => w.light === power);
  };
  return { ...hand, figure, choose, asked };
}
const lit = (dmax: number) => ({ figures: { dmax: scalar(dmax) }, ramp: [{ step: 1 }], outline: [], mesh: undefined });

describe('the table under a light', () => {
  it('under D50 shows what was measured, and computes nothing', async () => {
    const { now, figure } = await under([condition('a')], { a: SPECTRA });
    expect(now().conditions[0].underLight).toBe('as measured');
    expect(figure('a')).toEqual(scalar(2));
    expect(now().plain).toBe(true);
  });

  it('under another, no figure of the first stands until its own is computed; what the bench found stays', async () => {
    const { now, figure, choose, asked, does } = await under([condition('a')], { a: SPECTRA });
    await choose(WARM.key);
    const [warm] = await asked(WARM.power);
    expect(figure('a')).toMatchObject({ shape: 'missing' });
    expect(figure('a', 'weight')).toEqual(scalar(300));
    expect(now().conditions[0].facts!.ramp).toBeUndefined();
    expect(now().settled).toBe(false);
    await does(() => warm.give(lit(1.9)));
    expect(figure('a')).toEqual(scalar(1.9));
    expect(now().conditions[0].lit).toMatchObject({ under: WARM.name, keys: new Set(['dmax']) });
    expect(now().settled).toBe(true);
  });

  it('changed while it is computed: the first light’s figures never stand under the second’s name', async () => {
    const { now, figure, choose, asked, does } = await under([condition('a')], { a: SPECTRA });
    await choose(WARM.key);
    const [warm] = await asked(WARM.power);
    await choose(COLD.key);
    const [cold] = await asked(COLD.power);
    // The first comes in late.
    await does(() => warm.give(lit(1.1)));
    expect(figure('a')).toMatchObject({ shape: 'missing' });
    expect(now().settled).toBe(false);
    await does(() => cold.give(lit(1.5)));
    expect(figure('a')).toEqual(scalar(1.5));
    expect(now().conditions[0].lit!.under).toBe(COLD.name);
  });

  it('… nor where it comes after the second', async () => {
    const { figure, choose, asked, does } = await under([condition('a')], { a: SPECTRA });
    await choose(WARM.key);
    const [warm] = await asked(WARM.power);
    await choose(COLD.key);
    const [cold] = await asked(COLD.power);
    await does(() => cold.give(lit(1.5)));
    await does(() => warm.give(lit(1.1)));
    expect(figure('a')).toEqual(scalar(1.5));
  });

  it('a print without spectra keeps what was measured and says so; one without a reading in M2 says that', async () => {
    const { now, figure, choose, asked, does } = await under([condition('told'), condition('b')], { b: SPECTRA });
    await choose(WARM.key);
    const [b] = await asked(WARM.power);
    expect(b.id).toBe('b');
    await does(() => b.give(lit(1.7)));
    expect(now().conditions.map((c) => c.underLight)).toEqual(['no spectra', 'no UV reading']);
    expect(figure('told')).toEqual(scalar(2));
    expect(now().conditions[0].lit!.keys).toEqual(new Set());
    expect(now().conditions[1].lit!.brightenerUnknown).toBe(true);
    expect(now().conditions[0].facts!.outline).toEqual([]);
  });

  it('of a sheet that was only weighed nothing is computed', async () => {
    const weighed = condition('w', {
      readings: [],
      facts: { version: 1, figures: { weight: scalar(250) }, outline: [] },
    });
    const { now, choose } = await under([weighed], {});
    await choose(WARM.key);
    expect(now().conditions[0].underLight).toBe('as measured');
    expect(waiting).toEqual([]);
  });
});
