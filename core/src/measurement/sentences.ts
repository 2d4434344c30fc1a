import { differenceOf, VERDICTS, type Verdict } from './difference.ts';
import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import { formatNumber, supportedDigits } from './show.ts';
import type { Thresholds } from './thresholds.ts';

/** One difference between the two papers in hand, as a colleague would say it. */
export interface PairSentence {
  readonly measure: string;
  readonly sentence: string;
  readonly verdict: Verdict;
}

/** Who is spoken of: the one that is more, or less, than the other. */
export interface Spoken {
  readonly subject: string;
  readonly pronoun: string;
}
const LEFT_SHEET: Spoken = { subject: 'The left sheet', pronoun: 'the left one' };
/** A later box beside the first. */
export const LATER_SET: Spoken = { subject: 'The later set', pronoun: 'the later one' };

/** A pair in sentences, what can be seen first. Left out: figures that are missing, and echoes. */
export function describePair(measures: readonly Measure[], left: Record<string, Figure>, right: Record<string, Figure>, thresholds: Thresholds, { subject, pronoun }: Spoken = LEFT_SHEET): PairSentence[] {
  const present = (figure: Figure | undefined) => figure !== undefined && figure.shape !== 'missing';
  const told = new Set(measures.filter((m) => present(left[m.key]) && present(right[m.key])).map((m) => m.key));
  return measures
    .filter((m) => m.echoes === undefined || !told.has(m.echoes))
    .flatMap((measure): PairSentence[] => {
      const [l, r] = [left[measure.key], right[measure.key]];
      const difference = l && r && differenceOf(measure, l, r, thresholds);
      if (!difference) return [];
      const { amount, seenAs, sd, verdict } = difference;
      const words = l.shape === 'colour' && r.shape === 'colour' ? `${measure.name}: ${formatNumber(amount, supportedDigits(sd, 1))} ΔE00 apart, ${pronoun} ${shift(l.lab, r.lab)}` : `${subject} is ${measure.words[amount >= 0 ? 0 : 1]} by ${size(measure, Math.abs(amount), seenAs, sd)}`;
      return [{ measure: measure.key, sentence: `${words}: ${verdict}.`, verdict }];
    })
    .sort((p, q) => VERDICTS.indexOf(q.verdict) - VERDICTS.indexOf(p.verdict));
}

/** The amount of a difference, with its unit and no more digits than its noise supports. */
function size(measure: Measure, amount: number, seenAs: number, sd: number): string {
  if (measure.scale === 'percent') return `${formatNumber(seenAs, supportedDigits(sd, 1))} %`;
  if (measure.scale === 'ratio') return `${formatNumber(amount, 0)} ${measure.unit}`;
  return `${formatNumber(amount, supportedDigits(sd, measure.digits))} ${measure.unit}`;
}

/** Smallest shift along an axis that is named. */
const NAMED = 0.15;

/** How one colour lies from another: "lighter by 1.2, bluer by 4.9". */
function shift(left: readonly [number, number, number], right: readonly [number, number, number]): string {
  const axes = [
    ['lighter', 'darker'],
    ['redder', 'greener'],
    ['yellower', 'bluer'],
  ] as const;
  const parts = axes
    .map(([more, less], i) => ({ d: left[i] - right[i], more, less }))
    .filter(({ d }) => Math.abs(d) >= NAMED)
    .sort((p, q) => Math.abs(q.d) - Math.abs(p.d))
    .slice(0, 2)
    .map(({ d, more, less }) => `${d > 0 ? more : less} by ${formatNumber(Math.abs(d), 1)}`);
  return parts.length > 0 ? parts.join(', ') : 'the same';
}
