import fc from 'fast-check';
import { blindCodes, blindOrder } from './blind-order.ts';
import { seededRandom } from '../random.ts';
import { bradleyTerry, type PairedChoice } from './bradley-terry.ts';
import { CLARITIES, decide, powerOf, timesNeeded, type Clarity } from './decision.ts';

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
    const { places, degreesOfFreedom } = bradleyTerry(TEAMS.length, choices, false);
    const above = places.map((p) => p.scale - places[6].scale);
    [1.581, 1.436, 1.294, 1.248, 1.108, 0.684, 0].forEach((published, i) =>
      expect(Math.abs(above[i] - published)).toBeLessThan(0.0015),
    );
    expect(degreesOfFreedom).toBe(6);
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

  it('prints that were never preferred share one place; a print that never lost stays on the scale', () => {
    const alike = Array.from({ length: 12 }, (_, i): PairedChoice => ({
      first: i % 3,
      second: (i + 1) % 3,
      said: 'neither',
    }));
    expect(bradleyTerry(3, alike).chiSquared).toBeCloseTo(0, 9);
    expect(bradleyTerry(3, alike).places.every((p) => Math.abs(p.scale) < 1e-6)).toBe(true);
    const perfect = [0, 1, 2, 3].flatMap((): PairedChoice[] => [
      { first: 0, second: 1, said: 'first' },
      { first: 0, second: 2, said: 'first' },
      { first: 1, second: 2, said: 'first' },
    ]);
    const { places } = bradleyTerry(3, perfect);
    expect(places.map((p) => p.scale)).toEqual([...places.map((p) => p.scale)].sort((a, b) => b - a));
    for (const p of places) expect(Number.isFinite(p.error) && Math.abs(p.scale) < 6).toBe(true);
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

/** Answers of an eye that always sees the same ranking. */
const ranking = (count: number, times: number): PairedChoice[] =>
  blindOrder(count, times, 5).map(({ left, right }) => ({
    first: left,
    second: right,
    said: left < right ? 'first' : 'second',
  }));

describe('what a blind comparison can decide', () => {
  it.each([
    [2, 3],
    [2, 5],
    [3, 1],
    [3, 2],
    [4, 1],
    [5, 1],
  ])('%i prints seen %i times: even an eye that never errs decides nothing, and it is said', (count, times) => {
    expect(decide(count, ranking(count, times), 'clear').verdict).toBe('too few looks');
  });

  it('the chance of guessing so is exact: 2 in 64 for six of six; three prints three times as the count of all 512 guesses', () => {
    expect(decide(2, ranking(2, 6), 'clear').chance).toBeCloseTo(2 / 64, 9);
    expect(decide(2, ranking(2, 5), 'clear').chance).toBeCloseTo(2 / 32, 9);
    // 6 rankings without a contradiction, of 2^9 ways to answer.
    expect(decide(3, ranking(3, 3), 'clear').chance).toBeCloseTo(6 / 512, 9);
    expect(decide(2, ranking(2, 6), 'clear').verdict).toBe('distinguishable');
    // Half and half is what guessing gives.
    const half = Array.from({ length: 8 }, (_, i): PairedChoice => ({
      first: 0,
      second: 1,
      said: i % 2 ? 'first' : 'second',
    }));
    expect(decide(2, half, 'clear').chance).toBe(1);
  });

  it('thirty looks find three in four, four times in five (exact binomial); twenty do not', () => {
    expect(powerOf(2, 30, 'slight')).toBeCloseTo(0.803, 2);
    expect(timesNeeded(2, 'slight')).toBe(30);
    expect(powerOf(2, 20, 'slight')).toBeLessThan(0.65);
  });

  it.each<[number, Clarity]>([
    [2, 'clear'],
    [3, 'clear'],
    [6, 'obvious'],
  ])(
    '%i prints, %s: the looks that are asked for find it in four of five made-up comparisons',
    (count, clarity) => {
      const times = timesNeeded(count, clarity)!;
      const ends = Math.log(CLARITIES[clarity].share / (1 - CLARITIES[clarity].share));
      const random = seededRandom(17);
      const answer = (by: number): PairedChoice[] =>
        blindOrder(count, times, 3).map(({ left, right }) => ({
          first: left,
          second: right,
          said: random() < 1 / (1 + Math.exp((by * (left - right)) / (count - 1))) ? 'second' : 'first',
        }));
      const rate = (by: number, of: number) =>
        Array.from({ length: of }, () => decide(count, answer(by), clarity).verdict).filter(
          (v) => v === 'distinguishable',
        ).length / of;
      expect(rate(ends, 100)).toBeGreaterThan(0.7);
      // Of prints that are alike no more than one comparison in twenty says otherwise.
      expect(rate(0, 200)).toBeLessThanOrEqual(0.09);
    },
    60_000,
  );

  it('“can’t tell” is half a choice each way: with nothing else nothing was found, and with enough looks it is said', () => {
    const unsure = (times: number) => ranking(3, times).map((c): PairedChoice => ({ ...c, said: 'neither' }));
    expect(decide(3, unsure(9), 'clear')).toMatchObject({ verdict: 'no difference found', chance: 1 });
    expect(decide(3, unsure(2), 'clear').verdict).toBe('too few looks');
    expect(decide(3, [], 'clear').verdict).toBe('too few looks');
  });
});

describe('a blind order', () => {
  it('holds every pair as often as asked; sides even to one for each pair and each print; no pair twice in a row', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 7 }), fc.nat(1e6), (count, times, seed) => {
        const order = blindOrder(count, times, seed);
        expect(order).toHaveLength((times * count * (count - 1)) / 2);
        for (let i = 0; i < count; i++) {
          for (let j = i + 1; j < count; j++) {
            const met = order.filter((p) => Math.min(p.left, p.right) === i && Math.max(p.left, p.right) === j);
            expect(met).toHaveLength(times);
            expect(Math.abs(met.filter((p) => p.left === i).length - times / 2)).toBeLessThanOrEqual(0.5);
          }
        }
        for (let i = 0; i < count; i++) {
          const [left, right] = (['left', 'right'] as const).map((side) => order.filter((p) => p[side] === i).length);
          expect(Math.abs(left - right)).toBeLessThanOrEqual(1);
        }
        if (count > 2)
          order
            .slice(1)
            .forEach((p, i) =>
              expect([p.left, p.right].sort().join()).not.toBe([order[i].left, order[i].right].sort().join()),
            );
        expect(blindOrder(count, times, seed)).toEqual(order);
        expect(new Set(blindCodes(count, seed)).size).toBe(count);
      }),
    );
  });
});
