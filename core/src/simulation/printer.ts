import { spectrumToXyz } from '../colour/spectrum.ts';
import type { Rgb } from '../colour/types.ts';
import type { MeasurementCondition } from '../measurement/reading.ts';
import { inkDensity, type InkSetModel } from './inks.ts';
import { BENCH_GRID, sheetBody, type SheetModel } from './sheet.ts';

/** A sheet in a printer: the things a print condition fixes. */
export interface PressModel {
  readonly sheet: SheetModel;
  readonly inks: InkSetModel;
  readonly blackInk: 'photo' | 'matt';
  /** Ink laid down by the media setting; 1 is right for the sheet, below 1 under-inks. */
  readonly inkLoad: number;
}

/** Reflectance factors on the bench grid of a device RGB, for one measurement condition. */
export type Print = (rgb: Rgb) => number[];

/**
 * Prints by a Yule–Nielsen-modified Neugebauer model: the sixteen overprints of cyan, magenta, yellow and black are computed from
 * ink densities on the sheet, weighted by coverage (Demichel 1924), mixed in the power 1/n (Yule & Nielsen 1951), and the light of
 * the surface is added on top. The driver is linearised: equal steps of grey are equal steps of L* between paper and black.
 */
export function press(model: PressModel, condition: MeasurementCondition): Print {
  const { sheet } = model;
  const body = sheetBody(sheet, condition);
  const hold = sheet.inkHold * model.inkLoad;
  const blackInk = model.blackInk === 'photo' ? model.inks.photoBlack : model.inks.mattBlack;
  const densities = [model.inks.cyan, model.inks.magenta, model.inks.yellow, blackInk].map((ink) => inkDensity(ink).map((d) => d * hold));
  const n = sheet.yuleNielsen;
  const count = BENCH_GRID.count;

  /** Overprints in the power 1/n, numbered by bits: cyan 1, magenta 2, yellow 4, black 8. */
  const overprints = Array.from({ length: 16 }, (_, bits) =>
    Float64Array.from({ length: count }, (_, i) => {
      const density = densities.reduce((sum, d, ink) => sum + (bits & (1 << ink) ? d[i] : 0), 0);
      const through = 10 ** -density;
      // Brightener under ink: its light passes the ink once, and the UV that wakes it passes the ink too.
      const uvThrough = 10 ** (-0.5 * densities.reduce((sum, d, ink) => sum + (bits & (1 << ink) ? d[0] : 0), 0));
      return (body.reflected[i] * through + body.emitted[i] * Math.sqrt(through) * uvThrough) ** (1 / n);
    }),
  );

  const halftone = (coverage: readonly number[]): number[] => {
    const out = new Float64Array(count);
    for (let bits = 0; bits < 16; bits++) {
      let weight = 1;
      for (let ink = 0; ink < 4; ink++) weight *= bits & (1 << ink) ? coverage[ink] : 1 - coverage[ink];
      if (weight === 0) continue;
      for (let i = 0; i < count; i++) out[i] += weight * overprints[bits][i];
    }
    const s = sheet.surfaceReflection;
    return Array.from(out, (v) => s + (1 - s) * v ** n);
  };

  const lightness = (coverage: readonly number[]) => {
    const Y = spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values: halftone(coverage) })[1] / 100;
    return Y > 216 / 24389 ? 116 * Math.cbrt(Y) - 16 : (Y * 24389) / 27;
  };
  const blackCoverage = linearise((k) => lightness([0, 0, 0, k]));
  const inkCoverage = linearise((c) => (lightness([c, 0, 0, 0]) + lightness([0, c, 0, 0])) / 2);

  return (rgb) => {
    const amounts = rgb.map((v) => 1 - Math.min(1, Math.max(0, v)));
    const k = Math.min(...amounts);
    // Full replacement: what the three colours have in common is printed in black alone.
    const black = blackCoverage(k);
    // Ink limit: the nearer black is to full coverage, the less colour the sheet takes on top of it.
    const room = 1 - black ** sheet.inkLimit;
    const [c, m, y] = amounts.map((a) => (k >= 1 ? 0 : room * inkCoverage((a - k) / (1 - k))));
    return halftone([c, m, y, black]);
  };
}

/** Coverage for a wanted share of the way from the lightest to the darkest, so that equal shares are equal steps of L*. */
function linearise(lightness: (coverage: number) => number): (share: number) => number {
  const STEPS = 64;
  const table = Array.from({ length: STEPS + 1 }, (_, i) => lightness(i / STEPS));
  const [light, dark] = [table[0], table[STEPS]];
  return (share) => {
    if (share <= 0) return 0;
    if (share >= 1) return 1;
    const target = light + (dark - light) * share;
    let i = 0;
    while (i < STEPS - 1 && table[i + 1] > target) i++;
    const t = (table[i] - target) / (table[i] - table[i + 1] || 1);
    return (i + Math.min(1, Math.max(0, t))) / STEPS;
  };
}
