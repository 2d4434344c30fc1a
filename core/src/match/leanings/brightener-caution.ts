import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** Brightener by Δb* that a printmaker would mention; a white that moves less looks the same in most lights. */
const WORTH_A_WORD = 2;
/** What each unit of Δb* above it costs, in ΔE00 over the whole picture (judged, our own start). */
const COST_EACH = 0.04;

export const brightenerCaution: Leaning = {
  key: 'brightenerCaution',
  name: 'Brightener changes and fades',
  holds: 'Brightened paper is kept out of editions that must last and out of rooms with UV.',
  weight: 1,
  judge: ({ sheet }) => {
    const shift = sheet.brightenerShift;
    if (shift === undefined || shift < WORTH_A_WORD) return undefined;
    return {
      speaks: 'against',
      sentence: `Its white owes ${oneDigit(shift)} of b* to brightener: under a lamp without UV it is that much yellower, and brightener fades.`,
      figures: [{ name: 'brightener', value: shift, unit: 'Δb*' }],
      cost: COST_EACH * (shift - WORTH_A_WORD),
    };
  },
};
