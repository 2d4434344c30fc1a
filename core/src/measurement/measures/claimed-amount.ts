import type { Claims } from '../../paper.ts';
import type { Figure } from '../figure.ts';
import { NOISE_WIDTH } from '../difference.ts';
import { formatNumber } from '../show.ts';
import type { Claim } from './measure.ts';

/** Share by which a mill's weight and thickness may be off before it is worth a word (practice). */
const TOLERANCE = 0.05;

/** A number as a maker claims it: as many digits as were given, to one after the point. */
export const asClaimed = (value: number): string => formatNumber(value, Number.isInteger(value) ? 0 : 1);

/** An amount that a maker claims, and that a scale or a micrometer can bear out. */
export const claimedAmount = (
  name: string,
  unit: string,
  [more, less]: readonly [string, string],
  amountOf: (paper: Claims) => number | undefined,
): Claim => ({
  name,
  says: (paper) => {
    const claimed = amountOf(paper);
    return claimed === undefined ? undefined : `${asClaimed(claimed)} ${unit}`;
  },
  quarrel: (paper, found) => {
    const claimed = amountOf(paper);
    return claimed === undefined ? undefined : quarrel(claimed, found, unit, [more, less]);
  },
});

/** More than five percent off, and more than the noise. */
function quarrel(
  claimed: number,
  found: Figure,
  unit: string,
  [more, less]: readonly [string, string],
): string | undefined {
  if (found.shape !== 'scalar') return undefined;
  const off = found.value - claimed;
  if (Math.abs(off) <= TOLERANCE * claimed || Math.abs(off) <= NOISE_WIDTH * found.sd) return undefined;
  return `Claimed and measured disagree: the maker says ${asClaimed(claimed)} ${unit}, measured it is ${formatNumber(found.value, 0)}: ${formatNumber((100 * Math.abs(off)) / claimed, 0)} % ${off > 0 ? more : less}.`;
}
