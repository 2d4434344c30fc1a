import { xyzToLab } from '../../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../../colour/spectrum.ts';
import type { Spectrum } from '../../colour/types.ts';
import { estimatedOfWhite } from '../estimated-dull.ts';
import { noiseAt } from '../repeats.ts';
import type { PatchMeasure } from './measure.ts';

const bOf = (spectrum: Spectrum): number => xyzToLab(spectrumToXyz(spectrum), illuminantWhite())[2];

export const brightenerShift: PatchMeasure = {
  key: 'brightenerShift',
  name: 'Brightener, Δb*',
  unit: 'Δb*',
  definition:
    'b* of the white without UV (M2) less b* with UV (M1, or M0): how much bluer the brightener makes it. Where it was not read without UV it is estimated from the shape of the one spectrum: a narrow band in the blue on a reflectance that changes slowly.',
  source: 'ISO 13655',
  digits: 1,
  scale: 'deltaE',
  words: ['more brightened', 'less brightened'],
  likeness: { name: 'Brightener', unit: 'Δb*', digits: 1, one: 1.5, weight: 1 },
  needs: ['white'],
  compute: ({ reading, white, withoutUv, unserved, repeatability: r }) => {
    if (reading.condition !== 'M1' && reading.condition !== 'M0')
      return { shape: 'missing', why: 'A reading with UV (M1 or M0) is missing.' };
    if (!withoutUv)
      return (
        estimatedOfWhite({ reading, white, unserved }, (withUv, without) => bOf(without) - bOf(withUv)) ?? {
          shape: 'missing',
          why: unserved.M2 ?? 'A reading without UV (M2) is missing.',
        }
      );
    return {
      shape: 'scalar',
      value: withoutUv.white.lab[2] - white.lab[2],
      sd: Math.hypot(
        noiseAt(r, white.lab[0])[2] / Math.sqrt(white.count),
        noiseAt(withoutUv.repeatability, withoutUv.white.lab[0])[2] / Math.sqrt(withoutUv.white.count),
      ),
    };
  },
};
