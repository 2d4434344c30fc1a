import { deltaE, percent, sentenceCase } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** Its cost is part of fidelity's; it is here to say which colours are lost. */
export const lostColours: Leaning = {
  key: 'lostColours',
  name: 'Colours the sheet can’t hold',
  holds: 'Colours outside the gamut are named, with how far and how much of the picture.',
  weight: 1,
  judge: ({ match, picture }) => {
    if (picture.colour === 'black and white') return undefined;
    const [first, second] = match.lostFamilies;
    if (!first || match.tooSaturatedShare < 0.001) {
      return {
        speaks: 'for',
        sentence: `It holds every colour of the picture: ${percent(match.tooSaturatedShare)} is too saturated for it.`,
        figures: [{ name: 'too saturated', value: match.tooSaturatedShare * 100, unit: '%' }],
        cost: 0,
      };
    }
    const also =
      second && second.share > 0.002
        ? `; the ${second.name} ${deltaE(second.meanDeltaE)}, ${percent(second.share)}`
        : '';
    return {
      speaks: 'against',
      sentence: sentenceCase(
        `the ${first.name} lie ${deltaE(first.meanDeltaE)} outside this sheet, ${percent(first.share)} of the picture${also}.`,
      ),
      figures: match.lostFamilies.flatMap((f) => [
        { name: `${f.name}: distance`, value: f.meanDeltaE, unit: 'ΔE00' },
        { name: `${f.name}: share`, value: f.share * 100, unit: '%' },
      ]),
      cost: 0,
    };
  },
};
