import { visualDensity } from '../../colour/density.ts';
import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const dmax: PatchMeasure = {
  key: 'dmax',
  name: 'Dmax',
  unit: 'D',
  definition: 'Absolute visual density of the darkest patch: −log₁₀(Y/100).',
  source: 'ISO 5-3',
  digits: 2,
  scale: 'density',
  better: 'higher',
  words: ['blacker', 'less black'],
  compute: ({ black, repeatability: r }) => ({
    shape: 'scalar',
    value: visualDensity(black.xyz[1]),
    sd: densitySd(r.darkY, black.xyz[1], black.count),
  }),
};
