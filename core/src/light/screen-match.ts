import { mapThree, three } from '../colour/three.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import type { Lab, Xyz } from '../colour/types.ts';
import { litXyz, type Lighting } from './lit-sheet.ts';
import type { PrintSpectra } from './print-spectra.ts';

/** A monitor's white: chromaticity and luminance relative to the light on the print (1 = as light as the perfect diffuser in it). */
export interface MonitorWhite {
  readonly x: number;
  readonly y: number;
  readonly relativeLuminance: number;
}

/** Whites a monitor is often set to (CIE 15, 2°). */
export const MONITOR_WHITES = { D50: { x: 0.34567, y: 0.3585 }, D65: { x: 0.31272, y: 0.32903 } } as const;

/**
 * What is left between screen and print, ΔE00; greys and colours are absent where the sheet was read without any, or not
 * both with and without UV.
 */
export interface Residual {
  readonly white: number;
  readonly greys?: number;
  readonly colours?: number;
}

/** Ways to set the monitor, and what each leaves. */
export interface ScreenMatch {
  /** The monitor as it is. */
  readonly asItIs: Residual;
  /** Set to the paper's white in this light: white agrees by making, the rest is what brightener under ink lacks. */
  readonly toPaperWhite: Residual;
  /** Set to what suits the colours best, whatever becomes of the white; absent where there are none. */
  readonly toInks?: Residual & { readonly xy: readonly [number, number] };
  /**
   * ΔE00 by which brightener lifts the bare paper, and by which it lifts the colours, on the mean. Absent where the
   * sheet was not read both with and without UV: nothing is then known but its white under D50.
   */
  readonly lift?: { readonly white: number; readonly colours?: number };
  /** What brightener does is estimated from one spectrum and was not read. */
  readonly estimated: boolean;
  /** Where the setting to the paper's white puts the monitor's, x and y. */
  readonly paperWhiteXy: readonly [number, number];
}

/**
 * Screen beside print in one light. The screen shows what the print would be were its paper no brighter in the blue
 * than its inked parts: greys of the monitor's own white, colours as the sheet reflects them. What brightener adds to
 * the bare paper and not to the inks is what no setting can match in both.
 */
export function screenMatch(sheet: PrintSpectra, under: Lighting, monitor: MonitorWhite): ScreenMatch {
  const print = triples(litXyz(sheet, under));
  const { luminous: _, ...unlit } = sheet;
  const dull = triples(litXyz(unlit, under));
  const paper = print[sheet.white]!;
  const monitorXyz: Xyz = [
    ((100 * monitor.x) / monitor.y) * monitor.relativeLuminance,
    100 * monitor.relativeLuminance,
    ((100 * (1 - monitor.x - monitor.y)) / monitor.y) * monitor.relativeLuminance,
  ];
  const dullPaper = dull[sheet.white]!;
  // As light as the paper is, and not as blue.
  const dullWhite = mapThree(dullPaper, (v) => (v * paper[1]) / dullPaper[1]);
  // Both are seen by one eye, used to the paper.
  const lab = (xyz: Xyz): Lab => xyzToLab(xyz, paper);
  const printed = print.map(lab);
  const colourPatches = [...new Set(sheet.corners)].filter((p) => p !== sheet.white);
  const greyPatches = sheet.greys.map((g) => g.patch).filter((p) => p !== sheet.white);
  const mean = (patches: readonly number[], of: (patch: number) => number) =>
    patches.reduce((sum, p) => sum + of(p), 0) / patches.length;
  const meanOf = (patches: readonly number[], of: (patch: number) => number) =>
    patches.length === 0 || !sheet.luminous ? undefined : mean(patches, of);
  const left = (white: Xyz) => (patch: number) =>
    deltaE2000(printed[patch]!, lab(three((c) => (dull[patch]![c]! / dullPaper[c]!) * white[c]!)));
  const residual = (white: Xyz): Residual => ({
    white: deltaE2000(printed[sheet.white]!, lab(white)),
    greys: meanOf(greyPatches, left(white)),
    colours: meanOf(colourPatches, left(white)),
  });
  const apart = (patch: number) => deltaE2000(printed[patch]!, lab(dull[patch]!));
  const inksWhite =
    colourPatches.length === 0 || !sheet.luminous
      ? undefined
      : least([paper, dullWhite], (white) => mean(colourPatches, left(white)));
  return {
    asItIs: residual(monitorXyz),
    toPaperWhite: residual(paper),
    toInks: inksWhite && { ...residual(inksWhite), xy: xy(inksWhite) },
    estimated: sheet.estimated !== undefined,
    lift: sheet.luminous && { white: apart(sheet.white), colours: meanOf(colourPatches, apart) },
    paperWhiteXy: xy(paper),
  };
}

/** Steps of the search, as shares of each value; each is halved when nothing nearer is found. */
const STEPS = { first: 0.05, last: 0.0005 };

/** The white that leaves least, looked for about the best of those to begin with, one value at a time. */
function least(starts: readonly Xyz[], of: (white: Xyz) => number): Xyz {
  let best = starts.reduce((p, q) => (of(q) < of(p) ? q : p));
  let value = of(best);
  for (let step = STEPS.first; step > STEPS.last;) {
    const next = [0, 1, 2]
      .flatMap((c) => [1 + step, 1 - step].map((by) => mapThree(best, (v, i) => (i === c ? v * by : v))))
      .map((white) => ({ white, value: of(white) }))
      .reduce((p, q) => (q.value < p.value ? q : p));
    if (next.value < value) ({ white: best, value } = next);
    else step /= 2;
  }
  return best;
}

const xy = ([X, Y, Z]: Xyz): [number, number] => [X / (X + Y + Z), Y / (X + Y + Z)];
const triples = (flat: Float64Array): Xyz[] =>
  Array.from({ length: flat.length / 3 }, (_, p): Xyz => [flat[p * 3]!, flat[p * 3 + 1]!, flat[p * 3 + 2]!]);
