import { oneDigit } from '../words.ts';
import { behindGlass, type Leaning } from './leaning.ts';

const EACH_GRADE = 0.3;
/** A difference of gloss between ink and sheet that is seen when a print is tilted, gloss units (practice). */
const SEEN_GU = 10;
const EACH_GU = 0.02;

export const bronzing: Leaning = {
  key: 'bronzing',
  name: 'Bronzing and gloss differential',
  holds: 'Ink that shines otherwise than its sheet is seen as soon as the print is tilted.',
  disagrees: 'Behind glass, and on a wall, nobody tilts it.',
  weight: 1,
  judge: (w) => {
    const { bronzing: grade, glossDifferential } = w.sheet;
    const apart = Math.max(0, Math.abs(glossDifferential ?? 0) - SEEN_GU);
    if (behindGlass(w) || ((grade ?? 0) < 1 && apart === 0)) return undefined;
    const said = [
      ...(grade ? [`bronzing was graded ${oneDigit(grade)} of 4`] : []),
      ...(apart > 0 ? [`its black shines ${oneDigit(Math.abs(glossDifferential!))} GU otherwise than its white`] : []),
    ];
    return {
      speaks: 'against',
      sentence: `Tilted, it shows its ink: ${said.join(', and ')}.`,
      figures: [
        ...(grade ? [{ name: 'bronzing', value: grade, unit: 'of 4' }] : []),
        ...(apart > 0 ? [{ name: 'gloss differential', value: glossDifferential!, unit: 'GU' }] : []),
      ],
      cost: (EACH_GRADE * (grade ?? 0) + EACH_GU * apart) * (w.commission.handled ? 1.5 : 1),
    };
  },
};
