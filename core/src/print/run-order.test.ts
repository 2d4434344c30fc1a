import fc from 'fast-check';
import { dryingOf } from './drying.ts';
import { runOrder, type RunAsked } from './run-order.ts';
import { CHANGE_COSTS, type Presence, type Waiting } from './run-timing.ts';

const print = (id: string, blackInk: string, feed: string, over: Partial<Waiting> = {}): Waiting => ({
  id,
  blackInk,
  feed,
  copies: 1,
  minutesEach: 6,
  hand: feed === 'auto feeder' ? 'each stack' : feed === 'roll' ? 'feed change' : 'each copy',
  stack: 10,
  dryMinutes: 30,
  ...over,
});

/** What an order takes, worked out minute by minute: unplaced, inks, feeds, minutes. */
function walked(order: readonly Waiting[], { begins = {}, present = [] }: RunAsked): number[] {
  let [unplaced, inks, feeds, minutes] = [0, 0, 0, 0];
  let { blackInk, feed } = begins;
  const someone = (from: number, lasts: number) =>
    present.length === 0 || present.some((w: Presence) => from >= w.fromMin && from + lasts <= w.toMin);
  /** The first whole minute from which someone stands by so long. */
  const wait = (from: number, lasts: number) => {
    for (let at = from; at <= 400; at++) if (someone(at, lasts)) return at;
    return undefined;
  };
  for (const p of order) {
    const ink = blackInk !== undefined && blackInk !== p.blackInk;
    const other = feed !== undefined && feed !== p.feed;
    const change = (ink ? CHANGE_COSTS.blackInkMinutes : 0) + (other ? CHANGE_COSTS.feedMinutes : 0);
    let at: number | undefined = change > 0 ? wait(minutes, change) : minutes;
    if (at !== undefined) at += change;
    for (let copy = 0; copy < p.copies && at !== undefined; copy++) {
      if (p.hand === 'each copy') at = wait(at, p.minutesEach);
      else if (p.hand === 'each stack' && copy % p.stack === 0) at = wait(at, 0);
      if (at !== undefined) at += p.minutesEach;
    }
    if (at === undefined) {
      unplaced++;
      continue;
    }
    [minutes, blackInk, feed] = [at, p.blackInk, p.feed];
    [inks, feeds] = [inks + Number(ink), feeds + Number(other)];
  }
  return [unplaced, inks, feeds, minutes];
}
const orders = <T>(list: readonly T[]): T[][] =>
  list.length < 2 ? [[...list]] : list.flatMap((p, i) => orders(list.filter((_, j) => j !== i)).map((o) => [p, ...o]));
const less = (a: number[], b: number[]) => {
  const at = a.findIndex((v, i) => Math.abs(v - b[i]) > 1e-9);
  return at >= 0 && a[at] < b[at];
};

const waiting = fc.record({
  blackInk: fc.constantFrom('photo black', 'matt black'),
  feed: fc.constantFrom('auto feeder', 'front straight path', 'roll'),
  hand: fc.constantFrom('each copy', 'each stack', 'feed change'),
  copies: fc.integer({ min: 1, max: 4 }),
  stack: fc.integer({ min: 1, max: 3 }),
  minutesEach: fc.integer({ min: 2, max: 9 }),
});
const windows = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 5, max: 60 })), { maxLength: 3 })
  .map((list) => list.map(([fromMin, lasts]) => ({ fromMin, toMin: fromMin + lasts })));

it('is the best of all orders, by exhaustive search up to six prints (fast-check)', () => {
  fc.assert(
    fc.property(
      fc.array(waiting, { minLength: 1, maxLength: 6 }),
      windows,
      fc.option(fc.constantFrom('photo black', 'matt black'), { nil: undefined }),
      (list, present, blackInk) => {
        const prints = list.map((p, i): Waiting => ({ ...p, id: `${i}`, dryMinutes: 20 }) as Waiting);
        const asked: RunAsked = { prints, present, begins: { blackInk } };
        const best = orders(prints)
          .map((o) => walked(o, asked))
          .reduce((a, b) => (less(b, a) ? b : a));
        const plan = runOrder(asked);
        expect([plan.unplaced.length, plan.blackInkChanges, plan.feedChanges, plan.minutes]).toEqual(
          best.map((v) => expect.closeTo(v, 9) as number),
        );
        expect([...plan.steps.map((s) => s.id), ...plan.unplaced].sort()).toEqual(prints.map((p) => p.id).sort());
      },
    ),
    { numRuns: 60 },
  );
});

it('nothing that needs a hand is planned for when nobody is there (fast-check)', () => {
  fc.assert(
    fc.property(fc.array(waiting, { minLength: 1, maxLength: 20 }), windows, (list, present) => {
      const prints = list.map((p, i): Waiting => ({ ...p, id: `${i}`, dryMinutes: 20 }) as Waiting);
      const { steps } = runOrder({ prints, present });
      const inOne = (from: number, to: number) => present.some((w) => from >= w.fromMin - 1e-9 && to <= w.toMin + 1e-9);
      for (const step of steps) {
        const p = prints[Number(step.id)];
        if (present.length === 0) continue;
        for (const load of step.loads) expect(inOne(load, load)).toBe(true);
        if (p.hand === 'each stack') expect(step.loads).toHaveLength(Math.ceil(p.copies / p.stack));
        if (p.hand === 'each copy' && p.copies === 1) expect(inOne(step.startMin, step.endMin)).toBe(true);
      }
      // One after another, none over the one before.
      steps.slice(1).forEach((s, i) => expect(s.startMin).toBeGreaterThanOrEqual(steps[i].endMin - 1e-9));
    }),
    { numRuns: 40 },
  );
});

it('changes the black once for five prints on three papers, and feeds by hand while someone is there', () => {
  const plan = runOrder({
    prints: [
      print('rag 1', 'matt black', 'front straight path', { minutesEach: 9 }),
      print('baryta', 'photo black', 'front straight path', { minutesEach: 9 }),
      print('lustre 1', 'photo black', 'auto feeder', { minutesEach: 4 }),
      print('rag 2', 'matt black', 'front straight path', { minutesEach: 9 }),
      print('lustre 2', 'photo black', 'auto feeder', { minutesEach: 4 }),
    ],
    begins: { blackInk: 'photo black', feed: 'auto feeder' },
    present: [{ fromMin: 0, toMin: 60 }],
  });
  expect(plan).toMatchObject({ exact: true, blackInkChanges: 1, feedChanges: 1, inkMl: 3, unplaced: [] });
  expect(plan.steps.map((s) => s.id.slice(0, 3))).toEqual(['lus', 'lus', 'bar', 'rag', 'rag']);
  expect(plan.dryMin).toBe(plan.minutes + 30);
});

it('a feeder is loaded again after each stack, in the next window where someone is there', () => {
  const many = print('many', 'photo black', 'auto feeder', { copies: 25, minutesEach: 4 });
  // Ten sheets take forty minutes: at 40 someone is there till 45, at 80 nobody until 120.
  const present = [
    { fromMin: 0, toMin: 45 },
    { fromMin: 120, toMin: 130 },
  ];
  const [step] = runOrder({ prints: [many], present }).steps;
  expect(step).toMatchObject({ startMin: 0, loads: [0, 40, 120], endMin: 140 });
  const hand = print('by hand', 'photo black', 'rear single', { minutesEach: 50 });
  expect(runOrder({ prints: [hand], present })).toMatchObject({ steps: [], unplaced: ['by hand'], minutes: 0 });
});

it('thirty are planned within a second, with two windows and without', () => {
  const many = Array.from({ length: 30 }, (_, i) =>
    print(`${i}`, i % 3 ? 'photo black' : 'matt black', ['auto feeder', 'roll', 'rear single'][i % 3 ? i % 2 : 2], {
      minutesEach: 3 + (i % 7),
      copies: 1 + (i % 5),
    }),
  );
  const present = [
    { fromMin: 0, toMin: 240 },
    { fromMin: 360, toMin: 1000 },
  ];
  const from = performance.now();
  const plan = runOrder({ prints: many, begins: { blackInk: 'photo black' }, present });
  expect(performance.now() - from).toBeLessThan(2000);
  expect(plan.exact).toBe(false);
  expect(plan).toMatchObject({ blackInkChanges: 1, unplaced: [] });
  expect(new Set([...plan.steps.map((s) => s.id), ...plan.unplaced]).size).toBe(30);
  // While someone is there all the time, the best order of any number is known.
  expect(runOrder({ prints: many, begins: { blackInk: 'photo black' } })).toMatchObject({
    exact: true,
    blackInkChanges: 1,
    feedChanges: 2,
  });
});

it('nothing waits: nothing is planned', () => {
  expect(runOrder({ prints: [] })).toMatchObject({ steps: [], minutes: 0, dryMin: 0 });
});

it('what dries may be looked at, stacked, read and framed, in that order', () => {
  expect(dryingOf()).toEqual({ lookMin: 30, stackMin: 60, readMin: 1440, frameMin: 2880 });
  expect(dryingOf(90)).toMatchObject({ lookMin: 90, stackMin: 90, readMin: 1440 });
});
