import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

/**
 * Contrast between a detail and its surroundings (a hundredth of the picture's side) from which a metallic sheet is
 * carried, L* (our own bound).
 */
const CARRIED_L = 7;
/** What a metallic sheet takes from a soft picture, and gives to water and polish (judged, our own starts). */
const TOO_LOUD = 2.4;
const SHINES = 2.4;

export const loudSheet: Leaning = {
  key: 'loudSheet',
  name: 'A metallic sheet is loud',
  holds:
    'Water, polished metal and pictures with sharp local contrast are carried by a metallic sheet; everything soft falls flat on it.',
  disagrees: 'Too loud a sheet for any picture, say many.',
  weight: 1,
  judge: ({ sheet, picture, hints }) => {
    const scales = picture.structure?.scales;
    if (!scales || sheet.coating !== 'metallic') return undefined;
    const local = Math.max(0, ...scales.filter((s) => s.size > 0.004 && s.size < 0.06).map((s) => s.sdL));
    const polished = hints.includes('metal or polished stone') || hints.includes('water');
    const soft = Math.max(0, 1 - local / CARRIED_L);
    // What gleams is a gain of this sheet: it is credited here, and nothing is held against the others.
    const gain = polished && local >= CARRIED_L / 2 ? SHINES * Math.min(1, local / CARRIED_L) : 0;
    return {
      speaks: gain > 0 ? 'for' : soft > 0.3 || !polished ? 'against' : 'neither',
      sentence:
        gain > 0
          ? `Polished surfaces or water gleam on a metallic sheet: the picture has ${oneDigit(local)} L* of local contrast.`
          : `A metallic sheet lives on local contrast; the picture has ${oneDigit(local)} L* of it.`,
      figures: [{ name: 'local contrast', value: local, unit: 'L*' }],
      cost: TOO_LOUD * (polished ? soft : 0.35 + 0.65 * soft) - gain,
    };
  },
};
