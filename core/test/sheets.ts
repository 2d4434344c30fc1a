import { halton } from '../src/halton.ts';
import type { Rgb } from '../src/colour/types.ts';
import { xyzToLab } from '../src/colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../src/colour/spectrum.ts';
import type { Lab } from '../src/colour/types.ts';
import type { MeasurementCondition } from '../src/measurement/reading.ts';
import { press, type PressModel } from '../src/simulation/printer.ts';
import { BENCH_GRID } from '../src/simulation/sheet.ts';
import type { ChartPatch } from '../src/simulation/chart.ts';
import { standIn } from '../src/simulation/stand-in.ts';

const made = (
  coating: 'baryta' | 'cotton' | 'uncoated',
  blackInk: 'photo black' | 'matt black',
  mediaSetting: string,
): PressModel =>
  standIn({
    coating,
    surface: 'smooth',
    brightenerClaim: 'moderate',
    weightGsm: 300,
    thicknessUm: 400,
    blackInk,
    mediaSetting,
    printMode: 'colour through a profile',
    blackOvercoat: false,
  });

/** Three unlike sheets in the simulated printer, all of them brightened. */
export const SHEETS = {
  baryta: made('baryta', 'photo black', 'Fibre gloss'),
  cotton: made('cotton', 'matt black', 'Fine art matt'),
  uncoated: made('uncoated', 'matt black', 'Thin'),
} as const;

/** What the printer really prints of a device value, without an instrument's noise. */
export function truth(sheet: PressModel, condition: MeasurementCondition = 'M1'): (rgb: Rgb) => Lab {
  const print = press(sheet, condition);
  const white = illuminantWhite();
  return (rgb) =>
    xyzToLab(spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values: print(rgb) }), white);
}

/**
 * A chart as an independent hand would lay it out: a coarse net, greys, repeated whites and blacks, and scattered
 * colours (Halton 1960).
 */
export function scatteredChart(count: number): ChartPatch[] {
  const levels = count > 600 ? 5 : count > 200 ? 4 : 2;
  const net = Array.from({ length: levels }, (_, i) => i / (levels - 1));
  const greys = count > 200 ? 32 : 8;
  const patches: Rgb[] = net.flatMap((r) => net.flatMap((g) => net.map((b): Rgb => [r, g, b])));
  for (let i = 1; i < greys; i++) patches.push([i / greys, i / greys, i / greys]);
  for (let i = 0; i < (count > 200 ? 6 : 1); i++) patches.push([1, 1, 1], [0, 0, 0]);
  for (let k = 1; patches.length < count; k++) patches.push([halton(k, 2), halton(k, 3), halton(k, 5)]);
  return patches.slice(0, count).map((rgb, i) => ({ id: `P${i + 1}`, rgb }));
}
