import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import type { Lab, Xyz } from '../colour/types.ts';
import { GLASSES } from './glass.ts';
import { lighting, litLabs, litXyz, withGlow, type SheetSpectra } from './lit-sheet.ts';
import type { PrintSpectra } from './print-spectra.ts';
import { countedLights } from './own-lamp.ts';
import { TABLE_LIGHTS, type ViewingLight } from './table-lights.ts';

/** How far a print turns under one light, for an eye that has got used to it. */
export interface Turn {
  readonly light: ViewingLight;
  /**
   * ΔE00 between the white under D50 and under the light; absent where the sheet was not read both with and without
   * UV, and nothing could be estimated: what its brightener does there is not known.
   */
  readonly white?: number;
  /** The same at the ends of the interval, where the brightener is estimated. */
  readonly whiteBetween?: readonly [low: number, high: number];
  /**
   * Mean over the greys between L* 15 and 85, each seen against the paper in the same light, under D50 and under the
   * light; absent where there are too few of them.
   */
  readonly greys?: number;
}

/** Fewer greys than these are no mean of a sheet's greys (practice). */
export const FEWEST_GREYS = 3;

/** Greys between these L* are weighed: lighter ones are paper, darker ones hide their hue. */
export const isMiddleGrey = ([L]: Lab): boolean => L >= 15 && L <= 85;

/** How the print turns from light to light: colour inconstancy (after CIE 13.3's way of indexing), the reference left out. */
export function turns(sheet: PrintSpectra, lights: readonly ViewingLight[] = TABLE_LIGHTS): Turn[] {
  const seen = ({ power }: Pick<ViewingLight, 'power'>, spectra: SheetSpectra = sheet) => {
    const under = lighting(power, GLASSES[0]!, sheet);
    const flat = litXyz(spectra, under);
    const xyz = (patch: number): Xyz => [flat[patch * 3]!, flat[patch * 3 + 1]!, flat[patch * 3 + 2]!];
    // Media-relative: a flat ink takes its share of whatever the paper gives back, brightener included, and turns with nothing.
    const onPaper = (patch: number): Lab => xyzToLab(xyz(patch), xyz(sheet.white));
    return { labs: litLabs(flat, under), onPaper };
  };
  const [reference, ...others] = lights;
  const first = seen(reference!);
  const { luminous, estimated } = sheet;
  const glows = estimated ? [withGlow(sheet, estimated.least), withGlow(sheet, estimated.most)] : [sheet];
  const middle = sheet.greys.filter(({ patch }) => isMiddleGrey(first.labs[patch]!));
  return others.map((light) => {
    const now = seen(light);
    const sum = middle.reduce((s, { patch }) => s + deltaE2000(first.onPaper(patch), now.onPaper(patch)), 0);
    const white = deltaE2000(first.labs[sheet.white]!, now.labs[sheet.white]!);
    const powers = luminous && light.uvEnds ? light.uvEnds : [light.power];
    const between =
      glows.length + powers.length > 2
        ? glows.flatMap((glow) =>
            powers.map((power) => {
              const [here, there] = [seen(reference!, glow), seen({ power }, glow)].map(
                ({ labs }) => labs[sheet.white]!,
              );
              return deltaE2000(here!, there!);
            }),
          )
        : undefined;
    return {
      light,
      ...(luminous && { white }),
      ...(between && { whiteBetween: [Math.min(white, ...between), Math.max(white, ...between)] as const }),
      ...(middle.length >= FEWEST_GREYS && { greys: sum / middle.length }),
    };
  });
}

/**
 * One number for "holds its colour": the mean over the lights of the white's and the greys' turn, ΔE00; less is
 * steadier. A lamp that is no white does not count, and one that was imported several times counts once.
 * @returns undefined where either is not known
 */
export function unsteadiness(list: readonly Turn[]): number | undefined {
  const counted = new Set(countedLights(list.map((t) => t.light)));
  const turns = list.filter((t) => counted.has(t.light));
  let sum = 0;
  for (const { white, greys } of turns) {
    if (white === undefined || greys === undefined) return undefined;
    sum += (white + greys) / 2;
  }
  return turns.length === 0 ? undefined : sum / turns.length;
}
