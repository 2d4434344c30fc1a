import { oneDigit, percent } from '../words.ts';
import { behindGlass, type Leaning, type Weighed } from './leaning.ts';

/** What a grade, and a gloss unit above what is seen, take where the whole picture bronzes (judged, our own starts). */
const EACH_GRADE = 0.5;
const EACH_GU = 0.035;
/** A difference of gloss between ink and sheet that is seen when a print is tilted, gloss units (practice). */
const SEEN_GU = 10;
/** Tones that are printed with so much ink that they bronze, L* (practice: the darks). */
const BRONZES_BELOW_L = 40;
/** Tones with so little ink that the bare coating shows beside the rest, L*. */
const BARE_ABOVE_L = 92;
const WORTH_A_WORD = 0.01;

export const bronzing: Leaning = {
  key: 'bronzing',
  name: 'Bronzing and gloss differential',
  holds:
    'Ink that shines otherwise than its sheet is seen as soon as the print is tilted, where the picture has such tones.',
  disagrees: 'Behind glass, and on a wall, nobody tilts it.',
  weight: 1,
  judge: (w) => {
    const { bronzing: grade = 0, glossDifferential = 0 } = w.sheet;
    const apart = Math.max(0, Math.abs(glossDifferential) - SEEN_GU);
    const [dark, bare] = [sharesOf(w).dark, sharesOf(w).bare];
    // A difference shows where both lie side by side: the rarer of the two bounds it.
    const beside = 2 * Math.min(bare, 1 - bare, 0.5);
    const bronzes = grade >= 1 && dark >= WORTH_A_WORD;
    const differs = apart > 0 && beside >= WORTH_A_WORD;
    if (behindGlass(w) || (!bronzes && !differs)) return undefined;
    const said = [
      ...(bronzes
        ? [`bronzing was graded ${oneDigit(grade)} of 4, and ${percent(dark)} of the picture is dark enough to bronze`]
        : []),
      ...(differs
        ? [
            `its black is ${oneDigit(Math.abs(glossDifferential))} GU ${glossDifferential > 0 ? 'glossier' : 'duller'} than its white, which shows at the ${percent(bare)} that stay almost bare`,
          ]
        : []),
    ];
    return {
      speaks: 'against',
      sentence: `Tilted, it shows its ink: ${said.join('; ')}.`,
      figures: [
        ...(bronzes
          ? [
              { name: 'bronzing', value: grade, unit: 'of 4', weighed: true },
              { name: 'darker than L* 40', value: dark * 100, unit: '%' },
            ]
          : []),
        ...(differs
          ? [
              { name: 'gloss differential', value: glossDifferential, unit: 'GU', weighed: true },
              { name: 'lighter than L* 92', value: bare * 100, unit: '%' },
            ]
          : []),
      ],
      cost:
        ((bronzes ? EACH_GRADE * grade * Math.min(1, dark * 2) : 0) + (differs ? EACH_GU * apart * beside : 0)) *
        (w.commission.handled ? 1.5 : 1),
    };
  },
};

/** Shares of the picture that take much ink, and hardly any. */
function sharesOf({ picture: { lightness } }: Weighed): { dark: number; bare: number } {
  const share = (from: number, to: number) => lightness.slice(from, to).reduce((s, v) => s + v, 0);
  return { dark: share(0, BRONZES_BELOW_L), bare: share(BARE_ABOVE_L, lightness.length) };
}
