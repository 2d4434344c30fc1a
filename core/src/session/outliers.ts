import { three } from '../colour/three.ts';
import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import { median } from './strip-check.ts';

/** A pass of a patch that lies apart from the patch's other passes. */
export interface Outlier {
  readonly patch: number;
  readonly pass: number;
  readonly deltaE: number;
}

/** Apart by this much and by so many times the usual scatter between passes (our own choice). */
const APART = { deltaE: 1, times: 5 };

/** Of two passes that disagree neither can be called the wrong one. */
const FEWEST_PASSES = 3;

/**
 * Passes that disagree with the others of their patch. They are shown and stay in the mean until a hand takes them out.
 * @param passes Lab by patch, then by pass; fewer than three passes of a patch tell nothing
 */
export function outliers(passes: readonly (readonly (Lab | undefined)[])[]): Outlier[] {
  const apart: Outlier[] = passes.flatMap((labs, patch) => {
    const known = labs.filter((l) => l !== undefined);
    if (known.length < FEWEST_PASSES) return [];
    const middle = three((c) => median(known.map((l) => l[c]!)));
    return labs.flatMap((lab, pass) => (lab ? [{ patch, pass, deltaE: deltaE2000(lab, middle) }] : []));
  });
  const usual = median(apart.map((o) => o.deltaE));
  return apart.filter((o) => o.deltaE > Math.max(APART.deltaE, APART.times * usual));
}
