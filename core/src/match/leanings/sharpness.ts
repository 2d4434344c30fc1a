import { scalesSeen } from '../contrast-kept.ts';
import { surfaceSpread, transferAt } from '../surface-spread.ts';
import { mmWords, percent } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** Detail up to this size on paper is drawn by edges, mm. */
const FINE_MM = 2.5;
/** Contrast of fine detail from which a picture lives on it, L* (our own bound). */
const DETAILED_L = 6;
/** What it takes when all of such detail is lost (judged, our own start). */
const ALL_LOST = 3;
const WORTH_A_WORD_L = 1;

export const sharpness: Leaning = {
  key: 'sharpness',
  name: 'Sharp edges',
  holds: 'Fine detail wants a surface on which ink does not spread.',
  disagrees: 'Sharpening for the surface makes up for most of it, say others.',
  weight: 1,
  judge: ({ picture, commission, sheet }) => {
    const scales = (picture.structure?.scales ?? []).map((s) => ({ ...s, mm: s.size * commission.longSideMm }));
    const fine = scalesSeen(scales, commission.viewingMm).filter((s) => s.mm <= FINE_MM);
    const detailL = Math.hypot(...fine.map((s) => s.sdL));
    if (fine.length === 0 || detailL < WORTH_A_WORD_L) return undefined;
    const { mm, from } = surfaceSpread(sheet);
    const kept = Math.hypot(...fine.map((s) => s.sdL * transferAt(s.mm, mm))) / detailL;
    return {
      speaks: kept > 0.95 ? 'for' : kept < 0.85 ? 'against' : 'neither',
      sentence: `It keeps ${percent(kept)} of the detail of ${mmWords(fine[0]!.mm)} to ${mmWords(fine[fine.length - 1]!.mm)}: edges spread ${mm.toFixed(2)} mm (${from}).`,
      figures: [
        { name: 'fine detail kept', value: kept * 100, unit: '%', weighed: true },
        { name: 'spread of an edge', value: mm, unit: 'mm' },
      ],
      cost: ALL_LOST * (1 - kept) * Math.min(1, detailL / DETAILED_L),
    };
  },
};
