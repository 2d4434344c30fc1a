import type { Figure } from '../figure.ts';
import type { Observation } from '../observations.ts';
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
import { NEEDS, type Measure, type PatchMeasure } from './measure.ts';
import { metamerism } from './metamerism.ts';
import { crossovers } from './crossovers.ts';
import { bulk, thickness, weight } from './body.ts';
import { gloss20, gloss60, gloss85, glossBlack, glossDifferential } from './gloss.ts';
import { blockedRings, bronzing, hairlines, rubAfterADay, rubAfterMinutes } from './graded.ts';
import { neutrality } from './neutral-ramp.ts';
import { opacity } from './opacity.ts';
import { textureAmplitude, textureWavelength } from './texture.ts';
import { highlightSeparation, shadowSeparation } from './separation.ts';
import { white, whiteM0, whiteM2 } from './white.ts';

/** All measures, in the order a printmaker asks for them. */
export const MEASURE_GROUPS: readonly { readonly name: string; readonly measures: readonly Measure[] }[] = [
  {
    name: 'White',
    measures: [white, dmin, whiteM0, whiteM2, brightenerShift, brightenerDeltaB, isoBrightness, whiteness, tint],
  },
  { name: 'Black', measures: [black, dmax, densityRange, contrastRatio] },
  { name: 'Colour', measures: [gamutVolume] },
  {
    name: 'Greys',
    measures: [neutrality, crossovers, linearity, shadowSeparation, highlightSeparation, metamerism, blockedRings],
  },
  {
    name: 'Surface',
    measures: [
      gloss20,
      gloss60,
      gloss85,
      glossBlack,
      glossDifferential,
      bronzing,
      hairlines,
      rubAfterMinutes,
      rubAfterADay,
      textureWavelength,
      textureAmplitude,
    ],
  },
  { name: 'Body', measures: [weight, thickness, bulk, opacity] },
];

export const MEASURES: readonly Measure[] = MEASURE_GROUPS.flatMap((g) => g.measures);

/** Raise it when a measure is added or computed otherwise: figures kept under another version are computed anew. */
export const FIGURES_VERSION = 11;

export const UNREAD: Figure = { shape: 'missing', why: 'A reading of a chart is missing.' };

/** A measure of what was read, or what the reading lacks to support it. */
export function patchFigure(measure: PatchMeasure, facts: ReadingFacts): Figure {
  const lacking = measure.needs.find((need) => !NEEDS[need].held(facts));
  return lacking ? { shape: 'missing', why: NEEDS[lacking].why } : measure.compute(facts);
}

/** Every measure of a print condition, by key: of its patches, where they were read, and of what was observed besides. */
export function computeFigures(
  facts: ReadingFacts | undefined,
  observations: readonly Observation[] = [],
): Record<string, Figure> {
  return Object.fromEntries(
    MEASURES.map((m) => [m.key, 'observe' in m ? m.observe(observations) : facts ? patchFigure(m, facts) : UNREAD]),
  );
}

/** The measures that rest on observations alone: they change without a chart being looked at again. */
export function observedFigures(observations: readonly Observation[]): Record<string, Figure> {
  return Object.fromEntries(MEASURES.flatMap((m) => ('observe' in m ? [[m.key, m.observe(observations)]] : [])));
}
