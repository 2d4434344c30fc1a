import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

/**
 * Contrast between a detail and its surroundings (a hundredth of the picture's side) from which a metallic sheet is
 * carried, L* (our own bound).
 */
const CARRIED_L = 7;
const TOO_LOUD = 2.4;
/** What other sheets lack of polish beside it. */
const SHINES = 1.8;

export const loudSheet: Leaning = {
  key: 'loudSheet',
  name: 'A metallic sheet is loud',
  holds:
    'Water, polished metal and pictures with sharp local contrast are carried by a metallic sheet; everything soft falls flat on it.',
  disagrees: 'Too loud a sheet for any picture, say many.',
  weight: 1,
  judge: ({ sheet, picture, hints }) => {
    const scales = picture.structure?.scales;
    if (!scales || sheet.coating === undefined) return undefined;
    const local = Math.max(0, ...scales.filter((s) => s.size > 0.004 && s.size < 0.06).map((s) => s.sdL));
    const polished = hints.includes('metal or polished stone') || hints.includes('water');
    const figures = [{ name: 'local contrast', value: local, unit: 'L*' }];
    if (sheet.coating === 'metallic') {
      const soft = Math.max(0, 1 - local / CARRIED_L);
      return {
        speaks: polished && soft < 0.5 ? 'for' : soft > 0.3 ? 'against' : 'neither',
        sentence: `A metallic sheet lives on local contrast; the picture has ${oneDigit(local)} L* of it${polished ? ', and polished surfaces to show' : ''}.`,
        figures,
        cost: TOO_LOUD * (polished ? soft : 0.35 + 0.65 * soft),
      };
    }
    if (!polished || local < CARRIED_L / 2) return undefined;
    return {
      speaks: 'neither',
      sentence: `Polished surfaces with ${oneDigit(local)} L* of local contrast would gleam on a metallic sheet; here they are ink.`,
      figures,
      cost: SHINES * Math.min(1, local / CARRIED_L),
    };
  },
};
