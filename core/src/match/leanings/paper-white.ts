import { deltaE2000 } from '../../colour/difference.ts';
import { oneDigit, percent } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** The eye adapts to a white, though not wholly; this share of the tint stays seen (our own choice, no published figure). */
const TINT_THAT_STAYS = 0.25;

export const paperWhite: Leaning = {
  key: 'paperWhite',
  name: 'What the white does',
  holds: 'Highlights are paper: they can be no lighter and no more neutral than it is, in the light it hangs in.',
  disagrees: 'Warm whites suit stone, wood and old subjects, say some; bright white pops, say others.',
  weight: 1,
  judge: ({ match }) => {
    const [L, a, b] = match.whiteSeen;
    const distance = deltaE2000(match.whiteSeen, [100, 0, 0]);
    const tint = Math.hypot(a, b) < 1.5 ? 'a neutral white' : b > 0 ? 'a warm white' : 'a cool white';
    return {
      speaks: match.highlightShare < 0.02 ? 'neither' : distance < 2.5 ? 'for' : distance > 5 ? 'against' : 'neither',
      sentence: `Its highlights print on ${tint}, L* ${oneDigit(L)} and b* ${oneDigit(b)} in that light; ${percent(match.highlightShare)} of the picture is lighter than L* 90.`,
      figures: [
        { name: 'paper white', value: L, unit: 'L*', weighed: true },
        { name: 'paper white', value: b, unit: 'b*', weighed: true },
        { name: 'lighter than L* 90', value: match.highlightShare * 100, unit: '%' },
      ],
      cost: TINT_THAT_STAYS * distance * match.highlightShare,
    };
  },
};
