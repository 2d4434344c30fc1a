import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

const EACH = 0.12;
const BRIGHTENED = 0.1;

export const tonedWhite: Leaning = {
  key: 'tonedWhite',
  name: 'A neutral white under toning',
  holds: 'The subtlest toning is seen on a neutral white without brightener.',
  disagrees: 'A warm white under a warm toning is one thing, say others.',
  weight: 1,
  judge: ({ picture, match, sheet }) => {
    if (picture.colour !== 'toned' && picture.colour !== 'split-toned') return undefined;
    const [, a, b] = match.whiteLab;
    const tint = Math.hypot(a, b);
    const shift = Math.max(0, sheet.brightenerShift ?? 0);
    return {
      speaks: tint < 2 && shift < 1 ? 'for' : tint > 4 || shift > 4 ? 'against' : 'neither',
      sentence: `The picture is toned; this white has a tint of ${oneDigit(tint)} C*${sheet.brightenerShift === undefined ? '' : ` and ${sheet.brightenerBetween ? 'an estimated ' : ''}${oneDigit(shift)} Δb* of brightener`}.`,
      figures: [
        { name: 'tint of the white', value: tint, unit: 'C*' },
        ...(sheet.brightenerShift === undefined ? [] : [{ name: 'brightener', value: shift, unit: 'Δb*' }]),
      ],
      cost: EACH * tint + BRIGHTENED * shift,
    };
  },
};
