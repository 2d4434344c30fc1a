import { oneDigit } from '../words.ts';
import { editionOpenness, type Leaning } from './leaning.ts';

/** Brightener by Δb* that a printmaker would mention; a white that moves less looks the same in most lights. */
const WORTH_A_WORD = 2;
/**
 * What each unit of Δb* above it costs (judged, our own start): three times that where the print is to last, up to twice
 * that in a small edition, which is bought to be kept.
 */
const COST_EACH = 0.04;
const LASTING = 3;
const SMALL_EDITION = 2;

export const brightener: Leaning = {
  key: 'brightener',
  name: 'Brightener changes and fades',
  holds: 'Brightened paper is kept out of editions that must last and out of rooms with UV.',
  disagrees: 'A bright white pops, and behind glass that blocks UV it is quiet.',
  weight: 1,
  judge: ({ sheet, commission }) => {
    const { brightenerShift: shift, brightenerBetween: between } = sheet;
    if (shift === undefined || shift < WORTH_A_WORD) return undefined;
    return {
      speaks: 'against',
      sentence: `Its white owes ${between ? 'some ' : ''}${oneDigit(shift)} of b* to brightener${between ? ` (estimated from one spectrum: ${oneDigit(between[0])} to ${oneDigit(between[1])})` : ''}: under a lamp without UV it is that much yellower, and brightener fades${commission.mustLast ? '; this print is to last' : ''}.`,
      figures: [{ name: 'brightener', value: shift, unit: 'Δb*', weighed: true }],
      cost:
        COST_EACH *
        (commission.mustLast ? LASTING : SMALL_EDITION - editionOpenness(commission.editionOf) * (SMALL_EDITION - 1)) *
        (shift - WORTH_A_WORD),
    };
  },
};
