import { visualDensity } from '../../colour/density.ts';
import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const dmax: PatchMeasure = {
  key: 'dmax',
  name: 'Dmax',
  unit: 'D',
  definition:
    'Absolute density of the darkest patch, −log₁₀(Y/100), with Y under D50 and 2°. The norm’s visual density weighs with illuminant A; on dye blacks the two differ by a hundredth or two.',
  source: 'after ISO 5-3, from Y',
  digits: 2,
  scale: 'density',
  better: 'higher',
  trial: true,
  uvBlind: true,
  words: ['blacker', 'less black'],
  likeness: { name: 'Black', unit: 'D', digits: 2, one: 0.1, weight: 1 },
  needs: ['black'],
  compute: ({ black, repeatability: r }) => ({
    shape: 'scalar',
    value: visualDensity(black.xyz[1]),
    sd: densitySd(r, black),
  }),
  underLight: ({ blackY }) => ({ value: visualDensity(blackY) }),
};
