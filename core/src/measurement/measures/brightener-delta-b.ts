import type { Claims } from '../../paper.ts';
import { brightenerClass, r457 } from '../brightness.ts';
import type { Figure } from '../figure.ts';
import { estimatedOfWhite } from '../estimated-dull.ts';
import { formatNumber } from '../show.ts';
import { groupSpectrum, NO_SPECTRA, spreadOver } from '../spectra-of-group.ts';
import type { PatchMeasure } from './measure.ts';

const CLASSES = ['none', 'faint', 'low', 'moderate', 'high'] as const;

/** One class apart is no quarrel: ΔB is taken with D50's UV, which is less than the norm's D65. */
function brightenerQuarrel({ brightenerClaim: claim }: Claims, found: Figure): string | undefined {
  // An estimate is no proof against a maker's word.
  if (claim === 'not stated' || found.shape !== 'scalar' || found.between) return undefined;
  const measured = brightenerClass(found.value);
  if (Math.abs(CLASSES.indexOf(claim) - CLASSES.indexOf(measured)) < 2) return undefined;
  const says = claim === 'none' ? 'no brightener' : `${claim === 'high' ? 'much' : claim} brightener`;
  return `Claimed and measured disagree: the maker says ${says}, measured it is ${measured} (ΔB ${formatNumber(found.value, 1)} %).`;
}

export const brightenerDeltaB: PatchMeasure = {
  key: 'brightenerDeltaB',
  name: 'Brightener, ΔB',
  unit: '%',
  definition:
    'R457 with UV (M1) less R457 without (M2), and its class; “none” below 0.5 is our own word for what no reading can tell from nothing. The norm asks for D65; M1 holds D50’s UV, which is less, so the class is a lower bound.',
  source: 'ISO 2470-2, ISO 15397 (memory)',
  digits: 1,
  scale: 'unjudged',
  words: ['more brightened', 'less brightened'],
  echoes: 'brightenerShift',
  claim: { name: 'Brightener', says: (paper) => paper.brightenerClaim, quarrel: brightenerQuarrel },
  needs: ['white'],
  compute: ({ reading, white, withoutUv, unserved }) => {
    if (reading.condition !== 'M1' && reading.condition !== 'M0')
      return { shape: 'missing', why: 'A reading with UV (M1 or M0) is missing.' };
    if (!withoutUv) {
      const found = estimatedOfWhite({ reading, white, unserved }, (p, q) => r457(p) - r457(q));
      if (found) return { ...found, note: brightenerClass(found.value) };
      return { shape: 'missing', why: unserved.M2 ?? 'A reading without UV (M2) is missing.' };
    }
    const withUv = groupSpectrum(reading, white);
    const without = groupSpectrum(withoutUv.reading, withoutUv.white);
    if (!withUv || !without) return { shape: 'missing', why: NO_SPECTRA };
    const value = r457(withUv) - r457(without);
    return {
      shape: 'scalar',
      value,
      sd: Math.hypot(spreadOver(reading, white, r457), spreadOver(withoutUv.reading, withoutUv.white, r457)),
      note: brightenerClass(value),
    };
  },
};
