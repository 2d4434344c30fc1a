import { asThree } from '../colour/three.ts';
import type { Rgb } from '../colour/types.ts';

/** What a patch is on the chart for. */
export type PatchRole =
  'surface' | 'grey' | 'dark' | 'shadow' | 'highlight' | 'tint' | 'ink ramp' | 'inner' | 'white' | 'black' | 'repeat';

export interface AskedPatch {
  readonly rgb: Rgb;
  readonly role: PatchRole;
}

/**
 * A purpose, declared: what a chart must hold for it. Every chart holds the cube's surface, 21 greys or more, whites
 * and blacks besides.
 */
export interface ChartPurposeFacts {
  readonly name: string;
  readonly answers: string;
  /** Share of the patches beyond the least that goes to a denser surface; the rest goes inside the cube. */
  readonly surfaceShare: number;
  readonly greys: number;
  readonly extras: () => AskedPatch[];
  /** Fewest and most patches, where they are not those of every chart. */
  readonly patches?: readonly [fewest: number, most: number];
}

const grey = (v: number): Rgb => [v, v, v];
const steps = (from: number, to: number, count: number, role: PatchRole): AskedPatch[] =>
  Array.from({ length: count }, (_, i) => ({ rgb: grey(from + ((to - from) * i) / (count - 1)), role }));
/** The first tenth from black and the last to paper, in half percents. */
const ends = () => [...steps(0.005, 0.1, 20, 'shadow'), ...steps(0.9, 0.995, 20, 'highlight')];
/**
 * Dark colours beside the greys, in 8-bit levels: where black ink sets in it changes them within a few levels, and no
 * other patch of a chart shows how.
 */
const DARK_LEVELS = [0, 18, 38] as const;
const darks = (): AskedPatch[] =>
  DARK_LEVELS.flatMap((r) =>
    DARK_LEVELS.flatMap((g) =>
      DARK_LEVELS.flatMap((b): AskedPatch[] =>
        r === g && g === b ? [] : [{ rgb: [r / 255, g / 255, b / 255], role: 'dark' }],
      ),
    ),
  );
/** A breath of each ink on the paper, and of two at once: brightener under ink. */
const tints = (): AskedPatch[] =>
  [0.02, 0.05, 0.1, 0.2].flatMap((v) =>
    (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
        [1, 1, 0],
        [1, 0, 1],
        [0, 1, 1],
      ] as const
    ).map((ink) => ({ rgb: asThree(ink.map((on) => 1 - v * on)), role: 'tint' as const })),
  );
/** Each primary and secondary from paper to full and on to black: how a media setting lays its ink. */
const inkRamps = (): AskedPatch[] =>
  (
    [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
      [1, 1, 0],
      [1, 0, 1],
      [0, 1, 1],
    ] as const
  ).flatMap((ink) =>
    Array.from({ length: 9 }, (_, i) => ({
      rgb: asThree(ink.map((on) => 1 - (on * (i + 1)) / 10)),
      role: 'ink ramp' as const,
    })),
  );

/**
 * What drifts first, the most telling patch first (our own order): full inks and their overprints, greys, half tones,
 * then skin, sky and leaf, and darks beside the greys. A chart of control patches is the beginning of this list.
 */
const controls = (): AskedPatch[] => {
  const full = (
    [
      [0, 1, 1],
      [1, 0, 1],
      [1, 1, 0],
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as const
  ).map((rgb): AskedPatch => ({ rgb: asThree(rgb), role: 'surface' }));
  const toned = (share: number) =>
    full.map(({ rgb }): AskedPatch => ({ rgb: asThree(rgb.map((v) => 1 - share * (1 - v))), role: 'ink ramp' }));
  const memory = (
    [
      [0.86, 0.69, 0.59],
      [0.42, 0.58, 0.76],
      [0.33, 0.45, 0.2],
      [0.5, 0.33, 0.24],
      [0.57, 0.26, 0.19],
      [0.37, 0.18, 0.33],
    ] as const
  ).map((rgb): AskedPatch => ({ rgb: asThree(rgb), role: 'inner' }));
  return [
    ...full,
    ...[0.5, 0.25, 0.75, 0.1, 0.9, 0.05].map((v): AskedPatch => ({ rgb: grey(v), role: 'grey' })),
    ...toned(0.5),
    ...memory.slice(0, 4),
    ...steps(0.15, 0.85, 8, 'grey'),
    ...toned(0.2),
    ...toned(0.8),
    ...memory.slice(4),
    ...darks(),
  ];
};

export const CHART_PURPOSES = {
  gamut: {
    name: 'Gamut and profile',
    answers: 'How wide is it, and what does a profile need to know?',
    surfaceShare: 0.7,
    greys: 33,
    extras: darks,
  },
  neutral: {
    name: 'Neutral ramp',
    answers: 'Are the greys grey, and evenly spaced?',
    surfaceShare: 0,
    greys: 101,
    extras: () => [],
  },
  ends: {
    name: 'Shadow and highlight steps',
    answers: 'Where do the shadows open, where does a highlight hold?',
    surfaceShare: 0,
    greys: 21,
    extras: ends,
  },
  brightener: {
    name: 'Brightener check',
    answers: 'How blue is the white with UV, and how soon does ink hide it?',
    surfaceShare: 0,
    greys: 21,
    extras: tints,
  },
  setting: {
    name: 'Media-setting trial',
    answers: 'Which setting lays down the right ink?',
    surfaceShare: 0.2,
    greys: 33,
    extras: () => [...ends(), ...inkRamps()],
  },
  control: {
    name: 'Control, for a weekly check',
    answers: 'Does the printer still print what it printed?',
    surfaceShare: 0,
    greys: 0,
    patches: [24, 150],
    extras: controls,
  },
  combined: {
    name: 'Combined',
    answers: 'All of it, once.',
    surfaceShare: 0.6,
    greys: 51,
    extras: () => [...ends(), ...tints(), ...darks()],
  },
} as const satisfies Record<string, ChartPurposeFacts>;

/** Fewest and most patches of a chart. */
export const PATCH_LIMITS = [150, 5000] as const;
export const patchLimits = (purpose: ChartPurpose): readonly [fewest: number, most: number] =>
  (CHART_PURPOSES[purpose] as ChartPurposeFacts).patches ?? PATCH_LIMITS;

export type ChartPurpose = keyof typeof CHART_PURPOSES;
export const CHART_PURPOSE_KEYS = Object.keys(CHART_PURPOSES) as ChartPurpose[];
