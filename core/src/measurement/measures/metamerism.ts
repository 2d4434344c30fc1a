import { printSpectra } from '../../light/print-spectra.ts';
import { FEWEST_GREYS, isMiddleGrey, turns } from '../../light/turns.ts';
import { noiseAt } from '../repeats.ts';
import { NO_SPECTRA } from '../spectra-of-group.ts';
import type { PatchMeasure } from './measure.ts';

export const metamerism: PatchMeasure = {
  key: 'metamerism',
  name: 'Greys turn by',
  unit: 'ΔE00',
  definition:
    'Mean shift of the greys between L* 15 and 85, each seen against the paper in the same light, between D50 and the worst light of the table.',
  source: 'after CIE 13.3; the LEDs and the triphosphor lamp are models',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  words: ['more changeable in its greys', 'steadier in its greys'],
  needs: ['ramp', 'white'],
  compute: (facts) => {
    const sheet = printSpectra(facts);
    if (!sheet) return { shape: 'missing', why: NO_SPECTRA };
    const greys = (facts.ramp ?? []).filter((s) => isMiddleGrey(s.lab)).length;
    const told = turns(sheet).flatMap(({ light, greys }) => (greys === undefined ? [] : [{ light, greys }]));
    if (greys < FEWEST_GREYS || told.length === 0)
      return { shape: 'missing', why: 'Greys between L* 15 and 85 are missing.' };
    const worst = told.reduce((most, t) => (t.greys > most.greys ? t : most));
    return {
      shape: 'scalar',
      value: worst.greys,
      sd: Math.hypot(...noiseAt(facts.repeatability, 50)) / Math.sqrt(greys),
      note: `under ${worst.light.name}`,
    };
  },
};
