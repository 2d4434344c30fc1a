import fc from 'fast-check';
import { bordersOf } from './borders.ts';
import { orderOfCuts } from './cuts.ts';
import { nest, printable, type Piece, type Stock } from './nest.ts';

const INCH = 25.4;
const piece = (key: string, widthMm: number, heightMm: number, mayTurn = true): Piece => ({
  key,
  name: key,
  widthMm,
  heightMm,
  mayTurn,
});
const sheet = (widthMm: number, heightMm: number): Stock => ({ kind: 'sheet', widthMm, heightMm });

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}
const apart = (a: Box, b: Box, gap: number) =>
  a.x + a.w + gap <= b.x + 1e-6 ||
  b.x + b.w + gap <= a.x + 1e-6 ||
  a.y + a.h + gap <= b.y + 1e-6 ||
  b.y + b.h + gap <= a.y + 1e-6;

const WHOLE = { x0: 0, y0: 0, x1: 5000, y1: 5000 };
/** Whether a straight knife parts them. */
const knife = (laid: readonly Box[]): boolean =>
  orderOfCuts(
    laid.map((b, i) => ({ ...piece(`${i}`, b.w, b.h), xMm: b.x, yMm: b.y, turned: false })),
    WHOLE,
  ) !== undefined;

/** Whether the pieces lie on one sheet at all so that a knife parts them: every place that touches another or an edge is tried. */
function fits(w: number, h: number, pieces: readonly Piece[], gap: number, laid: Box[] = []): boolean {
  if (pieces.length === 0) return knife(laid);
  const [first, ...rest] = pieces;
  const xs = [0, ...laid.map((b) => b.x + b.w + gap)];
  const ys = [0, ...laid.map((b) => b.y + b.h + gap)];
  for (const [pw, ph] of [
    [first.widthMm, first.heightMm],
    [first.heightMm, first.widthMm],
  ])
    for (const x of xs)
      for (const y of ys) {
        const box = { x, y, w: pw, h: ph };
        if (x + pw > w + 1e-6 || y + ph > h + 1e-6 || laid.some((b) => !apart(box, b, gap))) continue;
        if (fits(w, h, rest, gap, [...laid, box])) return true;
      }
  return false;
}

/** Fewest sheets there can be: every way of parting the pieces, every order on a sheet. */
function fewest(w: number, h: number, pieces: readonly Piece[], gap: number): number {
  const orders = (list: readonly Piece[]): Piece[][] =>
    list.length < 2
      ? [[...list]]
      : list.flatMap((p, i) => orders(list.filter((_, j) => j !== i)).map((o) => [p, ...o]));
  const all = (1 << pieces.length) - 1;
  const whole = Array.from({ length: all + 1 }, (_, bits) =>
    orders(pieces.filter((_p, i) => bits & (1 << i))).some((o) => fits(w, h, o, gap)),
  );
  const least: number[] = [0];
  for (let bits = 1; bits <= all; bits++) {
    least[bits] = Infinity;
    for (let part = bits; part > 0; part = (part - 1) & bits)
      if (whole[part]) least[bits] = Math.min(least[bits], 1 + least[bits ^ part]);
  }
  return least[all];
}

/** Shortest length of a roll: the lengths at which something could end, from the shortest. */
function shortest(w: number, pieces: readonly Piece[], gap: number): number {
  const orders = (list: readonly Piece[]): Piece[][] =>
    list.length < 2
      ? [[...list]]
      : list.flatMap((p, i) => orders(list.filter((_, j) => j !== i)).map((o) => [p, ...o]));
  const ends = new Set<number>();
  const sums = (i: number, sum: number, n: number): void => {
    if (n > 0) ends.add(sum + (n - 1) * gap);
    if (i === pieces.length) return;
    sums(i + 1, sum, n);
    sums(i + 1, sum + pieces[i].widthMm, n + 1);
    sums(i + 1, sum + pieces[i].heightMm, n + 1);
  };
  sums(0, 0, 0);
  const all = orders(pieces);
  return [...ends].sort((a, b) => a - b).find((h) => all.some((o) => fits(w, h, o, gap)))!;
}

describe('laying prints on a sheet', () => {
  it('four 8 × 10 in lie on 17 × 22 in, with cards in what is left (practice)', () => {
    const prints = [1, 2, 3, 4].map((n) => piece(`print ${n}`, 8 * INCH, 10 * INCH));
    const cards = [1, 2, 3].map((n) => piece(`card ${n}`, 90, 40));
    const { sheets, lacking } = nest(sheet(17 * INCH, 22 * INCH), [...prints, ...cards], { gapMm: 4 });
    expect(lacking).toEqual([]);
    expect(sheets).toHaveLength(1);
    const used = (4 * 80 * INCH * INCH + 3 * 3600) / (17 * 22 * INCH * INCH);
    expect(sheets[0].used).toBeCloseTo(used, 6);
    expect(orderOfCuts(sheets[0].placed, WHOLE)).toHaveLength(6);
  });

  it('four 8 × 10 in and five cards of 50 × 85 mm fill one sheet of 17 × 22 in, edge to edge', () => {
    const prints = [1, 2, 3, 4].map((n) => piece(`print ${n}`, 8 * INCH, 10 * INCH));
    const cards = [1, 2, 3, 4, 5].map((n) => piece(`card ${n}`, 50, 85));
    const { sheets, lacking } = nest(sheet(17 * INCH, 22 * INCH), [...prints, ...cards], { gapMm: 0 });
    expect([sheets.length, lacking.length]).toEqual([1, 0]);
    expect(new Set(sheets[0].placed.map((p) => p.key)).size).toBe(9);
    expect(sheets[0].used).toBeCloseTo((4 * 80 * INCH * INCH + 5 * 4250) / (17 * 22 * INCH * INCH), 6);
  });

  it('lays many alike better than in rows: twenty of 60 × 90 mm on two A4, some of them turned', () => {
    // In rows 3 × 3 lie on a sheet, or turned 2 × 4; three sheets. By area two could do.
    const cards = Array.from({ length: 20 }, (_, i) => piece(`c${i}`, 60, 90));
    const { sheets } = nest(sheet(210, 297), cards, { gapMm: 0 });
    expect(sheets.map((s) => s.placed.length)).toEqual([10, 10]);
    expect(new Set(sheets.flatMap((s) => s.placed.map((p) => p.key))).size).toBe(20);
  });

  it('takes at most one sheet more than their area asks for, of prints of usual sizes (500 jobs)', () => {
    const usual = [
      [102, 152],
      [127, 178],
      [130, 180],
      [203, 254],
      [210, 297],
      [50, 85],
      [100, 100],
      [180, 240],
    ] as const;
    const jobs = fc.array(fc.tuple(fc.constantFrom(...usual), fc.integer({ min: 1, max: 6 })), {
      minLength: 1,
      maxLength: 5,
    });
    for (const job of fc.sample(jobs, { numRuns: 500, seed: 28 })) {
      const pieces = job.flatMap(([[w, h], copies], i) =>
        Array.from({ length: copies }, (_, n) => piece(`${i}-${n}`, w, h)),
      );
      const [w, h] = [17 * INCH - 6, 22 * INCH - 6];
      const { sheets, lacking } = nest(sheet(w, h), pieces, { gapMm: 4 });
      const bound = Math.ceil(pieces.reduce((sum, p) => sum + p.widthMm * p.heightMm, 0) / (w * h));
      expect(lacking).toEqual([]);
      expect(sheets.length).toBeLessThanOrEqual(bound + 1);
    }
  });

  it('needs no more sheets than exhaustive search finds, up to six pieces (each way of parting, each order, each corner)', () => {
    const size = fc.integer({ min: 60, max: 260 });
    fc.assert(
      fc.property(fc.array(fc.tuple(size, size), { minLength: 2, maxLength: 5 }), (sizes) => {
        const pieces = sizes.map(([w, h], i) => piece(`p${i}`, w, h));
        const { sheets } = nest(sheet(300, 420), pieces, { gapMm: 4 });
        expect(sheets.length).toBe(fewest(300, 420, pieces, 4));
      }),
      { numRuns: 30, seed: 4 },
    );
  });

  it('takes on the average no more than 5 % over the shortest length of a roll that exhaustive search finds', () => {
    const size = fc.integer({ min: 40, max: 200 });
    const over: number[] = [];
    for (const sizes of fc.sample(fc.array(fc.tuple(size, size), { minLength: 3, maxLength: 4 }), {
      numRuns: 24,
      seed: 9,
    })) {
      const pieces = sizes.map(([w, h], i) => piece(`p${i}`, w, h));
      const { sheets } = nest({ kind: 'roll', widthMm: 330, heightMm: 5000 }, pieces, { gapMm: 4 });
      over.push(sheets[0].heightMm / shortest(330, pieces, 4) - 1);
    }
    expect(Math.min(...over)).toBeGreaterThan(-1e-9);
    expect(over.reduce((a, b) => a + b) / over.length).toBeLessThan(0.05);
    expect(Math.max(...over)).toBeLessThan(0.05);
  });

  it('nothing overlaps, nothing turns that may not, every sheet can be parted with a straight knife (fast-check)', () => {
    const size = fc.integer({ min: 20, max: 220 });
    fc.assert(
      fc.property(fc.array(fc.tuple(size, size, fc.boolean()), { minLength: 1, maxLength: 12 }), (sizes) => {
        const pieces = sizes.map(([w, h, turn], i) => piece(`i${i}`, w, h, turn));
        const { sheets, lacking } = nest(sheet(297, 420), pieces, { gapMm: 3 });
        expect(lacking.length + sheets.flatMap((s) => s.placed).length).toBe(pieces.length);
        for (const { placed } of sheets) {
          expect(placed.every((p) => p.mayTurn || !p.turned)).toBe(true);
          expect(orderOfCuts(placed, WHOLE)).toHaveLength(placed.length - 1);
          const boxes = placed.map((p) => {
            const [w, h] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
            return { x: p.xMm, y: p.yMm, w, h };
          });
          for (const [i, a] of boxes.entries()) for (const b of boxes.slice(i + 1)) expect(apart(a, b, 3)).toBe(true);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('what is longer than the sheet is said to find no room; a roll is never begun twice', () => {
    const long = piece('panorama', 900, 300);
    expect(nest(sheet(300, 420), [long], { gapMm: 4 }).lacking).toEqual([long]);
    const roll = nest({ kind: 'roll', widthMm: 432, heightMm: 1000 }, [long, piece('second', 432, 400)], { gapMm: 4 });
    expect(roll.sheets).toHaveLength(1);
    expect(roll.lacking).toHaveLength(1);
  });

  it('the edges a printer can’t print on are no room', () => {
    const stock = printable(sheet(210, 297), { top: 3, right: 3, bottom: 14, left: 3 });
    expect(stock).toEqual({ kind: 'sheet', widthMm: 204, heightMm: 280 });
  });

  it('a bottom-weighted border is wider below and nowhere else', () => {
    expect(bordersOf('bottom', 40)).toEqual({ top: 40, right: 40, bottom: 50, left: 40 });
    expect(bordersOf('equal', 40).bottom).toBe(40);
    expect(bordersOf('mount', 2).top).toBe(5);
  });
});
