import { deltaE, percent, sentenceCase } from '../words.ts';
import type { ToneChroma } from '../on-sheet.ts';
import type { Leaning, Weighed } from './leaning.ts';

/** A sheet that loses less than this share loses nothing to speak of (our own choice). */
const HELD = 0.001;
const WORTH_A_WORD = 0.005;
/** Loss over the whole picture that speaks against a sheet, ΔE00 (our own choice). */
const LOST = 0.25;
/** What an accent that is lost takes, a ΔE00: a small lamp may be what the picture is about. */
const ACCENT = 0.08;
/** Chroma kept by less than this is said; mean paling from which a sheet is not spoken for (our own choices). */
const PALED = { kept: 0.93, deltaE: 0.15 };

export const colourHeld: Leaning = {
  key: 'colourHeld',
  name: 'Colours the sheet can’t hold',
  holds:
    'A sheet is the better, the nearer the picture’s colours come out. Tone that is only squeezed is not counted here.',
  disagrees: 'Those for whom ink and sheet are one thing give some of it up for what the sheet adds.',
  weight: 1,
  judge: (w) => {
    const { match, picture, sheet } = w;
    if (picture.colour === 'black and white') return undefined;
    const accent = match.marks.find((m) => m.kind === 'colour');
    const cost =
      match.colourLostDeltaE + match.colourPaledDeltaE + ACCENT * (accent && accent.deltaE > 1 ? accent.deltaE : 0);
    const outside = { name: 'out of reach, black laid on black', value: match.outsideShare * 100, unit: '%' };
    const paler = palerOf(w);
    const kept = { name: 'chroma kept', value: match.chromaKept * 100, unit: '%' };
    const whole = {
      name: 'colour lost, mean',
      value: match.colourLostDeltaE + match.colourPaledDeltaE,
      unit: 'ΔE00',
      weighed: true,
    };
    if (match.outsideShare < HELD) {
      const darker = {
        name: 'darker than the black, uncompensated',
        value: match.darkerThanBlackShare * 100,
        unit: '%',
      };
      // What closes without compensation is no reason for the sheet.
      const squeezed = match.darkerThanBlackShare >= WORTH_A_WORD;
      return {
        speaks: paler && match.colourPaledDeltaE > LOST ? 'against' : squeezed || paler ? 'neither' : 'for',
        sentence: paler
          ? `Every colour is within its reach, but its black takes colour from the darks: ${paler}.`
          : `Once black is laid on its black, this sheet holds the picture’s colours: ${percent(match.outsideShare)} is out of reach${squeezed ? `. Uncompensated, ${percent(match.darkerThanBlackShare)} is darker than its black` : ''}.`,
        figures: [outside, whole, ...(squeezed ? [darker] : []), ...(paler ? [kept] : [])],
        cost,
      };
    }
    const speaks = match.colourLostDeltaE > LOST || (accent?.deltaE ?? 0) > 4 ? 'against' : 'neither';
    if (picture.colour !== 'colour')
      return {
        speaks,
        sentence: sheet.monochrome
          ? `The driver’s black-and-white mode prints no toning: ${percent(match.outsideShare)} of the picture comes out ${deltaE(match.outsideMeanDeltaE)} off.`
          : `The picture’s toning is more than this sheet holds in ${percent(match.outsideShare)} of it: there it comes out ${deltaE(match.outsideMeanDeltaE)} weaker or lighter.`,
        figures: [outside, whole, { name: 'toning lost: distance', value: match.outsideMeanDeltaE, unit: 'ΔE00' }],
        cost,
      };
    const [first, second] = match.lostFamilies.map((f) => ({ ...f, name: f.name.replace(/greys$/, 'tones') }));
    const also =
      second && second.share > 0.002
        ? `; the ${second.name} ${deltaE(second.meanDeltaE)}, ${percent(second.share)}`
        : '';
    const lamp =
      accent && accent.deltaE > 2 && match.outsideShare < 0.02
        ? ` The strongest colour of all comes out ${deltaE(accent.deltaE)} off.`
        : '';
    return {
      speaks,
      sentence: sentenceCase(
        `the ${first!.name} lie ${deltaE(first!.meanDeltaE)} outside this sheet, ${percent(first!.share)} of the picture${also}.${lamp}${paler ? ` ${sentenceCase(paler)}.` : ''}`,
      ),
      figures: [
        outside,
        whole,
        ...(paler ? [kept] : []),
        ...match.lostFamilies.flatMap((f) => [
          { name: `${f.name}: distance`, value: f.meanDeltaE, unit: 'ΔE00' },
          { name: `${f.name}: share`, value: f.share * 100, unit: '%' },
        ]),
      ],
      cost,
    };
  },
};

/** A hue that turns by less is the same to anybody (our own choice). */
const HUE_TURNS_DEG = 8;

/**
 * Which colours are seen paler than the file has them, and in which tones most: "the deep blues turn paler, chroma 15 to
 * 10; most at L* 5 to 10, chroma 14 to 5; 64 % of the picture’s chroma is kept".
 */
function palerOf({ match, picture }: Weighed): string | undefined {
  if (picture.colour !== 'colour' || match.chromaKept > PALED.kept || match.colourPaledDeltaE < PALED.deltaE)
    return undefined;
  const families = match.paledFamilies
    .slice(0, 2)
    .map(
      ({ name, fromC, toC, hueTurnDeg }) =>
        `the ${name} turn paler, chroma ${fromC.toFixed(0)} to ${toC.toFixed(0)}${Math.abs(hueTurnDeg) >= HUE_TURNS_DEG ? `, their hue by ${hueTurnDeg > 0 ? '+' : '−'}${Math.abs(hueTurnDeg).toFixed(0)}°` : ''}`,
    );
  const lost = (t: ToneChroma) => t.share * (t.fromC - t.toC);
  const [most] = match.chromaByTone.toSorted((p, q) => lost(q) - lost(p));
  const where = most
    ? [`most at L* ${most.fromL} to ${most.toL}, chroma ${most.fromC.toFixed(0)} to ${most.toC.toFixed(0)}`]
    : [];
  return [...families, ...where, `${percent(match.chromaKept)} of the picture’s chroma is kept`].join('; ');
}
