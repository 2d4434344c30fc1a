import { pricePerM2 } from './price-per-m2.ts';
import fc from 'fast-check';
import { inkTaken } from '../simulation/printer.ts';
import { standIn } from '../simulation/stand-in.ts';
import { countedInk, inkOf } from './ink.ts';
import { marginAt, paysUpTo, priceFor, printCost } from './print-cost.ts';
import { byCause, rateOf } from './spoilage.ts';

describe('spoilage', () => {
  // Newcombe, Two-sided confidence intervals for the single proportion, Statistics in Medicine 17 (1998), table I, method 3 (memory).
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i lies where Newcombe 1998 puts Wilson’s interval', (spoilt, of, low, high) => {
    const rate = rateOf(spoilt, of);
    expect(rate.low).toBeCloseTo(low, 4);
    expect(rate.high).toBeCloseTo(high, 4);
  });

  it('holds the share, stays within 0 and 1, and narrows with more sheets (fast-check)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), fc.nat(400), (of, k) => {
        const spoilt = Math.min(k, of);
        const [few, many] = [rateOf(spoilt, of), rateOf(spoilt * 4, of * 4)];
        expect(few.low).toBeGreaterThanOrEqual(0);
        expect(few.high).toBeLessThanOrEqual(1);
        expect(few.share >= few.low - 1e-12 && few.share <= few.high + 1e-12).toBe(true);
        expect(many.high - many.low).toBeLessThan(few.high - few.low);
      }),
    );
  });

  it('of no sheets nothing is known; more spoilt than printed is refused', () => {
    expect(rateOf(0, 0)).toMatchObject({ low: 0, high: 1 });
    expect(() => rateOf(3, 2)).toThrow(RangeError);
  });

  it('the cause that costs most comes first; where a price is lacking sheets count', () => {
    const booked = [
      { cause: 'wrong side', check: 'coated side', sheets: 3, lost: 6, minutes: 20 },
      { cause: 'clogged nozzle', check: 'nozzle check', sheets: 1, lost: 9, minutes: 8 },
      { cause: 'wrong side', check: 'coated side', sheets: 1, lost: 2, minutes: 5 },
    ];
    expect(byCause(booked).map((c) => [c.cause, c.lost, c.sheets])).toEqual([
      ['clogged nozzle', 9, 1],
      ['wrong side', 8, 4],
    ]);
    const unpriced = byCause([{ ...booked[1], lost: undefined }, booked[0]]);
    expect(unpriced.map((c) => c.cause)).toEqual(['wrong side', 'clogged nozzle']);
    expect(unpriced[1]).toMatchObject({ lost: 0, unpriced: 1 });
  });
});

describe('cost', () => {
  it('of a good print, worked by hand', () => {
    // One of ten is spoilt: 6.40 paper + 3.2 ml at 0.75 + 12 minutes at 30 an hour = 6.40 + 2.40 + 6.00 = 14.80; /
    // 0.9 = 16.444; + 2.10 sleeve.
    const cost = printCost({
      paper: 6.4,
      inkMl: 3.2,
      inkPerMl: 0.75,
      minutes: 12,
      perHour: 30,
      finishing: 2.1,
      spoilage: rateOf(1, 10),
    });
    expect(cost.good).toBeCloseTo(18.544, 3);
    expect(cost.lines.reduce((total, l) => total + l.amount, 0)).toBeCloseTo(cost.good, 9);
    expect(cost.lines.map((l) => Number(l.amount.toFixed(2)))).toEqual([6.4, 2.4, 6, 1.64, 2.1]);
    expect(cost.low).toBeLessThan(cost.good);
    expect(cost.high).toBeGreaterThan(cost.good);
  });

  it('margin and price are each other’s way back', () => {
    expect(marginAt(60, 18.54)).toBeCloseTo(0.691, 3);
    expect(priceFor(marginAt(60, 18.54), 18.54)).toBeCloseTo(60, 9);
    expect(marginAt(10, 18.54)).toBeLessThan(0);
  });

  it('seven minutes of hand feeding serve better than a roll of twenty minutes up to three prints', () => {
    // 7 n ≤ 20 + 1 n up to n = 3.
    expect(paysUpTo({ setUp: 0, each: 7 }, { setUp: 20, each: 1 })).toBe(3);
    expect(paysUpTo({ setUp: 0, each: 1 }, { setUp: 5, each: 2 })).toBe(Infinity);
    expect(paysUpTo({ setUp: 30, each: 3 }, { setUp: 5, each: 2 })).toBe(0);
  });

  it('ink goes with density: a bare sheet takes none, full black the most, half of each half', () => {
    const black = { over: 10 ** -2.3, share: 1 };
    expect(inkOf([{ over: 1, share: 1 }], 0.1, 2.3, 14).ml).toBe(0);
    expect(inkOf([black], 0.1, 2.3, 14).ml).toBeCloseTo(1.4, 9);
    expect(
      inkOf(
        [
          { ...black, share: 0.5 },
          { over: 1, share: 0.5 },
        ],
        0.1,
        2.3,
        14,
      ),
    ).toMatchObject({
      ml: expect.closeTo(0.7, 9) as number,
      meanDensity: expect.closeTo(1.15, 9) as number,
    });
  });
});

describe('ink of a simulated printer', () => {
  const model = standIn({
    coating: 'baryta',
    surface: 'smooth',
    brightenerClaim: 'none',
    weightGsm: 300,
    thicknessUm: 400,
    blackInk: 'photo black',
    mediaSetting: 'Heavy gloss fibre',
    printMode: 'colour through a profile',
    blackOvercoat: false,
  });
  const taken = inkTaken(model);
  it('bare paper takes none; more of a colour takes more; full black is the unit', () => {
    expect(taken([1, 1, 1])).toBeLessThan(0.02);
    const steps = [1, 0.75, 0.5, 0.25, 0].map((v) => taken([v, 1, 1]));
    expect(steps).toEqual([...steps].sort((p, q) => p - q));
    const black = taken([0, 0, 0]);
    expect(countedInk([{ taken: black, share: 1 }], 0.25, black, 12)).toBeCloseTo(3, 12);
  });
  it('a picture half bare and half black takes half', () => {
    const black = taken([0, 0, 0]);
    const halves = [
      { taken: taken([1, 1, 1]), share: 0.5 },
      { taken: black, share: 0.5 },
    ];
    expect(countedInk(halves, 1, black, 14) / 7).toBeCloseTo(1, 1);
  });
  it('a saturated colour takes more than its density says', () => {
    // Pure yellow is light, and a whole area of ink.
    expect(taken([1, 1, 0]) / taken([0, 0, 0])).toBeGreaterThan(0.5);
  });
});

describe('a price a square metre', () => {
  const a4 = { widthMm: 210, heightMm: 297, sheets: 25 };

  it('is that of the cheapest size that has one', () => {
    expect(pricePerM2([{ ...a4, packPrice: 50 }])).toBeCloseTo(50 / (25 * 0.06237), 9);
    expect(
      pricePerM2([{ ...a4, packPrice: 50 }, { widthMm: 610, heightMm: 15_000, sheets: 1, packPrice: 183 }, a4]),
    ).toBe(20);
  });

  it('is not known where no size has a price, and nothing where it costs nothing', () => {
    expect(pricePerM2([a4])).toBeUndefined();
    expect(pricePerM2([])).toBeUndefined();
    expect(pricePerM2([{ ...a4, packPrice: 0 }])).toBe(0);
  });
});
