import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import { differenceOf, NOISE_WIDTH, VERDICTS, type Difference, type Verdict } from './difference.ts';
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

/** One measure of a pair with what its difference amounts to. */
interface Told {
  readonly measure: Measure;
  readonly left: Exclude<Figure, { shape: 'missing' }>;
  readonly right: Exclude<Figure, { shape: 'missing' }>;
  readonly difference: Difference;
}

const rankOf = (verdict: Verdict) => VERDICTS.indexOf(verdict);

/** An echo need not be told where the measure it follows from is told as loudly. */
const isEchoed = (one: Told, all: readonly Told[]) =>
  all.some(
    (o) => o.measure.key === one.measure.echoes && rankOf(o.difference.verdict) >= rankOf(one.difference.verdict),
  );

/** A pair in sentences, the furthest above what can be seen first. Left out: figures that are missing, and echoes. */
export function describePair(
  measures: readonly Measure[],
  left: Record<string, Figure>,
  right: Record<string, Figure>,
  thresholds: Thresholds,
  { subject, pronoun }: Spoken = LEFT_SHEET,
): PairSentence[] {
  const all = measures.flatMap((measure): Told[] => {
    const [l, r] = [left[measure.key], right[measure.key]];
    if (!l || !r || l.shape === 'missing' || r.shape === 'missing') return [];
    const difference = differenceOf(measure, l, r, thresholds);
    return difference ? [{ measure, left: l, right: r, difference }] : [];
  });
  return all
    .filter((one) => !isEchoed(one, all))
    .sort(
      (p, q) => rankOf(q.difference.verdict) - rankOf(p.difference.verdict) || q.difference.times - p.difference.times,
    )
    .map(({ measure, left: l, right: r, difference }): PairSentence => {
      const { amount, seenAs, sd, verdict } = difference;
      const words =
        l.shape === 'colour' && r.shape === 'colour'
          ? `${measure.name}: ${formatNumber(amount, supportedDigits(sd, 1))} ΔE00 apart, ${pronoun} ${shift(l.lab, r.lab)}`
          : `${subject} is ${measure.words[amount >= 0 ? 0 : 1]} by ${size(measure, Math.abs(amount), seenAs, sd)}`;
      return { measure: measure.key, sentence: `${words}: ${verdict}.`, verdict };
    });
}

/**
 * What is said of a pair besides what an eye sees: the hand feels it, or a lamp at a slant shows it. Differences
 * within the noise are left out.
 */
export function describeBeside(
  measures: readonly Measure[],
  left: Record<string, Figure>,
  right: Record<string, Figure>,
  { subject }: Spoken = LEFT_SHEET,
): { measure: string; sentence: string }[] {
  return measures.flatMap((m) => {
    const [l, r] = [left[m.key], right[m.key]];
    if (!m.spoken || l?.shape !== 'scalar' || r?.shape !== 'scalar') return [];
    const [amount, sd] = [l.value - r.value, Math.hypot(l.sd, r.sd)];
    if (Math.abs(amount) <= NOISE_WIDTH * sd) return [];
    return [
      {
        measure: m.key,
        sentence: `${subject} is ${m.words[amount > 0 ? 0 : 1]} by ${formatNumber(Math.abs(amount), supportedDigits(sd, m.digits))} ${m.unit}.`,
      },
    ];
  });
}

/** Smallest shift of a white, ΔE00, that is not called the same. */
const SAME_WHITE = 0.5;

/**
 * How the light parts two whites, where it does: "Under tungsten the left white is 4.1 bluer; without UV the two whites are the same."
 * @param here whites under the light over the table
 * @param withoutUv the same two under D50 without UV
 * @returns undefined where UV makes no difference between the two
 */
export function describeWhites(
  here: readonly [left: Lab, right: Lab],
  withoutUv: readonly [left: Lab, right: Lab],
  lightName: string,
): string | undefined {
  const [apart, dark] = [deltaE2000(...here), deltaE2000(...withoutUv)];
  const bluer = here[1][2] - here[0][2];
  if (Math.abs(apart - dark) < SAME_WHITE) return undefined;
  const words =
    apart < SAME_WHITE
      ? 'the two whites are the same'
      : Math.abs(bluer) >= NAMED
        ? `the left white is ${formatNumber(Math.abs(bluer), 1)} ${bluer > 0 ? 'bluer' : 'yellower'}`
        : `the two whites lie ${formatNumber(apart, 1)} ΔE00 apart`;
  return `Under ${lightName} ${words}; without UV ${dark < SAME_WHITE ? 'the two whites are the same' : `they lie ${formatNumber(dark, 1)} ΔE00 apart`}.`;
}

/** The amount of a difference, with its unit and no more digits than its noise supports. */
function size(measure: Measure, amount: number, seenAs: number, sd: number): string {
  if (measure.scale === 'percent' && !measure.toldInUnit) return `${formatNumber(seenAs, supportedDigits(sd, 1))} %`;
  if (measure.scale === 'ratio') return `${formatNumber(amount, 0)} ${measure.unit}`;
  // Noise of a percent scale is in percent; the amount's own digits are the measure's.
  return `${formatNumber(amount, measure.scale === 'percent' ? measure.digits : supportedDigits(sd, measure.digits))} ${measure.unit}`;
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
    .map(([more, less], i) => ({ d: left[i]! - right[i]!, more, less }))
    .filter(({ d }) => Math.abs(d) >= NAMED)
    .sort((p, q) => Math.abs(q.d) - Math.abs(p.d))
    .slice(0, 2)
    .map(({ d, more, less }) => `${d > 0 ? more : less} by ${formatNumber(Math.abs(d), 1)}`);
  return parts.length > 0 ? parts.join(', ') : 'the same';
}
