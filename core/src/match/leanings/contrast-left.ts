import { oneDigit, percent, sentenceCase } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** What it takes when no step of tone is left. */
const ALL_LOST = 2.6;

export const contrastLeft: Leaning = {
  key: 'contrastLeft',
  name: 'Contrast that is left',
  holds:
    'A picture is carried by its steps of tone: the more of them a sheet leaves, from the finest detail to the whole, the better.',
  disagrees: 'Soft pictures may gain by being drawn together, say those who print them on rag.',
  weight: 1,
  judge: ({ match, picture }) => {
    const scales = picture.structure?.scales ?? [];
    const strongest = [...scales].sort((p, q) => q.sdL - p.sdL)[0];
    const there = strongest
      ? `; where it has most, ${oneDigit(strongest.sdL)} L* become ${oneDigit(strongest.sdL * match.stepsKept)}`
      : '';
    return {
      speaks: match.stepsKept > 0.95 ? 'for' : match.stepsKept < 0.82 ? 'against' : 'neither',
      sentence: sentenceCase(
        `${percent(match.stepsKept)} of the picture’s steps of tone are left on it where it will hang${there}.`,
      ),
      figures: [{ name: 'steps of tone left', value: match.stepsKept * 100, unit: '%' }],
      cost: ALL_LOST * (1 - match.stepsKept),
    };
  },
};
