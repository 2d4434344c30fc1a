import { differenceOf, NOISE_WIDTH } from './difference.ts';
import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import type { Thresholds } from './thresholds.ts';

/** A figure of one of several sheets. */
export interface Marked {
  readonly id: string;
  readonly figure: Figure | undefined;
}

const valueOf = (f: Figure | undefined): number | undefined =>
  f?.shape === 'scalar' ? f.value : f?.shape === 'colour' ? f.lab[0] : undefined;

/**
 * Sheets from best to least by a measure; from most to least where no way is better. Those without a figure last, in
 * the order they came.
 */
export function inOrder<T extends Marked>(list: readonly T[], measure: Measure): T[] {
  const sign = measure.better === 'lower' ? 1 : -1;
  const rank = ({ figure }: T) => {
    const value = valueOf(figure);
    return value === undefined ? Infinity : sign * value;
  };
  return [...list].sort((p, q) => {
    const [a, b] = [rank(p), rank(q)];
    return a === b ? 0 : a - b;
  });
}

/** Two grades of an eye, or two counts, differ only by a whole one. */
const WHOLE = 1;

/** Whether one figure differs from another by more than its readings' noise; graded and counted ones by a whole grade or count. */
export function surelyApart(measure: Measure, p: Figure, q: Figure, thresholds: Thresholds): boolean {
  const [a, b] = [valueOf(p), valueOf(q)];
  if (a === undefined || b === undefined || p.shape === 'missing' || q.shape === 'missing') return false;
  if (measure.whole && Math.abs(a - b) < WHOLE - 1e-9) return false;
  const difference = differenceOf(measure, p, q, thresholds);
  if (difference) return difference.verdict !== 'within your noise';
  return Math.abs(a - b) > NOISE_WIDTH * Math.hypot(p.sd, q.sd);
}

/**
 * The one best and the one least sheet, where all schools agree which way is better. A mark is given only where the sheet is surely apart
 * from the next in line: of several that tie, none is best.
 */
export function marksOf(
  list: readonly Marked[],
  measure: Measure,
  thresholds: Thresholds,
): Map<string, 'best' | 'least'> {
  const known = inOrder(list, measure).filter((c) => valueOf(c.figure) !== undefined);
  const marks = new Map<string, 'best' | 'least'>();
  if (!measure.better || known.length < 2) return marks;
  const apart = (i: number, j: number) => surelyApart(measure, known[i]!.figure!, known[j]!.figure!, thresholds);
  const last = known.length - 1;
  if (apart(0, 1)) marks.set(known[0]!.id, 'best');
  if (apart(last, last - 1)) marks.set(known[last]!.id, 'least');
  return marks;
}
