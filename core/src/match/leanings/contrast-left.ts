import { contrastKept, scalesSeen, type ContrastKept } from '../contrast-kept.ts';
import { mmWords, percent, sentenceCase } from '../words.ts';
import type { Leaning, Weighed } from './leaning.ts';

/** What it takes when no contrast is left (judged, our own start). */
const ALL_LOST = 2.6;
/** Contrast of all scales together, L*, below which a picture has none to lose; a scale with less of it is not named. */
const FLAT_L = 1;
const NAMED_L = 0.5;
/** Sizes on paper that are named: what is seen near, what carries a form, and the whole (our own choice). */
const NAMED_MM = [1, 12, 100] as const;

export const contrastLeft: Leaning = {
  key: 'contrastLeft',
  name: 'Contrast that is left',
  holds:
    'A picture is carried by its contrast, from the finest detail to the whole: the more of it a sheet leaves, the better.',
  disagrees: 'Soft pictures may gain from being drawn together, say those who print them on rag.',
  weight: 1,
  judge: (w) => {
    const kept = contrastSeen(w);
    const whole = kept.reduce((sum, s) => sum + s.sdL, 0);
    if (whole < FLAT_L) return undefined;
    const left = kept.reduce((sum, s) => sum + s.sdL * s.kept, 0) / whole;
    const named = nearest(kept);
    return {
      speaks: left > 0.95 ? 'for' : left < 0.82 ? 'against' : 'neither',
      sentence: sentenceCase(
        `it keeps ${percent(left)} of the picture’s contrast: ${named.map((s) => `${percent(s.kept)} at ${mmWords(s.mm)}`).join(', ')}.`,
      ),
      figures: [
        { name: 'contrast kept', value: left * 100, unit: '%', weighed: true },
        ...named.map((s) => ({ name: `contrast kept at ${mmWords(s.mm)}`, value: s.kept * 100, unit: '%' })),
      ],
      cost: ALL_LOST * (1 - left),
    };
  },
};

/** Scales of the picture that are seen from where it is looked at, with what is left of each. Edges are weighed apart. */
function contrastSeen({ picture, commission, match, sheet }: Weighed): ContrastKept[] {
  const kept = contrastKept(picture.structure?.scales ?? [], commission.longSideMm, match, sheet);
  return scalesSeen(kept, commission.viewingMm);
}

/** Of the scales with contrast the ones nearest to the named sizes, the finest first. */
function nearest(scales: readonly ContrastKept[]): ContrastKept[] {
  const some = scales.filter((s) => s.sdL >= NAMED_L);
  const found = NAMED_MM.map((mm) =>
    some.reduce<ContrastKept | undefined>(
      (best, s) => (best && Math.abs(Math.log(best.mm / mm)) <= Math.abs(Math.log(s.mm / mm)) ? best : s),
      undefined,
    ),
  );
  return [...new Set(found.filter((s) => s !== undefined))];
}
