import { deltaE, percent, sentenceCase } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** A sheet that loses less than this share loses nothing to speak of (our own choice). */
const HELD = 0.001;
const WORTH_A_WORD = 0.005;
/** Loss of tone over the whole picture that speaks against a sheet, ΔE00 (our own choice). */
const TONE_LOST = 0.5;

/** Its cost is part of fidelity's; it is here to say which colours are lost. */
export const lostColours: Leaning = {
  key: 'lostColours',
  name: 'Colours the sheet can’t hold',
  holds: 'Colours outside the gamut are named, with how far and how much of the picture.',
  weight: 1,
  judge: ({ match, picture }) => {
    if (picture.colour === 'black and white') return undefined;
    const outside = { name: 'outside the gamut, black laid on black', value: match.outsideShare * 100, unit: '%' };
    const darker = { name: 'darker than the black, uncompensated', value: match.darkerThanBlackShare * 100, unit: '%' };
    if (match.outsideShare < HELD) {
      // What closes without compensation is no reason for the sheet.
      const squeezed = match.darkerThanBlackShare >= WORTH_A_WORD;
      return {
        speaks: squeezed ? 'neither' : 'for',
        sentence: `Once black is laid on its black, this sheet holds the picture’s colours: ${percent(match.outsideShare)} lies outside${squeezed ? `. Uncompensated, ${percent(match.darkerThanBlackShare)} is darker than its black` : ''}.`,
        figures: squeezed ? [outside, darker] : [outside],
        cost: 0,
      };
    }
    if (picture.colour === 'toned')
      return {
        speaks: match.outsideMeanDeltaE * match.outsideShare > TONE_LOST ? 'against' : 'neither',
        sentence: `The picture’s toning is more than this sheet holds in ${percent(match.outsideShare)} of it: there it comes out ${deltaE(match.outsideMeanDeltaE)} weaker or lighter.`,
        figures: [outside, { name: 'toning lost: distance', value: match.outsideMeanDeltaE, unit: 'ΔE00' }],
        cost: 0,
      };
    const [first, second] = match.lostFamilies.map((f) => ({ ...f, name: f.name.replace(/greys$/, 'tones') }));
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
