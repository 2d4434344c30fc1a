import fc from 'fast-check';
import type { Piece } from './nest.ts';
import { kindsOf, partsOf, placesOf, slicings as slicingsOf, type Slicing } from './slicing.ts';

const slicings = (list: readonly Piece[], widthMm: number, heightMm: number, gapMm: number) =>
  slicingsOf(kindsOf(list), widthMm, heightMm, gapMm);

const piece = (key: string, widthMm: number, heightMm: number, mayTurn = false): Piece => ({
  key,
  name: key,
  widthMm,
  heightMm,
  mayTurn,
});
const pieces = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 40 }), fc.boolean()), {
    minLength: 1,
    maxLength: 5,
  })
  .map((list) => list.map(([w, h, turn], i) => piece(`p${i}`, w, h, turn)));
const GAP = 2;

describe('laying pieces so that straight cuts part them', () => {
  it('each lies whole within the size that is said, the gap between any two, turned only where it may (fast-check)', () =>
    fc.assert(
      fc.property(pieces, (list) => {
        const all = slicings(list, 500, 500, GAP).at(-1)!;
        expect(all.length).toBeGreaterThan(0);
        for (const way of all) {
          const placed = placesOf(way, GAP).map((p) => ({
            ...p,
            w: p.turned ? p.heightMm : p.widthMm,
            h: p.turned ? p.widthMm : p.heightMm,
          }));
          expect(placed.map((p) => p.key).sort()).toEqual(list.map((p) => p.key).sort());
          for (const [i, p] of placed.entries()) {
            if (p.turned) expect(p.mayTurn).toBe(true);
            expect(p.xMm + p.w).toBeLessThanOrEqual(way.w + 1e-9);
            expect(p.yMm + p.h).toBeLessThanOrEqual(way.h + 1e-9);
            for (const q of placed.slice(i + 1)) {
              const across = Math.max(p.xMm, q.xMm) - Math.min(p.xMm + p.w, q.xMm + q.w);
              const down = Math.max(p.yMm, q.yMm) - Math.min(p.yMm + p.h, q.yMm + q.h);
              expect(Math.max(across, down)).toBeGreaterThanOrEqual(GAP - 1e-9);
            }
          }
        }
      }),
      { numRuns: 30 },
    ));

  it('none of the sizes is larger than another both ways (fast-check)', () =>
    fc.assert(
      fc.property(pieces, (list) => {
        for (const front of slicings(list, 500, 500, GAP))
          for (const p of front)
            for (const q of front) if (p !== q) expect(p.w >= q.w - 1e-9 && p.h >= q.h - 1e-9).toBe(false);
      }),
      { numRuns: 30 },
    ));

  it('finds the best there is: no way of putting three beside and above each other takes less (exhaustive)', () => {
    const list = [piece('a', 30, 10), piece('b', 20, 25), piece('c', 10, 10)];
    const ways = (keys: readonly Piece[]): { w: number; h: number }[] =>
      keys.length === 1
        ? [{ w: keys[0].widthMm, h: keys[0].heightMm }]
        : Array.from({ length: 2 ** keys.length - 2 }, (_, bits) => bits + 1).flatMap((bits) => {
            const [p, q] = [keys.filter((__, i) => bits & (1 << i)), keys.filter((__, i) => !(bits & (1 << i)))];
            return ways(p).flatMap((a) =>
              ways(q).flatMap((b) => [
                { w: a.w + GAP + b.w, h: Math.max(a.h, b.h) },
                { w: Math.max(a.w, b.w), h: a.h + GAP + b.h },
              ]),
            );
          });
    const found = slicings(list, 500, 500, GAP)[7];
    for (const way of ways(list)) expect(found.some((f) => f.w <= way.w + 1e-9 && f.h <= way.h + 1e-9)).toBe(true);
    expect(Math.min(...found.map((f) => f.w * f.h))).toBe(Math.min(...ways(list).map((f) => f.w * f.h)));
  });

  it('what is wider or higher than the sheet is left out; a square is turned no way', () => {
    const [, ...fronts] = slicings([piece('wide', 60, 5), piece('square', 10, 10, true)], 50, 50, GAP);
    expect(fronts.map((f: readonly Slicing[]) => f.length)).toEqual([0, 1, 0]);
    expect(slicings([piece('long', 60, 5, true)], 50, 100, GAP)[1]).toMatchObject([{ w: 5, h: 60, turned: true }]);
  });

  it('pieces that are alike are one kind, and every set of them is counted once', () => {
    const list = [piece('a', 30, 10), piece('b', 20, 25), piece('c', 30, 10), piece('d', 30, 10, true)];
    const kinds = kindsOf(list);
    expect(kinds.pieces.map((k) => k.map((p) => p.key))).toEqual([['a', 'c'], ['b'], ['d']]);
    expect(kinds.sets).toBe(12);
    expect([...partsOf(kinds, 11)].sort((p, q) => p - q)).toEqual(Array.from({ length: 12 }, (_, i) => i));
    // One a and the b: four parts.
    expect([...partsOf(kinds, 4)].sort((p, q) => p - q)).toEqual([0, 1, 3, 4]);
  });
});
