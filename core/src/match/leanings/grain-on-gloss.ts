import { COATING_CLASSES } from '../../paper.ts';
import { oneDigit, percent } from '../words.ts';
import { shineOf, type Leaning } from './leaning.ts';

/** Grain from pixel to pixel that is seen, and that is coarse, L* (our own bounds). */
const SEEN_L = 0.8;
const COARSE_L = 3;
/** A picture with so much true black has a black to carry its grain. */
const CARRIED = 0.05;
/** What coarse grain on full gloss without any true black takes (judged, our own start). */
const WORTH = 1;

export const grainOnGloss: Leaning = {
  key: 'grainOnGloss',
  name: 'Grain on gloss',
  holds: 'Grain turns harsh on gloss where no true black carries it.',
  disagrees: 'Grain is the picture, say others, and wants to be seen.',
  weight: 1,
  judge: ({ picture, sheet }) => {
    const noiseL = picture.structure?.noiseL ?? 0;
    const shine = shineOf(sheet);
    if (noiseL < SEEN_L || shine === undefined || shine < 0.2) return undefined;
    const grain = Math.min(1, (noiseL - SEEN_L) / (COARSE_L - SEEN_L));
    const without = 1 - Math.min(1, picture.nearBlackShare / CARRIED);
    const cost = WORTH * grain * shine * without;
    if (cost < 0.02) return undefined;
    const kind = sheet.coating ? COATING_CLASSES[sheet.coating].name.toLowerCase() : 'glossy';
    return {
      speaks: cost > 0.2 ? 'against' : 'neither',
      sentence: `Its grain of ${oneDigit(noiseL)} L* looks harsh on a ${kind} sheet: only ${percent(picture.nearBlackShare)} of the picture is true black.`,
      figures: [
        { name: 'grain', value: noiseL, unit: 'L*' },
        { name: 'near black', value: picture.nearBlackShare * 100, unit: '%' },
      ],
      cost,
    };
  },
};
