import { formatNumber } from '../../measurement/show.ts';
import type { Leaning } from './leaning.ts';

/**
 * What a change of 1 ΔE00 over the whole picture takes: the picture was made as it is. A third of what a loss of as much
 * takes, since a change keeps neighbours apart (judged, our own default).
 */
export const CHANGE = 0.35;

export const recipeChange: Leaning = {
  key: 'recipeChange',
  name: 'Change by the recipe',
  holds: 'The picture was made as it is: what a recipe changes is weighed against what it saves.',
  disagrees: 'A print is a picture of its own; the file is only where it begins.',
  weight: 1,
  judge: ({ match: { recipeDeltaE } }) => {
    if (recipeDeltaE === undefined) return undefined;
    const amount = formatNumber(recipeDeltaE, 1);
    return {
      speaks: recipeDeltaE >= 1 ? 'against' : 'neither',
      sentence: `Its recipe moves the colours of the picture by ${amount} ΔE00 on average.`,
      figures: [{ name: 'change by the recipe', value: recipeDeltaE, unit: 'ΔE00', weighed: true }],
      cost: CHANGE * recipeDeltaE,
    };
  },
};
