import type { TAKES } from '../measurement/observations.ts';
import { COATING_CLASSES } from '../paper.ts';
import type { FeedKey } from '../print/feed.ts';
import { fedByNone } from '../print/handling.ts';
import type { Commission, Veto } from './commission.ts';
import type { SheetQualities } from './sheet.ts';

/** From this Δb* on a white is a brightened one. */
const BRIGHTENED = 2;

/** Why a sheet is refused under a veto; what is not known is not refused, and said (`unknownTo`). */
const BROKEN: Readonly<Record<Veto, (sheet: SheetQualities) => string | undefined>> = {
  brightener: ({ brightenerShift: shift, brightenerBetween: between }) => {
    if (shift === undefined || (between?.[0] ?? shift) < BRIGHTENED) return undefined;
    const estimated = between && ` (estimated from one spectrum, ${between[0].toFixed(1)} to ${between[1].toFixed(1)})`;
    return `its white owes ${shift.toFixed(1)} Δb* to brightener${estimated ?? ''}`;
  },
  reflections: ({ coating }) =>
    coating && COATING_CLASSES[coating].sheen > 0.2
      ? `it is a ${COATING_CLASSES[coating].name.toLowerCase()} sheet`
      : undefined,
  texture: ({ surface }) => (surface === 'textured' || surface === 'rough' ? `its surface is ${surface}` : undefined),
  plastic: ({ base }) => (base === 'resin-coated' ? 'its base is resin-coated' : undefined),
  metallic: ({ coating }) => (coating === 'metallic' ? 'it is metallic' : undefined),
};
const SAID: Readonly<Record<Veto, string>> = {
  brightener: 'No brightener was asked for',
  reflections: 'No gloss was asked for',
  texture: 'No texture was asked for',
  plastic: 'No resin coating was asked for',
  metallic: 'No metallic sheet was asked for',
};

/** What would have to be known of a sheet to say whether it keeps a veto, where it is not. */
const UNKNOWN: Readonly<Record<Veto, (sheet: SheetQualities) => string | undefined>> = {
  brightener: ({ brightenerShift: shift, brightenerBetween: between }) => {
    if (shift === undefined) return 'its brightener was not measured';
    if (!between || between[1] < BRIGHTENED || between[0] >= BRIGHTENED) return undefined;
    return `its brightener is only estimated: ${between[0].toFixed(1)} to ${between[1].toFixed(1)} Δb*`;
  },
  reflections: ({ coating }) => (coating ? undefined : 'nobody said what kind of coating it has'),
  texture: ({ surface }) => (surface ? undefined : 'nobody said what its surface is'),
  plastic: ({ base }) => (base ? undefined : 'nobody said what its base is'),
  metallic: ({ coating }) => (coating ? undefined : 'nobody said what kind of coating it has'),
};

/** Vetoes of which nobody can tell whether a sheet keeps them, each in words. */
export const unknownTo = (sheet: SheetQualities, vetoes: readonly Veto[]): string[] =>
  vetoes.flatMap((veto) => {
    const unknown = UNKNOWN[veto](sheet);
    return unknown ? [`${SAID[veto].replace(/^N/, 'n')}, and ${unknown}`] : [];
  });

const feedsOf = (feeding: NonNullable<SheetQualities['feeding']>) =>
  new Map((Object.entries(feeding) as [FeedKey, keyof typeof TAKES][]).map(([key, takes]) => [key, { takes }]));

/** Why a sheet can't carry a picture at all, or undefined. */
export function refusedBy(sheet: SheetQualities, commission: Commission, colour: string): string | undefined {
  if (sheet.monochrome && colour === 'colour')
    return 'The driver’s black-and-white mode prints no colour, and the picture has some.';
  if (sheet.feeding && fedByNone(feedsOf(sheet.feeding))) return 'Its printer takes it by no way: every one was tried.';
  for (const veto of commission.vetoes) {
    const broken = BROKEN[veto](sheet);
    if (broken) return `${SAID[veto]}, and ${broken}.`;
  }
  return undefined;
}
