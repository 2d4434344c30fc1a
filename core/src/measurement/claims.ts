import type { BrightenerClaim } from '../paper.ts';
import { brightenerClass } from './brightness.ts';
import type { Figure } from './figure.ts';
import { formatNumber } from './show.ts';

const CLASSES = ['none', 'faint', 'low', 'moderate', 'high'] as const;

/**
 * Where a maker's claim about brightener and the measured ΔB do not go together, in a sentence. One class apart is no quarrel: ΔB is taken
 * with D50's UV, which is less than the norm's D65.
 * @returns undefined where they agree, or either is not known
 */
export function brightenerDisagreement(claim: BrightenerClaim, deltaB: Figure | undefined): string | undefined {
  if (claim === 'not stated' || deltaB?.shape !== 'scalar') return undefined;
  const measured = brightenerClass(deltaB.value);
  const apart = Math.abs(CLASSES.indexOf(claim) - CLASSES.indexOf(measured));
  if (apart < 2) return undefined;
  const says = claim === 'none' ? 'no brightener' : `${claim === 'high' ? 'much' : claim} brightener`;
  return `Claimed and measured disagree: the maker says ${says}, measured it is ${measured === 'none' ? 'none' : measured} (ΔB ${formatNumber(deltaB.value, 1)} %).`;
}
