import type { BrightenerClaim } from '../paper.ts';
import { brightenerClass } from './brightness.ts';
import type { Figure } from './figure.ts';
import { formatNumber } from './show.ts';

/** What a maker claims of a paper that can be measured. */
export interface Claims {
  readonly brightenerClaim: BrightenerClaim;
  readonly weightGsm?: number;
  readonly thicknessUm?: number;
}

const CLASSES = ['none', 'faint', 'low', 'moderate', 'high'] as const;
/** Share by which a mill's weight and thickness may be off before it is worth a word (practice). */
const TOLERANCE = 0.05;

/** Where what is claimed and what is measured do not go together, in sentences. */
export function disagreements(claims: Claims, figures: Record<string, Figure>): string[] {
  return [
    brightenerDisagreement(claims.brightenerClaim, figures.brightenerDeltaB),
    amountDisagreement(claims.weightGsm, figures.weight, 'g/m²', ['heavier', 'lighter']),
    amountDisagreement(claims.thicknessUm, figures.thickness, 'µm', ['thicker', 'thinner']),
  ].filter((s) => s !== undefined);
}

/** One class apart is no quarrel: ΔB is taken with D50's UV, which is less than the norm's D65. */
function brightenerDisagreement(claim: BrightenerClaim, deltaB: Figure | undefined): string | undefined {
  if (claim === 'not stated' || deltaB?.shape !== 'scalar') return undefined;
  const measured = brightenerClass(deltaB.value);
  const apart = Math.abs(CLASSES.indexOf(claim) - CLASSES.indexOf(measured));
  if (apart < 2) return undefined;
  const says = claim === 'none' ? 'no brightener' : `${claim === 'high' ? 'much' : claim} brightener`;
  return `Claimed and measured disagree: the maker says ${says}, measured it is ${measured === 'none' ? 'none' : measured} (ΔB ${formatNumber(deltaB.value, 1)} %).`;
}

/** More than five percent off, and more than the noise. */
function amountDisagreement(
  claimed: number | undefined,
  measured: Figure | undefined,
  unit: string,
  [more, less]: readonly [string, string],
): string | undefined {
  if (claimed === undefined || measured?.shape !== 'scalar') return undefined;
  const off = measured.value - claimed;
  if (Math.abs(off) <= TOLERANCE * claimed || Math.abs(off) <= 1.96 * measured.sd) return undefined;
  return `Claimed and measured disagree: the maker says ${formatNumber(claimed, 0)} ${unit}, measured it is ${formatNumber(measured.value, 0)}: ${formatNumber((100 * Math.abs(off)) / claimed, 0)} % ${off > 0 ? more : less}.`;
}
