import { greyShifts } from '../metamerism.ts';
import { groupSpectrum, NO_SPECTRA } from '../spectra-of-group.ts';
import type { PatchMeasure } from './measure.ts';

/** Greys between these L* are weighed: lighter ones are paper, darker ones hide their hue. */
const FROM_L = 15;
const TO_L = 85;

export const metamerism: PatchMeasure = {
  key: 'metamerism',
  name: 'Greys turn by',
  unit: 'ΔE00',
  definition:
    'Mean shift of the greys, relative to the paper, between D50 and the worst of tungsten, daylight, north sky, warm and cool LED, and a triphosphor lamp.',
  source: 'after CIE 13.3; the LEDs and the triphosphor lamp are models',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  words: ['more changeable in its greys', 'steadier in its greys'],
  compute: ({ reading, white, ramp, groups, repeatability: r }) => {
    const paper = groupSpectrum(reading, white);
    if (!paper) return { shape: 'missing', why: NO_SPECTRA };
    const inner = (ramp ?? []).filter((s) => s.lab[0] > FROM_L && s.lab[0] < TO_L);
    const greys = inner.flatMap(
      (s) =>
        groupSpectrum(
          reading,
          groups.find((g) => g.lab === s.lab)!,
        ) ?? [],
    );
    if (greys.length < 3) return { shape: 'missing', why: 'Greys between L* 15 and 85 are missing.' };
    const worst = greyShifts(paper, greys).reduce((most, s) => (s.meanDeltaE > most.meanDeltaE ? s : most));
    return {
      shape: 'scalar',
      value: worst.meanDeltaE,
      sd: Math.hypot(...r.lab) / Math.sqrt(greys.length),
      note: `under ${worst.light.name}`,
    };
  },
};
