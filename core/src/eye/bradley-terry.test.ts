import fc from 'fast-check';
import { blindCodes, blindOrder } from './blind-order.ts';
import { bradleyTerry, type PairedChoice } from './bradley-terry.ts';

/** Wins of the row over the column: American League East, 1987 (Agresti, Categorical Data Analysis, 2nd ed., table 10.10). */
const TEAMS = ['Milwaukee', 'Detroit', 'Toronto', 'New York', 'Boston', 'Cleveland', 'Baltimore'];
const WINS = [
  [0, 7, 9, 7, 7, 9, 11],
  [6, 0, 7, 5, 11, 9, 9],
  [4, 6, 0, 7, 7, 8, 12],
  [6, 8, 6, 0, 6, 7, 10],
  [6, 2, 6, 7, 0, 7, 12],
  [4, 4, 5, 6, 6, 0, 6],
  [2, 4, 1, 3, 1, 7, 0],
];

describe('Bradley–Terry', () => {
  it('gives the scale of the worked example: 1.581, 1.436, 1.294, 1.248, 1.108, 0.684 above Baltimore (Agresti, Categorical Data Analysis, 10.6)', () => {
    const choices = WINS.flatMap((row, first) =>
      row.flatMap((wins, second) =>
        Array.from({ length: wins }, (): PairedChoice => ({ first, second, said: 'first' })),
      ),
    );
    const { places, toldApart, degreesOfFreedom } = bradleyTerry(TEAMS.length, choices, false);
    const above = places.map((p) => p.scale - places[6].scale);
    [1.581, 1.436, 1.294, 1.248, 1.108, 0.684, 0].forEach((published, i) =>
      expect(Math.abs(above[i] - published)).toBeLessThan(0.0015),
    );
    expect(degreesOfFreedom).toBe(6);
    expect(toldApart).toBe(true);
  });

  it('three times to one is ln 3 apart, and the error is that of a logit', () => {
    const choices = [
      ...Array.from({ length: 30 }, (): PairedChoice => ({ first: 0, second: 1, said: 'first' })),
      ...Array.from({ length: 10 }, (): PairedChoice => ({ first: 0, second: 1, said: 'second' })),
    ];
    const { places } = bradleyTerry(2, choices, false);
    expect(places[0].scale - places[1].scale).toBeCloseTo(Math.log(3), 6);
    // Var of the logit is 1/30 + 1/10; each place is half of it, one way and the other.
    expect(places[0].error).toBeCloseTo(Math.sqrt(1 / 30 + 1 / 10) / 2, 6);
  });

  it('eyes that could not tell are said to be such; a sheet that never lost stays on the scale', () => {
    const alike = Array.from({ length: 12 }, (_, i): PairedChoice => ({
      first: i % 3,
      second: (i + 1) % 3,
      said: 'neither',
    }));
    expect(bradleyTerry(3, alike)).toMatchObject({ toldApart: false });
    expect(bradleyTerry(3, alike).places.every((p) => Math.abs(p.scale) < 1e-6)).toBe(true);
    const perfect = [0, 1, 2, 3].flatMap((): PairedChoice[] => [
      { first: 0, second: 1, said: 'first' },
      { first: 0, second: 2, said: 'first' },
      { first: 1, second: 2, said: 'first' },
    ]);
    const { places, toldApart } = bradleyTerry(3, perfect);
    expect(toldApart).toBe(true);
    expect(places.map((p) => p.scale)).toEqual([...places.map((p) => p.scale)].sort((a, b) => b - a));
    for (const p of places) expect(Number.isFinite(p.error) && Math.abs(p.scale) < 6).toBe(true);
    expect(bradleyTerry(3, []).toldApart).toBe(false);
  });

  it('does not depend on the names: sheets numbered otherwise take their places with them', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc
            .tuple(fc.nat(3), fc.nat(3), fc.constantFrom('first' as const, 'second' as const, 'neither' as const))
            .filter(([a, b]) => a !== b),
          { minLength: 4, maxLength: 40 },
        ),
        (list) => {
          const choices = list.map(([first, second, said]) => ({ first, second, said }));
          const turned = choices.map((c) => ({ ...c, first: 3 - c.first, second: 3 - c.second }));
          const [p, q] = [bradleyTerry(4, choices), bradleyTerry(4, turned)];
          p.places.forEach((place, i) => expect(place.scale).toBeCloseTo(q.places[3 - i].scale, 4));
        },
      ),
    );
  });
});

describe('a blind order', () => {
  it('holds every pair as often as was asked, sides shared evenly, the same for the same seed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 4 }), fc.nat(1e6), (count, times, seed) => {
        const order = blindOrder(count, times, seed);
        expect(order).toHaveLength((times * count * (count - 1)) / 2);
        for (let i = 0; i < count; i++) {
          for (let j = i + 1; j < count; j++) {
            const met = order.filter((p) => Math.min(p.left, p.right) === i && Math.max(p.left, p.right) === j);
            expect(met).toHaveLength(times);
            expect(Math.abs(met.filter((p) => p.left === i).length - times / 2)).toBeLessThanOrEqual(0.5);
          }
        }
        expect(blindOrder(count, times, seed)).toEqual(order);
        expect(new Set(blindCodes(count, seed)).size).toBe(count);
      }),
    );
  });
});
