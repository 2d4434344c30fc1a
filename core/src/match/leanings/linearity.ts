import { oneDigit, sentenceCase } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** A tone that misses its aim by less is not seen (practice: a step side by side). */
const UNSEEN_L = 1;
/** What each L* above it takes, over the whole picture (judged, our own start). */
const EACH_L = 0.3;

/** Where in a picture a tone stands, in words. */
const placeOf = (L: number): string => (L < 25 ? 'shadows' : L < 70 ? 'midtones' : 'highlights');

export const linearity: Leaning = {
  key: 'linearity',
  name: 'Tones where they belong',
  holds: 'A tone is printed as light as it was meant, or the picture is another one.',
  disagrees: 'A proof and a lift put it right, say others.',
  weight: 1,
  judge: ({ sheet, match }) => {
    // The driver's own mode is printed as it was read; everything else through the model or the profile.
    if (sheet.monochrome) return sheet.linearity === undefined ? undefined : inDriversMode(sheet.linearity);
    const { meanL, worstL, atL } = match.toneError;
    if (Math.abs(worstL) < UNSEEN_L)
      return {
        speaks: 'neither',
        sentence: 'The picture’s tones print as light as they were meant, within what is seen.',
        figures: [{ name: 'tones off their aim, mean', value: meanL, unit: 'ΔL*', weighed: true }],
        cost: 0,
      };
    return {
      speaks: meanL > UNSEEN_L ? 'against' : 'neither',
      sentence: sentenceCase(
        `its ${placeOf(atL)} print up to ${oneDigit(Math.abs(worstL))} L* too ${worstL > 0 ? 'light' : 'dark'}, the picture’s tones ${oneDigit(meanL)} L* off on average.`,
      ),
      figures: [
        { name: 'tones off their aim, mean', value: meanL, unit: 'ΔL*', weighed: true },
        { name: 'tones off their aim, largest', value: worstL, unit: 'ΔL*' },
      ],
      cost: EACH_L * Math.max(0, meanL - UNSEEN_L / 2),
    };
  },
};

/** Its steps as they were read: the largest departure from even steps stands for the mean at a half. */
function inDriversMode(off: number) {
  return {
    speaks: off > 2 * UNSEEN_L ? ('against' as const) : ('neither' as const),
    sentence: `In the driver’s own black-and-white mode a grey prints up to ${oneDigit(off)} L* from even steps.`,
    figures: [{ name: 'linearity', value: off, unit: 'ΔL*', weighed: true }],
    cost: EACH_L * Math.max(0, off / 2 - UNSEEN_L / 2),
  };
}
