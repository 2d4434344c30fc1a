import fc from 'fast-check';
import { costEdge, type Placed } from './cost-edge.ts';
import { TIE } from './rank.ts';
import type { SheetQualities } from './sheet.ts';

const place = (id: string, cost: number, money = 0, scoreSd = 0): Placed => ({
  id,
  cost: cost + money,
  scoreSd,
  reasons: [{ leaning: 'money', cost: money }],
});
const sheet = (id: string, pricePerM2?: number, currency = 'EUR'): SheetQualities => ({
  id,
  paperId: id,
  pricePerM2,
  currency,
});
const beaten = (sheets: [string, number, number, string?][]) =>
  costEdge(
    sheets.map(([id, cost]) => place(id, cost, 0.4)),
    sheets.map(([id, , price, currency]) => sheet(id, price, currency)),
  )?.sheets.map((s) => [s.id, s.beatenBy]);

describe('what a sheet costs, and what it gives', () => {
  it('the dearer must be visibly better; what costs more and gives less is beaten', () =>
    expect(
      beaten([
        ['rag', 1, 40],
        ['plain', 2, 8],
        ['lustre', 2.05, 12],
        ['foil', 3, 60],
      ]),
    ).toEqual([
      ['plain', undefined],
      ['lustre', 'plain'],
      ['rag', undefined],
      ['foil', 'rag'],
    ]));

  it('a dearer sheet whose lead lies within the spread of the scores is a close call, and not worth its price', () => {
    const of = (sd: number) =>
      costEdge([place('dear', 1, 0, sd), place('cheap', 1.5, 0, sd)], [sheet('dear', 40), sheet('cheap', 10)])!
        .sheets[1];
    expect(of(0.1)).not.toHaveProperty('closeTo');
    expect(of(2)).toMatchObject({ id: 'dear', closeTo: 'cheap' });
  });

  it('level sheets of one price beat neither', () =>
    expect(
      beaten([
        ['a', 1, 20],
        ['b', 1 + TIE / 2, 20],
      ]),
    ).toEqual([
      ['a', undefined],
      ['b', undefined],
    ]));

  it('currencies are never mixed; of sheets without a price nothing is said', () => {
    expect(
      beaten([
        ['a', 1, 20],
        ['b', 2, 10],
        ['c', 0, 900, 'JPY'],
      ])?.map(([id]) => id),
    ).toEqual(['b', 'a']);
    expect(costEdge([place('a', 1), place('b', 2)], [sheet('a', 10), sheet('b')])).toBeUndefined();
  });

  it('the best and the cheapest are always on the edge, or level with what beats them', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 6, noNaN: true }), fc.integer({ min: 1, max: 90 })), {
          minLength: 2,
          maxLength: 12,
        }),
        (list) => {
          const { sheets } = costEdge(
            list.map(([cost], i) => place(`${i}`, cost)),
            list.map(([, price], i) => sheet(`${i}`, price)),
          )!;
          const cost = (id: string) => list[Number(id)][0];
          for (const s of sheets) {
            if (!s.beatenBy) continue;
            expect(list[Number(s.beatenBy)][1]).toBeLessThanOrEqual(s.pricePerM2 * 1.01);
            expect(cost(s.beatenBy)).toBeLessThan(cost(s.id) + TIE);
          }
          expect(sheets.some((s) => !s.beatenBy)).toBe(true);
        },
      ),
    ));
});
