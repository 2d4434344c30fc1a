import { channelSd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const black: PatchMeasure = {
  key: 'black',
  name: 'Black point',
  unit: 'L* a* b*',
  definition: 'Mean CIELAB (D50, 2°) of the darkest patch.',
  source: 'ISO 13655, CIE 15',
  digits: 1,
  scale: 'deltaE',
  echoes: 'dmax',
  uvBlind: true,
  words: ['lighter', 'darker'],
  needs: ['black'],
  compute: ({ black: patch, repeatability }) => ({
    shape: 'colour',
    lab: patch.lab,
    sd: channelSd(repeatability, patch),
  }),
  underLight: ({ black: lab }) => ({ lab }),
};
