import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

const EACH = 0.12;

export const tonedWhite: Leaning = {
  key: 'tonedWhite',
  name: 'A neutral white under toning',
  holds: 'The subtlest toning is seen on a white that is neutral where the print hangs.',
  disagrees: 'A warm white under a warm toning is one thing, say others.',
  weight: 1,
  judge: ({ picture, match }) => {
    if (picture.colour !== 'toned' && picture.colour !== 'split-toned') return undefined;
    // What a brightener does is part of it, as far as the light there wakes it.
    const [, a, b] = match.whiteSeen;
    const tint = Math.hypot(a, b);
    return {
      speaks: tint < 2 ? 'for' : tint > 4 ? 'against' : 'neither',
      sentence: `The picture is ${picture.colour}; where it will hang this white has a tint of ${oneDigit(tint)} C*.`,
      figures: [{ name: 'tint of the white as seen', value: tint, unit: 'C*', weighed: true }],
      cost: EACH * tint,
    };
  },
};
