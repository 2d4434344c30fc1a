import type { Tiles } from './tiles.ts';

/** What a picture may be of: guessed from its tones and structure, confirmed or corrected by the printmaker. */
export const HINTS = [
  'skin',
  'fur or feather',
  'foliage',
  'bark or stone',
  'water',
  'metal or polished stone',
  'snow',
  'sky',
  'night',
  'artwork with ground colour',
  'lettering',
] as const;
export type Hint = (typeof HINTS)[number];

export interface HintFound {
  readonly hint: Hint;
  /** Share of the picture it rests on, 0–1. */
  readonly share: number;
}

interface Known {
  readonly ground?: { readonly lab: readonly number[]; readonly share: number };
  readonly subject: { readonly medianL: number };
  readonly skinShare: number;
  readonly darkAreaShare: number;
  readonly smoothShare: number;
}

/** A subject stands out from the ground of an artwork by so much, L* (our own bound). */
const PLAINLY_DARKER_L = 12;

/** Rules of thumb, all of them our own; what they can't tell (fur, bark, metal, water, lettering) is left to the hand. */
export function hintsOf(
  { L, a, b, columns, rows }: Tiles,
  drawn: Float32Array,
  known: Known,
  { medianL, colour }: { medianL: number; colour: string },
): HintFound[] {
  const count = columns * rows;
  const share = (holds: (i: number, down: number) => boolean) => {
    let n = 0;
    for (let i = 0; i < count; i++) if (holds(i, (Math.floor(i / columns) + 0.5) / rows)) n++;
    return n / count;
  };
  const hue = (i: number) => ((Math.atan2(b[i]!, a[i]!) * 180) / Math.PI + 360) % 360;
  const C = (i: number) => Math.hypot(a[i]!, b[i]!);
  const ofColour = colour === 'colour';
  const found: (HintFound & { readonly least: number })[] = [
    { hint: 'skin', share: known.ground || !ofColour ? 0 : known.skinShare, least: 0.06 },
    {
      hint: 'foliage',
      share: ofColour ? share((i) => C(i) > 10 && hue(i) > 95 && hue(i) < 165 && drawn[i]! > 2) : 0,
      least: 0.12,
    },
    {
      hint: 'sky',
      share: ofColour
        ? share((i, down) => down < 0.6 && L[i]! > 40 && drawn[i]! < 2.5 && C(i) > 6 && hue(i) > 215 && hue(i) < 300)
        : 0,
      least: 0.12,
    },
    { hint: 'night', share: medianL < 25 ? known.darkAreaShare : 0, least: 0.4 },
    {
      hint: 'snow',
      share: known.ground ? 0 : share((i) => L[i]! > 84 && C(i) < 12 && drawn[i]! < 6),
      least: 0.4,
    },
    {
      hint: 'artwork with ground colour',
      share:
        known.ground &&
        known.ground.share > 0.4 &&
        known.ground.lab[0]! > 55 &&
        known.ground.lab[0]! - known.subject.medianL > PLAINLY_DARKER_L
          ? known.ground.share
          : 0,
      least: 0.4,
    },
  ];
  return found.filter((h) => h.share >= h.least).map(({ hint, share: s }) => ({ hint, share: s }));
}
