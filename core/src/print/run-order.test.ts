import fc from 'fast-check';
import { CHANGE_COSTS, EXACT_RUN, runOrder, type Presence, type RunAsked, type Waiting } from './run-order.ts';

const print = (id: string, blackInk: string, feed: string, byHand: boolean, minutes = 6): Waiting => ({
  id,
  blackInk,
  feed,
  byHand,
  minutes,
  dryMinutes: 30,
});

/** What an order takes, worked out by walking through it: unattended, inks, feeds, minutes. */
function walked(order: readonly Waiting[], { begins = {}, present = [] }: RunAsked): number[] {
  let [alone, inks, feeds, minutes] = [0, 0, 0, 0];
  let { blackInk, feed } = begins;
  for (const p of order) {
    if (blackInk !== undefined && blackInk !== p.blackInk)
      [inks, minutes] = [inks + 1, minutes + CHANGE_COSTS.blackInkMinutes];
    if (feed !== undefined && feed !== p.feed) [feeds, minutes] = [feeds + 1, minutes + CHANGE_COSTS.feedMinutes];
    [blackInk, feed] = [p.blackInk, p.feed];
    if (p.byHand && present.length > 0) {
      const starts = present
        .map((w: Presence) => Math.max(minutes, w.fromMin))
        .filter((s, i) => s + p.minutes <= present[i].toMin);
      if (starts.length > 0) minutes = Math.min(...starts);
      else alone++;
    }
    minutes += p.minutes;
  }
  return [alone, inks, feeds, minutes];
}
const orders = <T>(list: readonly T[]): T[][] =>
  list.length < 2 ? [[...list]] : list.flatMap((p, i) => orders(list.filter((_, j) => j !== i)).map((o) => [p, ...o]));
const less = (a: number[], b: number[]) => {
  const at = a.findIndex((v, i) => Math.abs(v - b[i]) > 1e-9);
  return at >= 0 && a[at] < b[at];
};

it('is the best of all orders, by exhaustive search up to six prints (fast-check)', () => {
  const waiting = fc.record({
    blackInk: fc.constantFrom('photo black', 'matt black'),
    feed: fc.constantFrom('auto feeder', 'front straight path', 'roll'),
    byHand: fc.boolean(),
    minutes: fc.integer({ min: 2, max: 15 }),
  });
  const window = fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 5, max: 60 }));
  fc.assert(
    fc.property(
      fc.array(waiting, { minLength: 1, maxLength: 6 }),
      fc.array(window, { maxLength: 2 }),
      fc.option(fc.constantFrom('photo black', 'matt black'), { nil: undefined }),
      (list, windows, blackInk) => {
        const prints = list.map((p, i): Waiting => ({ ...p, id: `${i}`, dryMinutes: 20 }));
        const present = windows.map(([fromMin, lasts]) => ({ fromMin, toMin: fromMin + lasts }));
        const asked: RunAsked = { prints, present, begins: { blackInk } };
        const best = orders(prints)
          .map((o) => walked(o, asked))
          .reduce((a, b) => (less(b, a) ? b : a));
        const plan = runOrder(asked);
        const found = plan.steps.map((s) => prints.find((p) => p.id === s.id)!);
        expect(walked(found, asked)).toEqual(best.map((v) => expect.closeTo(v, 9) as number));
        expect([
          plan.steps.filter((s) => s.alone).length,
          plan.blackInkChanges,
          plan.feedChanges,
          plan.minutes,
        ]).toEqual(best.map((v) => expect.closeTo(v, 9) as number));
      },
    ),
    { numRuns: 60 },
  );
});

it('changes the black once for five prints on three papers, and feeds by hand while someone is there', () => {
  const plan = runOrder({
    prints: [
      print('rag 1', 'matt black', 'front straight path', true, 9),
      print('baryta', 'photo black', 'front straight path', true, 9),
      print('lustre 1', 'photo black', 'auto feeder', false, 4),
      print('rag 2', 'matt black', 'front straight path', true, 9),
      print('lustre 2', 'photo black', 'auto feeder', false, 4),
    ],
    begins: { blackInk: 'photo black', feed: 'auto feeder' },
    present: [{ fromMin: 5, toMin: 60 }],
  });
  expect(plan).toMatchObject({ exact: true, blackInkChanges: 1, feedChanges: 1, inkMl: 3 });
  expect(plan.steps.map((s) => s.id.slice(0, 3))).toEqual(['lus', 'lus', 'bar', 'rag', 'rag']);
  expect(plan.steps.every((s) => !s.alone)).toBe(true);
  expect(plan.dryMin).toBe(plan.minutes + 30);
});

it('twelve are weighed within a second; of thirty a good order is given, and said not to be the best', () => {
  const many = (n: number) =>
    Array.from({ length: n }, (_, i) =>
      print(
        `${i}`,
        i % 3 ? 'photo black' : 'matt black',
        ['auto feeder', 'roll', 'rear single'][i % 3 ? i % 2 : 2],
        i % 5 === 0,
      ),
    );
  const from = performance.now();
  expect(runOrder({ prints: many(EXACT_RUN), present: [{ fromMin: 0, toMin: 90 }] }).exact).toBe(true);
  expect(performance.now() - from).toBeLessThan(5000);
  const plan = runOrder({ prints: many(30), begins: { blackInk: 'photo black' } });
  expect(plan.exact).toBe(false);
  expect(plan.blackInkChanges).toBe(1);
  expect(new Set(plan.steps.map((s) => s.id)).size).toBe(30);
});

it('nothing waits: nothing is planned', () => {
  expect(runOrder({ prints: [] })).toMatchObject({ steps: [], minutes: 0, dryMin: 0 });
});
