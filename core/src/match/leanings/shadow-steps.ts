import { leastStepL } from '../commission.ts';
import { oneDigit, percent } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** What the loss of all steps in a picture that is all shadow takes. */
const ALL_LOST = 6;

export const shadowSteps: Leaning = {
  key: 'shadowSteps',
  name: 'Shadow steps told apart',
  holds: 'What counts in the dark is whether the steps stay apart where the print hangs, not how dark they are.',
  disagrees: 'Printmakers of the quiet school find more in the shadows of a rag than its black lets one expect.',
  weight: 1,
  judge: ({ match, commission }) => {
    const black = `Its black is L* ${oneDigit(match.blackL)} against its own white where it will hang`;
    const wedge = match.shadowWedge;
    const seen = Math.floor((wedge[wedge.length - 1]! - wedge[0]!) / leastStepL(commission.lux));
    const figures = [
      { name: 'black, relative to the paper', value: match.blackL, unit: 'L*' },
      { name: 'shadows, L* below 25', value: match.shadowShare * 100, unit: '%' },
      { name: 'shadow steps kept', value: match.shadowStepsKept * 100, unit: '%', weighed: true },
      { name: 'darker than the black, uncompensated', value: match.darkerThanBlackShare * 100, unit: '%' },
    ];
    const cost = ALL_LOST * match.shadowShare * (1 - match.shadowStepsKept);
    if (match.shadowShare < 0.01)
      return {
        speaks: 'neither',
        sentence: `${black}; it hardly matters, for ${percent(match.shadowShare)} of the picture lies below L* 25.`,
        figures,
        cost,
      };
    const mark = match.marks.find((m) => m.kind === 'shadow');
    const there = mark ? ` The marked deepest detail keeps ${percent(mark.stepsKept)} of its own.` : '';
    const uncompensated =
      match.darkerThanBlackShare > 0.0005
        ? ` Uncompensated, ${percent(match.darkerThanBlackShare)} of the picture would close.`
        : '';
    return {
      speaks: match.shadowStepsKept > 0.85 ? 'for' : match.shadowStepsKept < 0.65 ? 'against' : 'neither',
      sentence: `${black}: the picture’s own shadows (${percent(match.shadowShare)} of it) keep ${percent(match.shadowStepsKept)} of their steps; of L* 0 to 24 an eye sees some ${seen} steps there.${there}${uncompensated}`,
      figures,
      cost,
    };
  },
};
