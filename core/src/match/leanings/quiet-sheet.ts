import { oneDigit, percent } from '../words.ts';
import { onMatt, type Leaning } from './leaning.ts';

/** Below this share of dark tones a picture needs no deep black. */
const NEEDS_NO_BLACK = 0.03;
/** What a surface without reflections is worth to such a picture, in ΔE00 over the whole of it (judged, our own start). */
const WORTH = 1;

export const quietSheet: Leaning = {
  key: 'quietSheet',
  name: 'High key wants a quiet sheet',
  holds: 'Snow, fog and pale portraits go to matt rag: they need no deep black, and no reflection lies on them.',
  weight: 1,
  judge: (w) => {
    const { picture, match } = w;
    if (!onMatt(w) || picture.key !== 'high key' || match.shadowShare > NEEDS_NO_BLACK) return undefined;
    return {
      speaks: 'for',
      sentence: `The picture is high key (median L* ${oneDigit(picture.medianL)}) and only ${percent(match.shadowShare)} of it lies in the shadows: a matt sheet gives up nothing here and shows no reflection.`,
      figures: [
        { name: 'median lightness', value: picture.medianL, unit: 'L*' },
        { name: 'shadows, L* below 25', value: match.shadowShare * 100, unit: '%' },
      ],
      cost: -WORTH,
    };
  },
};
