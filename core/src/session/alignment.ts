import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';

/** Furthest a reading may run ahead of or behind its strip, patches. */
export const MAX_SLIP = 2;

/** How one reading fits the strip: shifted by a number of patches, 0 being right, or the same patch read once more. */
export type Fit = number | 'stopped';

/** Cost of a patch that fits nothing, ΔE00: one stain must not outweigh the rest of the strip (our own choice). */
const WORST = 20;
/** Cost of a reading beyond the end of the strip, ΔE00: nothing is known of what lies there (our own choice). */
const BEYOND = 10;
/** What it costs to change from one fit to another, ΔE00: fewer than three wrong patches never pay for it (our own choice). */
const CHANGE = 22;
const FITS: readonly Fit[] = [0, ...Array.from({ length: MAX_SLIP }, (_, i) => [i + 1, -(i + 1)]).flat(), 'stopped'];

/**
 * The way along a strip that explains its readings best: least sum of ΔE00 and changes of fit (dynamic programming after
 * Viterbi 1967). A skipped patch shows as a change from 0 to 1, a patch read twice as one from 0 to −1.
 * @param read Lab of each reading, in order
 * @param expected Lab of each patch of the strip
 * @returns one fit per reading
 */
export function alignStrip(read: readonly Lab[], expected: readonly Lab[]): Fit[] {
  const cost = (i: number, fit: Fit): number => {
    if (fit === 'stopped') return i === 0 ? WORST : Math.min(WORST, deltaE2000(read[i]!, read[i - 1]!));
    const patch = expected[i + fit];
    return patch ? Math.min(WORST, deltaE2000(read[i]!, patch)) : BEYOND;
  };
  let best = FITS.map((fit) => cost(0, fit) + (fit === 0 ? 0 : CHANGE));
  const cameFrom: number[][] = [];
  for (let i = 1; i < read.length; i++) {
    const least = best.indexOf(Math.min(...best));
    const from = best.map((own, f) => (own <= best[least]! + CHANGE ? f : least));
    cameFrom.push(from);
    best = FITS.map((fit, f) => best[from[f]!]! + (from[f] === f ? 0 : CHANGE) + cost(i, fit));
  }
  let at = best.indexOf(Math.min(...best));
  const way: Fit[] = [];
  for (let i = read.length - 1; i >= 0; i--) {
    way.unshift(FITS[at]!);
    if (i > 0) at = cameFrom[i - 1]![at]!;
  }
  return way;
}
