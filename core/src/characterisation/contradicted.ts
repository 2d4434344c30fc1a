import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import type { PatchReading, Reading } from '../measurement/reading.ts';
import type { PrintSample } from './print-samples.ts';

/** Two readings of one patch that lie further apart than this, ΔE00, can't both be right (our own choice). */
const CONTRADICTS = 3;

/** A reading of a patch that another reading of the same patch contradicts. */
export interface Contradicted {
  readonly reading: PatchReading;
  /** From the repeat that is kept. */
  readonly deltaE00: number;
}

/** Samples whose repeats contradict each other. */
export const inDispute = (samples: readonly PrintSample[]): PrintSample[] =>
  samples.filter(({ members }) =>
    members.some((p, i) => members.slice(0, i).some((q) => deltaE2000(p.lab, q.lab) > CONTRADICTS)),
  );

/**
 * Which readings of a disputed patch are left out: all that contradict the one with most company, or where none has
 * more, the one nearest to what the rest of the chart says.
 * @param expected what the model says of the patch without it
 */
export function contradicted({ members }: PrintSample, expected: Lab): Contradicted[] {
  const company = members.map((p) => members.filter((q) => deltaE2000(p.lab, q.lab) <= CONTRADICTS).length);
  const most = Math.max(...company);
  const kept = members
    .filter((_, i) => company[i] === most)
    .reduce((near, p) => (deltaE2000(p.lab, expected) < deltaE2000(near.lab, expected) ? p : near));
  return members
    .map((reading) => ({ reading, deltaE00: deltaE2000(reading.lab, kept.lab) }))
    .filter(({ deltaE00 }) => deltaE00 > CONTRADICTS);
}

/** Readings without the patches that were left out. */
export function withoutPatches(readings: readonly Reading[], left: readonly Contradicted[]): Reading[] {
  const gone = new Set(left.map(({ reading }) => keyOf(reading)));
  return readings.map((r) => ({ ...r, patches: r.patches.filter((p) => !gone.has(keyOf(p))) }));
}

const keyOf = ({ id, lab }: PatchReading) => JSON.stringify([id, lab]);
