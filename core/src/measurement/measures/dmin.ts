import { visualDensity } from '../../colour/density.ts';
import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const dmin: PatchMeasure = {
  key: 'dmin',
  name: 'Dmin',
  unit: 'D',
  definition: 'Absolute visual density of the bare paper: −log₁₀(Y/100).',
  source: 'ISO 5-3',
  digits: 3,
  scale: 'density',
  better: 'lower',
  echoes: 'white',
  words: ['darker in its white', 'brighter in its white'],
  compute: ({ white, repeatability: r }) => ({
    shape: 'scalar',
    value: visualDensity(white.xyz[1]),
    sd: densitySd(r.whiteY, white.xyz[1], white.count),
  }),
};
