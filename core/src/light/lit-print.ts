import type { Lab } from '../colour/types.ts';
import type { GamutMesh } from '../gamut/mesh.ts';
import { sdBetween, type Figure } from '../measurement/figure.ts';
import type { LitFacts, PatchMeasure } from '../measurement/measures/measure.ts';
import { MEASURES } from '../measurement/measures/registry.ts';
import { rampOf, type RampStep } from '../measurement/neutral-ramp.ts';
import { DEFAULT_THRESHOLDS } from '../measurement/thresholds.ts';
import { litLabs, litXyz, withGlow, type Lighting } from './lit-sheet.ts';
import type { PrintSpectra } from './print-spectra.ts';

/** A print as it looks under a light. */
export interface LitPrint {
  /** The figures that follow from how it looks; the others keep what was measured. */
  readonly figures: Record<string, Figure>;
  readonly ramp: readonly RampStep[];
  readonly mesh: GamutMesh;
}

/**
 * Figures of a print under a light and behind a glass. Each keeps the repeatability of the figure it stands for: the
 * same readings lie behind both. Where the brightener is estimated, what follows from it says between what it lies.
 * @param base figures under D50, as they were measured
 * @param uvEnds the same light with the least and the most UV, where that of the lamp was not measured
 * @param toldFrom ΔE00 from which two greys are told apart, edge to edge
 */
export function litPrint(
  sheet: PrintSpectra,
  base: Readonly<Record<string, Figure>>,
  under: Lighting,
  toldFrom: number = DEFAULT_THRESHOLDS.deltaE.edgeToEdge,
  uvEnds: readonly Lighting[] = [],
): LitPrint {
  const facts = litFacts(sheet, under, toldFrom);
  const { estimated } = sheet;
  const sheets = estimated
    ? [estimated.least, estimated.most].map((share) => ({ ...sheet, ...withGlow(sheet, share) }))
    : [sheet];
  const lamps = uvEnds.length > 0 && sheet.luminous ? uvEnds : [under];
  const ends =
    sheets.length + lamps.length > 2
      ? lamps.flatMap((lamp) => sheets.map((s) => litFacts(s, lamp, toldFrom)))
      : undefined;
  const estimatedFrom = lamps.length === 1 ? 'brightener' : estimated ? 'both' : 'lamp';
  const figures: Record<string, Figure> = {};
  for (const measure of MEASURES) {
    const was = base[measure.key];
    const lit = 'underLight' in measure ? measure.underLight?.(facts) : undefined;
    if (!lit || !was || was.shape === 'missing') continue;
    const between = ends && 'underLight' in measure && betweenOf(measure, ends);
    const sd = between ? Math.hypot(was.sd, between.sd) : was.sd;
    figures[measure.key] = {
      ...('lab' in lit ? { shape: 'colour' as const, ...lit } : { shape: 'scalar' as const, ...lit }),
      sd,
      ...(between && { between: between.ends, estimatedFrom }),
    };
  }
  return { figures, ramp: facts.ramp, mesh: facts.mesh };
}

/** A figure at both ends of an estimate; undefined where the last digit that is shown is the same at both. */
function betweenOf(
  measure: PatchMeasure,
  facts: readonly LitFacts[],
): { ends: [number, number]; sd: number } | undefined {
  const at = facts.flatMap((f) => measure.underLight?.(f) ?? []);
  if (at.length < facts.length) return undefined;
  const values = at.map((p) => ('lab' in p ? p.lab[2] : p.value));
  const ends: [number, number] = [Math.min(...values), Math.max(...values)];
  if (ends[1] - ends[0] < 10 ** -measure.digits) return undefined;
  const [p, q] = [at[values.indexOf(ends[0])]!, at[values.indexOf(ends[1])]!];
  const away = 'lab' in p && 'lab' in q ? Math.hypot(...p.lab.map((x, i) => x - q.lab[i]!)) : ends[1] - ends[0];
  return { ends, sd: sdBetween([0, away]) };
}

function litFacts(sheet: PrintSpectra, under: Lighting, toldFrom: number): LitFacts {
  const xyz = litXyz(sheet, under);
  const labs: readonly Lab[] = litLabs(xyz, under);
  const white = labs[sheet.white]!;
  const greys = sheet.greys.map(({ step, patch }) => ({ step, lab: labs[patch]! }));
  return {
    white,
    black: labs[sheet.black]!,
    whiteY: xyz[sheet.white * 3 + 1]!,
    blackY: xyz[sheet.black * 3 + 1]!,
    ramp: greys.length > 0 ? rampOf(greys, white) : [],
    toldFrom,
    mesh: { vertices: sheet.corners.map((c) => labs[c]!), triangles: sheet.triangles },
  };
}
