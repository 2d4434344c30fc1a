import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import { isMatt, type CoatingClass, type Surface } from '../paper.ts';

/** What the eye compares when two prints hang beside each other. */
export interface Look {
  readonly surface?: Surface;
  readonly coating?: CoatingClass;
  /** Paper white as it is seen where the show hangs. */
  readonly white: Lab;
}

/** What is wished of the papers of a show. */
export interface LookWish {
  readonly sameSurface: boolean;
  readonly sameWhite: boolean;
}

/**
 * Whether two papers have one look. A surface that is not set is like no other: nothing is known of it.
 * @param maxWhiteDeltaE largest ΔE00 between two whites that count as the same
 */
export function looksAlike(p: Look, q: Look, wish: LookWish, maxWhiteDeltaE: number): boolean {
  if (wish.sameWhite && deltaE2000(p.white, q.white) > maxWhiteDeltaE) return false;
  if (!wish.sameSurface) return true;
  if (p.surface === undefined || p.coating === undefined || q.coating === undefined) return false;
  return p.surface === q.surface && isMatt(p.coating) === isMatt(q.coating);
}
