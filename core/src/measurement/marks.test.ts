import type { Figure } from './figure.ts';
import { inOrder, marksOf } from './marks.ts';
import { MEASURES } from './measures/registry.ts';
import { DEFAULT_THRESHOLDS } from './thresholds.ts';

const measure = (key: string) => MEASURES.find((m) => m.key === key)!;
const list = (values: (number | undefined)[], sd = 0.01) =>
  values.map((value, i) => ({
    id: 'abcdef'[i],
    figure: (value === undefined ? { shape: 'missing', why: '' } : { shape: 'scalar', value, sd }) as Figure,
  }));
const marks = (key: string, values: (number | undefined)[], sd?: number) =>
  Object.fromEntries(marksOf(list(values, sd), measure(key), DEFAULT_THRESHOLDS));

describe('best and least', () => {
  it('are given where one sheet is surely apart from the next', () =>
    expect(marks('dmax', [2.1, 2.5, 1.6])).toEqual({ b: 'best', c: 'least' }));

  it('are not given on ties: of several alike none is best', () => {
    expect(marks('dmax', [2.5, 2.5, 1.6])).toEqual({ c: 'least' });
    expect(marks('dmax', [2.5, 2.49, 2.51], 0.02)).toEqual({});
  });

  it('of counts and grades need a whole one, and one best', () => {
    expect(marks('crossovers', [0, 0, 0, 2], 0.4)).toEqual({ d: 'least' });
    expect(marks('rubAfterADay', [1, 2, 1, 2], 0.5)).toEqual({});
    expect(marks('rubAfterADay', [1, 1.5, 3, 3], 0.1)).toEqual({});
  });

  it('are not given where schools differ, nor to what was not measured', () => {
    expect(marks('brightenerShift', [0, 5])).toEqual({});
    expect(marks('dmax', [2.5, undefined])).toEqual({});
  });

  it('the order puts what was not measured last, whichever way is better', () => {
    expect(inOrder(list([undefined, 1.6, 2.5]), measure('dmax')).map((c) => c.id)).toEqual(['c', 'b', 'a']);
    expect(inOrder(list([undefined, 6, 2]), measure('linearity')).map((c) => c.id)).toEqual(['c', 'b', 'a']);
  });
});
