import { visualDensity } from '../../colour/density.ts';
import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const densityRange: PatchMeasure = {
  key: 'densityRange',
  name: 'Density range',
  unit: 'D',
  definition: 'Dmax less Dmin: the black relative to the paper.',
  source: 'after ISO 5-3, from Y',
  digits: 2,
  scale: 'density',
  better: 'higher',
  echoes: 'dmax',
  words: ['longer in its range', 'shorter in its range'],
  needs: ['white', 'black'],
  compute: ({ white, black, repeatability: r }) => ({
    shape: 'scalar',
    value: visualDensity(black.xyz[1]) - visualDensity(white.xyz[1]),
    sd: Math.hypot(densitySd(r, black), densitySd(r, white)),
  }),
  underLight: ({ blackY, whiteY }) => ({ value: visualDensity(blackY) - visualDensity(whiteY) }),
};
