import { FEED_PATHS, type FeedKey } from '../../print/feed.ts';
import type { Leaning } from './leaning.ts';

/** Minutes somebody must stand at the printer that weigh like 1 ΔE00 over the picture (our own choice). */
const MINUTES_FOR_ONE = 90;
const AT_MOST = 2;

export const feeding: Leaning = {
  key: 'feeding',
  name: 'Easily fed',
  holds: 'A sheet that must be fed by hand takes an hour from the picture.',
  disagrees: 'Who prints one sheet at a time does not count the minutes.',
  // Little beside what is seen: it parts sheets that serve alike.
  weight: 0.15,
  judge: ({ sheet, commission }) => {
    const paths = Object.entries(sheet.feeding ?? {}) as [FeedKey, 'well' | 'care' | 'not'][];
    const taken = paths.filter(([, takes]) => takes !== 'not');
    if (taken.length === 0 || taken.some(([key]) => !FEED_PATHS[key].byHand)) return undefined;
    const timed = sheet.minutesEach !== undefined;
    const minutes = (sheet.minutesEach ?? FEED_PATHS[taken[0]![0]].minutesEach) * commission.copies;
    const prints = commission.copies === 1 ? 'the print' : `${commission.copies} prints`;
    return {
      speaks: 'against',
      sentence: timed
        ? `It is fed by hand alone, ${minutes.toFixed(0)} minutes at the printer for ${prints}, as timed.`
        : `It is fed by hand alone, ${minutes.toFixed(0)} minutes of feeding for ${prints} (practice).`,
      figures: [{ name: 'minutes at the printer', value: minutes, unit: 'min', weighed: true }],
      cost: Math.min(AT_MOST, minutes / MINUTES_FOR_ONE),
    };
  },
};
