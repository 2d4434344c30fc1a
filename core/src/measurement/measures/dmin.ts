import { visualDensity } from '../../colour/density.ts';
import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const dmin: PatchMeasure = {
  key: 'dmin',
  name: 'Dmin',
  unit: 'D',
  definition: 'Absolute density of the bare paper, −log₁₀(Y/100), with Y under D50 and 2°.',
  source: 'after ISO 5-3, from Y',
  digits: 3,
  scale: 'density',
  better: 'lower',
  echoes: 'white',
  words: ['darker in its white', 'brighter in its white'],
  needs: ['white'],
  compute: ({ white, repeatability: r }) => ({
    shape: 'scalar',
    value: visualDensity(white.xyz[1]),
    sd: densitySd(r, white),
  }),
  underLight: ({ whiteY }) => ({ value: visualDensity(whiteY) }),
};
