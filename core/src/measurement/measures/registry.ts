import type { Figure } from '../figure.ts';
import type { ReadingFacts } from '../reading-facts.ts';
import { black } from './black.ts';
import { brightenerShift } from './brightener-shift.ts';
import { contrastRatio } from './contrast-ratio.ts';
import { densityRange } from './density-range.ts';
import { dmax } from './dmax.ts';
import { dmin } from './dmin.ts';
import { gamutVolume } from './gamut-volume.ts';
import type { Measure } from './measure.ts';
import { neutrality } from './neutral-ramp.ts';
import { white } from './white.ts';

/** All measures, in the order a printmaker asks for them. */
export const MEASURES: readonly Measure[] = [white, black, dmax, dmin, densityRange, contrastRatio, gamutVolume, neutrality, brightenerShift];

/** Every measure of a reading, by key. */
export function computeFigures(facts: ReadingFacts): Record<string, Figure> {
  return Object.fromEntries(MEASURES.map((m) => [m.key, m.compute(facts)]));
}
