import { oneDigit } from '../words.ts';
import { kindWords, ofGreys, onMatt, type Leaning } from './leaning.ts';

const WORTH = 1.5;

/** Both schools of black-and-white; neither weighs anything until somebody holds it. */
export const darkroomBlackAndWhite: Leaning = {
  key: 'darkroomGreys',
  name: 'Black-and-white on gloss',
  holds: 'Black-and-white belongs on gloss or baryta: the look of the darkroom, the deepest black.',
  disagrees: 'The quiet school prints it on cotton.',
  weight: 0,
  judge: (w) => {
    if (!ofGreys(w)) return undefined;
    return {
      speaks: onMatt(w) ? 'against' : 'for',
      sentence: `Black-and-white on ${kindWords(w)}; its black is L* ${oneDigit(w.match.blackL)}.`,
      figures: [{ name: 'black, relative to the paper', value: w.match.blackL, unit: 'L*' }],
      cost: onMatt(w) ? WORTH : 0,
    };
  },
};

export const quietBlackAndWhite: Leaning = {
  key: 'quietGreys',
  name: 'Black-and-white on matt',
  holds: 'Black-and-white belongs on matt cotton: quiet, with more seen in its greys.',
  disagrees: 'The darkroom school wants the deepest black.',
  weight: 0,
  judge: (w) => {
    if (!ofGreys(w)) return undefined;
    return {
      speaks: onMatt(w) ? 'for' : 'against',
      sentence: `Black-and-white on ${kindWords(w)}; its black is L* ${oneDigit(w.match.blackL)}.`,
      figures: [{ name: 'black, relative to the paper', value: w.match.blackL, unit: 'L*' }],
      cost: onMatt(w) ? 0 : WORTH,
    };
  },
};
