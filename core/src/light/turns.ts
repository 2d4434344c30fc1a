import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import type { Lab, Xyz } from '../colour/types.ts';
import { GLASSES } from './glass.ts';
import { lighting, litLabs, litXyz } from './lit-sheet.ts';
import type { PrintSpectra } from './print-spectra.ts';
import { TABLE_LIGHTS, type ViewingLight } from './table-lights.ts';

/** How far a print turns under one light, for an eye that has got used to it. */
export interface Turn {
  readonly light: ViewingLight;
  /** ΔE00 between the white under D50 and under the light. */
  readonly white: number;
  /** Mean over the greys between L* 15 and 85, each seen against the paper in the same light, under D50 and under the light. */
  readonly greys: number;
}

/** Greys between these L* are weighed: lighter ones are paper, darker ones hide their hue. */
export const isMiddleGrey = ([L]: Lab): boolean => L >= 15 && L <= 85;

/** How the print turns from light to light: colour inconstancy (after CIE 13.3's way of indexing), the reference left out. */
export function turns(sheet: PrintSpectra, lights: readonly ViewingLight[] = TABLE_LIGHTS): Turn[] {
  const seen = (light: ViewingLight) => {
    const under = lighting(light.power, GLASSES[0]!, sheet);
    const flat = litXyz(sheet, under);
    const xyz = (patch: number): Xyz => [flat[patch * 3]!, flat[patch * 3 + 1]!, flat[patch * 3 + 2]!];
    // Media-relative: a flat ink takes its share of whatever the paper gives back, brightener included, and turns with nothing.
    const onPaper = (patch: number): Lab => xyzToLab(xyz(patch), xyz(sheet.white));
    return { labs: litLabs(flat, under), onPaper };
  };
  const [reference, ...others] = lights;
  const first = seen(reference!);
  const middle = sheet.greys.filter(({ patch }) => isMiddleGrey(first.labs[patch]!));
  return others.map((light) => {
    const now = seen(light);
    const sum = middle.reduce((s, { patch }) => s + deltaE2000(first.onPaper(patch), now.onPaper(patch)), 0);
    return {
      light,
      white: deltaE2000(first.labs[sheet.white]!, now.labs[sheet.white]!),
      greys: sum / Math.max(1, middle.length),
    };
  });
}

/** One number for "holds its colour": the mean over the lights of the white's and the greys' turn, ΔE00; less is steadier. */
export function unsteadiness(list: readonly Turn[]): number {
  return list.reduce((sum, t) => sum + (t.white + t.greys) / 2, 0) / Math.max(1, list.length);
}
