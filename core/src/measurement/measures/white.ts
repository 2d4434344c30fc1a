import { channelSd } from '../noise.ts';
import type { Measure } from './measure.ts';

export const white: Measure = {
  key: 'white',
  name: 'Paper white',
  unit: 'L* a* b*',
  definition: 'CIELAB (D50, 2°) of the bare paper in this print condition.',
  source: 'ISO 13655, CIE 15',
  digits: 1,
  scale: 'deltaE',
  words: ['lighter', 'darker'],
  compute: ({ white: patch, repeatability }) => ({ shape: 'colour', lab: patch.lab, sd: channelSd(repeatability, patch.count) }),
};
