import { densitySd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const contrastRatio: PatchMeasure = {
  key: 'contrastRatio',
  name: 'Contrast ratio',
  unit: ': 1',
  definition: 'Luminous reflectance of the paper divided by that of the black, Y white : Y black.',
  source: 'from Y, ISO 13655',
  digits: 0,
  scale: 'ratio',
  better: 'higher',
  echoes: 'dmax',
  words: ['higher in contrast', 'lower in contrast'],
  needs: ['white', 'black'],
  compute: ({ white, black, repeatability: r }) => {
    const value = white.xyz[1] / Math.max(black.xyz[1], 1e-3);
    const logSd = Math.hypot(densitySd(r, black), densitySd(r, white));
    return { shape: 'scalar', value, sd: value * Math.LN10 * logSd };
  },
  underLight: ({ whiteY, blackY }) => ({ value: whiteY / Math.max(blackY, 1e-3) }),
};
