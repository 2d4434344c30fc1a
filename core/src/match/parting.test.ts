import fc from 'fast-check';
import type { ReasonFigure } from './leanings/leaning.ts';
import type { MarkOnSheet } from './on-sheet.ts';
import { partingFigure, partingMarks } from './parting.ts';

const weighed = (name: string, value: number, unit = '%'): ReasonFigure => ({ name, value, unit, weighed: true });

describe('the figure by which a criterion parts two sheets', () => {
  it('is one its cost is computed from, not one of the picture', () => {
    const own = [{ name: 'shadows of the picture', value: 99, unit: '%' }, weighed('steps kept', 89)];
    const other = [{ name: 'shadows of the picture', value: 10, unit: '%' }, weighed('steps kept', 84)];
    expect(partingFigure(own, other)).toEqual({ name: 'steps kept', unit: '%', own: 89, other: 84 });
  });
  it('is the one that differs most for its size', () => {
    const own = [weighed('L*', 96), weighed('b*', 1)];
    const other = [weighed('L*', 93), weighed('b*', 4)];
    expect(partingFigure(own, other)?.name).toBe('b*');
  });
  it('of a criterion that concerns one of the two alone it is that one’s, on its side', () => {
    expect(partingFigure([weighed('brightener', 4.9)], [])).toEqual({ name: 'brightener', unit: '%', own: 4.9 });
    expect(partingFigure([], [weighed('brightener', 4.9)])).toEqual({ name: 'brightener', unit: '%', other: 4.9 });
    expect(partingFigure([{ name: 'plain', value: 3, unit: '%' }], [])).toBeUndefined();
  });
  it('figures of different units are not compared', () =>
    expect(partingFigure([weighed('price', 12, 'EUR')], [weighed('price', 9, 'USD')])).not.toHaveProperty('other'));
  it('turned round it names the same figure with the sides exchanged (fast-check)', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 99 }))), (pairs) => {
        const own = pairs.map(([v], i) => weighed(`f${i}`, v));
        const other = pairs.map(([, v], i) => weighed(`f${i}`, v));
        const [there, back] = [partingFigure(own, other), partingFigure(other, own)];
        expect(back).toEqual(there && { ...there, own: there.other, other: there.own });
      }),
    ));
});

describe('marks that part the sheets', () => {
  const mark = (deltaE: number, stepsKept: number): MarkOnSheet => ({
    kind: 'shadow',
    x: 0.5,
    y: 0.5,
    printed: [10, 0, 0],
    deltaE,
    stepsKept,
    fromC: 0,
    toC: 0,
    hueTurnDeg: 0,
  });
  it('are those that differ by more than 1 ΔE00 or a tenth of their steps between any two of them', () => {
    const sheets = [
      [mark(0.2, 1), mark(0.2, 1), mark(6, 0.3), mark(1, 0.95)],
      [mark(0.9, 1), mark(1.5, 1), mark(6.5, 0.35), mark(1, 0.8)],
    ];
    expect(partingMarks(sheets)).toEqual([1, 3]);
  });
  it('of one sheet, and of none, there are none', () => {
    expect(partingMarks([[mark(9, 0)]])).toEqual([]);
    expect(partingMarks([])).toEqual([]);
  });
});
