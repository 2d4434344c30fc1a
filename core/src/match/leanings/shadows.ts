import { oneDigit, percent } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** Its cost is part of fidelity's; it is here to say what happens to the dark tones. */
export const shadows: Leaning = {
  key: 'shadows',
  name: 'What the black does',
  holds: 'Dark tones need a dark black; a grey black closes or squeezes them.',
  weight: 1,
  judge: ({ match }) => {
    const black = `Its black is L* ${oneDigit(match.blackL)} against its own white`;
    const figures = [
      { name: 'black, relative to the paper', value: match.blackL, unit: 'L*' },
      { name: 'darker than the black, uncompensated', value: match.darkerThanBlackShare * 100, unit: '%' },
      { name: 'shadows, L* below 25', value: match.shadowShare * 100, unit: '%' },
      { name: 'shadow steps kept', value: match.shadowStepsKept * 100, unit: '%' },
    ];
    if (match.shadowShare < 0.01) {
      return {
        speaks: 'neither',
        sentence: `${black}; it hardly matters, for ${percent(match.shadowShare)} of the picture lies below L* 25.`,
        figures,
        cost: 0,
      };
    }
    const closed =
      match.darkerThanBlackShare > 0.0005
        ? `${percent(match.darkerThanBlackShare)} of the picture is darker than that and closes unless black is compensated`
        : 'nothing in the picture is darker than that';
    return {
      speaks: match.shadowStepsKept > 0.9 ? 'for' : match.shadowStepsKept < 0.7 ? 'against' : 'neither',
      sentence: `${black}: ${closed}. Compensated, the shadows (${percent(match.shadowShare)} of the picture) keep ${percent(match.shadowStepsKept)} of their steps.`,
      figures,
      cost: 0,
    };
  },
};
