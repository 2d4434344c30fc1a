import { deltaE2000 } from '../../colour/difference.ts';
import { deltaE } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** What the first ΔE00 take, and how many of them it takes until each further one weighs half (judged, our own starts). */
const EACH = 0.6;
const HALVES_AT = 8;

export const originalGround: Leaning = {
  key: 'originalGround',
  name: 'The original’s ground',
  holds: 'A reproduction stands on a white near the ground of its original, and the artist signs it off.',
  disagrees: 'Nobody; but who prints the ground as a tint can take a whiter sheet.',
  weight: 1,
  judge: ({ commission, match }) => {
    if (!commission.originalGround) return undefined;
    const off = deltaE2000(commission.originalGround, match.whiteLab);
    return {
      speaks: off < 2 ? 'for' : off > 4 ? 'against' : 'neither',
      sentence: `Its white lies ${deltaE(off)} from the ground of the original${commission.signedOffBy ? `; ${commission.signedOffBy} signs it off` : '; the artist has to sign it off'}.`,
      figures: [{ name: 'white to the original’s ground', value: off, unit: 'ΔE00', weighed: true }],
      // The further the white, the sooner the ground is printed as a tint instead: distance beyond weighs less and less.
      cost: (EACH * off) / (1 + off / HALVES_AT),
    };
  },
};
