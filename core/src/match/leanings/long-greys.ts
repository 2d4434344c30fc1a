import { COATING_CLASSES } from '../../paper.ts';
import { oneDigit, percent } from '../words.ts';
import { shineOf, type Leaning, type Weighed } from './leaning.ts';

/** Contrast of a picture, standard deviation of L*: below the first it is all long greys, above the second it has none. */
const LONG_L = 9;
const SHORT_L = 19;
/** Shares of true black and of strong colour from which a picture stands on them instead (our own bounds). */
const BLACK = 0.04;
const STRONG = 0.08;
/** Share of busy areas from which its greys are broken up. */
const BUSY = 0.5;
/** What full gloss takes from a picture that is all long greys (judged, our own start). */
const WORTH = 1.1;
const WORTH_A_WORD = 0.15;

export const longGreys: Leaning = {
  key: 'longGreys',
  name: 'Long, soft greys',
  holds: 'Fog, snow and pale tones without a true black lie softest on matt: their greys run on without a break.',
  disagrees: 'A sheet with sheen parts pale tones more crisply, say others.',
  weight: 1,
  judge: (w) => {
    const shine = shineOf(w.sheet);
    const long = longOf(w);
    if (shine === undefined || long < WORTH_A_WORD) return undefined;
    const kind = w.sheet.coating ? COATING_CLASSES[w.sheet.coating].name.toLowerCase() : 'sheet of its gloss';
    return {
      speaks: shine < 0.2 ? 'for' : shine * long > 0.3 ? 'against' : 'neither',
      sentence: `The picture is soft (${oneDigit(w.picture.contrastSdL)} L* of contrast, ${percent(w.picture.nearBlackShare)} true black): its long greys ${shine < 0.2 ? 'lie softly on matt' : `look harder on ${kind}`} (practice).`,
      figures: [
        { name: 'contrast of the whole', value: w.picture.contrastSdL, unit: 'L*' },
        { name: 'near black', value: w.picture.nearBlackShare * 100, unit: '%' },
      ],
      cost: WORTH * shine * long,
    };
  },
};

/** How much of a picture is long greys, 0–1: soft, plain, without a true black and without strong colour; a drawing is none. */
export function longOf({ picture, commission, hints }: Weighed): number {
  if (commission.originalGround || hints.includes('artwork with ground colour')) return 0;
  const soft = Math.min(1, Math.max(0, (SHORT_L - picture.contrastSdL) / (SHORT_L - LONG_L)));
  const without = (share: number, bound: number) => 1 - Math.min(1, share / bound);
  const plain = without(picture.structure?.busyShare ?? 0, BUSY);
  return soft * plain * without(picture.nearBlackShare, BLACK) * without(picture.saturatedShare, STRONG);
}
