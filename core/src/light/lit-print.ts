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
 * @param toldFrom ΔE00 from which two greys are told apart, edge to edge
 */
export function litPrint(
  sheet: PrintSpectra,
  base: Readonly<Record<string, Figure>>,
  under: Lighting,
  toldFrom: number = DEFAULT_THRESHOLDS.deltaE.edgeToEdge,
): LitPrint {
  const facts = litFacts(sheet, under, toldFrom);
  const ends = sheet.estimated && {
    least: litFacts({ ...sheet, ...withGlow(sheet, sheet.estimated.least) }, under, toldFrom),
    most: litFacts({ ...sheet, ...withGlow(sheet, sheet.estimated.most) }, under, toldFrom),
  };
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
      ...(between && { between: between.ends }),
    };
  }
  return { figures, ramp: facts.ramp, mesh: facts.mesh };
}

/** A figure at both ends of an estimate; undefined where the last digit that is shown is the same at both. */
function betweenOf(
  measure: PatchMeasure,
  { least, most }: { least: LitFacts; most: LitFacts },
): { ends: [number, number]; sd: number } | undefined {
  const [p, q] = [measure.underLight?.(least), measure.underLight?.(most)];
  if (!p || !q) return undefined;
  const [v, w] =
    'lab' in p && 'lab' in q ? [p.lab[2], q.lab[2]] : 'value' in p && 'value' in q ? [p.value, q.value] : [];
  if (v === undefined || w === undefined || Math.abs(v - w) < 10 ** -measure.digits) return undefined;
  const ends: [number, number] = [Math.min(v, w), Math.max(v, w)];
  const away = 'lab' in p && 'lab' in q ? Math.hypot(...p.lab.map((x, i) => x - q.lab[i]!)) : w - v;
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
