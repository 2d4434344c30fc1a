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

/** What is left between screen and print, ΔE00. */
export interface Residual {
  readonly white: number;
  readonly greys: number;
  readonly colours: number;
}

/** Ways to set the monitor, and what each leaves. */
export interface ScreenMatch {
  /** The monitor as it is. */
  readonly asItIs: Residual;
  /** Set to the paper's white in this light: white agrees by making, the rest is what brightener under ink lacks. */
  readonly toPaperWhite: Residual;
  /** Set to the paper as it would be without its brightener. */
  readonly toDull: Residual;
  /** Where each setting puts the monitor's white, x and y. */
  readonly paperWhiteXy: readonly [number, number];
  readonly dullXy: readonly [number, number];
}

/**
 * Screen beside print in one light. The screen shows what the print would be were its paper no brighter in the blue than its inked parts: greys of the monitor's own white,
 * colours as the sheet reflects them. What brightener adds to the bare paper and not to the inks is what no setting can match in both.
 */
export function screenMatch(sheet: PrintSpectra, under: Lighting, monitor: MonitorWhite): ScreenMatch {
  const print = triples(litXyz(sheet, under));
  const { luminous: _, ...unlit } = sheet;
  const dull = triples(litXyz(unlit, under));
  const paper = print[sheet.white];
  const monitorXyz: Xyz = [
    ((100 * monitor.x) / monitor.y) * monitor.relativeLuminance,
    100 * monitor.relativeLuminance,
    ((100 * (1 - monitor.x - monitor.y)) / monitor.y) * monitor.relativeLuminance,
  ];
  const dullPaper = dull[sheet.white];
  // As light as the paper is, and not as blue.
  const dullWhite = dullPaper.map((v) => (v * paper[1]) / dullPaper[1]) as unknown as Xyz;
  const residual = (white: Xyz): Residual => {
    // Both are seen by one eye, used to the paper.
    const lab = (xyz: Xyz): Lab => xyzToLab(xyz, paper);
    const onScreen = (patch: number): Xyz => dull[patch].map((v, c) => (v / dullPaper[c]) * white[c]) as unknown as Xyz;
    const mean = (patches: readonly number[]) =>
      patches.reduce((sum, p) => sum + deltaE2000(lab(print[p]), lab(onScreen(p))), 0) / Math.max(1, patches.length);
    return {
      white: deltaE2000(lab(paper), lab(white)),
      greys: mean(sheet.greys.map((g) => g.patch).filter((p) => p !== sheet.white)),
      colours: mean([...new Set(sheet.corners)].filter((p) => p !== sheet.white)),
    };
  };
  return {
    asItIs: residual(monitorXyz),
    toPaperWhite: residual(paper),
    toDull: residual(dullWhite),
    paperWhiteXy: xy(paper),
    dullXy: xy(dullWhite),
  };
}

const xy = ([X, Y, Z]: Xyz): [number, number] => [X / (X + Y + Z), Y / (X + Y + Z)];
const triples = (flat: Float64Array): Xyz[] =>
  Array.from({ length: flat.length / 3 }, (_, p): Xyz => [flat[p * 3], flat[p * 3 + 1], flat[p * 3 + 2]]);
