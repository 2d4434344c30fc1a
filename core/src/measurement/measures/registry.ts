import type { Figure } from '../figure.ts';
import type { ReadingFacts } from '../reading-facts.ts';
import { black } from './black.ts';
import { brightenerDeltaB } from './brightener-delta-b.ts';
import { brightenerShift } from './brightener-shift.ts';
import { tint, whiteness } from './cie-whiteness.ts';
import { contrastRatio } from './contrast-ratio.ts';
import { densityRange } from './density-range.ts';
import { dmax } from './dmax.ts';
import { dmin } from './dmin.ts';
import { gamutVolume } from './gamut-volume.ts';
import { isoBrightness } from './iso-brightness.ts';
import { linearity } from './linearity.ts';
import type { Measure } from './measure.ts';
import { metamerism } from './metamerism.ts';
import { neutrality } from './neutral-ramp.ts';
import { highlightSeparation, shadowSeparation } from './separation.ts';
import { white } from './white.ts';

/** All measures, in the order a printmaker asks for them. */
export const MEASURES: readonly Measure[] = [
  white,
  black,
  dmax,
  dmin,
  densityRange,
  contrastRatio,
  gamutVolume,
  neutrality,
  linearity,
  shadowSeparation,
  highlightSeparation,
  metamerism,
  brightenerShift,
  brightenerDeltaB,
  isoBrightness,
  whiteness,
  tint,
];

/** Raise it when a measure is added or computed otherwise: figures kept under another version are computed anew. */
export const FIGURES_VERSION = 3;

/** Every measure of a reading, by key. */
export function computeFigures(facts: ReadingFacts): Record<string, Figure> {
  return Object.fromEntries(MEASURES.map((m) => [m.key, m.compute(facts)]));
}
