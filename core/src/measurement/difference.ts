import { deltaE2000 } from '../colour/difference.ts';
import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import type { Thresholds } from './thresholds.ts';

export const VERDICTS = [
  'within your noise',
  'too small to see',
  'visible edge to edge',
  'visible across the room',
] as const;
/** What a difference amounts to for an eye. */
export type Verdict = (typeof VERDICTS)[number];

export interface Difference {
  /** Left less right, in the measure's unit; for colours ΔE00, never negative. */
  readonly amount: number;
  /** The difference on the scale on which it is seen: ΔE, density, or percent. */
  readonly seenAs: number;
  /** How many times the least difference that is visible edge to edge. */
  readonly times: number;
  /** Standard deviation on that scale. */
  readonly sd: number;
  readonly verdict: Verdict;
}

/** A difference below this many of its standard deviations is noise: about 95 in 100 differences of nothing are smaller. */
export const NOISE_WIDTH = 1.96;

/**
 * What the difference of two figures amounts to. It is worth a word only if it exceeds the measuring noise and can be seen.
 * @returns undefined when either figure is missing, or the measure is none for the eye
 */
export function differenceOf(
  measure: Measure,
  left: Figure,
  right: Figure,
  thresholds: Thresholds,
): Difference | undefined {
  if (left.shape === 'colour' && right.shape === 'colour') {
    const amount = deltaE2000(left.lab, right.lab);
    return judged(amount, amount, Math.hypot(left.sd, right.sd), thresholds.deltaE);
  }
  if (left.shape !== 'scalar' || right.shape !== 'scalar' || measure.scale === 'unjudged') return undefined;
  const amount = left.value - right.value;
  const sd = Math.hypot(left.sd, right.sd);
  switch (measure.scale) {
    case 'ratio': {
      const inDensity = (f: { value: number; sd: number }) => f.sd / f.value / Math.LN10;
      return judged(
        amount,
        Math.abs(Math.log10(left.value / right.value)),
        Math.hypot(inDensity(left), inDensity(right)),
        thresholds.density,
      );
    }
    case 'percent': {
      // The right one is the base: it is what the left one is larger or smaller than.
      const base = Math.abs(right.value) || 1;
      return judged(amount, (100 * Math.abs(amount)) / base, (100 * sd) / base, thresholds.percent);
    }
    default:
      return judged(amount, Math.abs(amount), sd, thresholds[measure.scale]);
  }
}

function judged(
  amount: number,
  seenAs: number,
  sd: number,
  from: { edgeToEdge: number; acrossRoom: number },
): Difference {
  const verdict: Verdict =
    seenAs <= NOISE_WIDTH * sd
      ? 'within your noise'
      : seenAs < from.edgeToEdge
        ? 'too small to see'
        : seenAs < from.acrossRoom
          ? 'visible edge to edge'
          : 'visible across the room';
  return { amount, seenAs, times: seenAs / from.edgeToEdge, sd, verdict };
}
