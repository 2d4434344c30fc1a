import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { MeasurementCondition, Reading } from '../measurement/reading.ts';
import { seededNormal } from '../random.ts';
import type { ChartPatch } from './chart.ts';
import { press, type PressModel } from './printer.ts';
import { BENCH_GRID } from './sheet.ts';

/** How a hand-held spectrophotometer repeats on one patch: a share of the reading and a floor (our own model). */
const NOISE = { share: 0.0008, floor: 0.00006, perBand: 0.0003 };

/** Reads a printed chart: spectra 380–730 nm at 10 nm with repeatability noise; the same seed gives the same readings. */
export function readChart(model: PressModel, chart: readonly ChartPatch[], condition: MeasurementCondition, seed: number): Reading {
  const print = press(model, condition);
  const normal = seededNormal(seed);
  const white = illuminantWhite();
  const patches = chart.map(({ id, rgb }) => {
    const lift = 1 + NOISE.share * normal();
    const floor = NOISE.floor * normal();
    const reflectance = print(rgb).map((r) => Math.max(0, r * lift * (1 + NOISE.perBand * normal()) + floor));
    const xyz = spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values: reflectance });
    return { id, device: rgb, reflectance, xyz, lab: xyzToLab(xyz, white) };
  });
  return { patches, deviceSpace: 'RGB', spectralGrid: BENCH_GRID, colourFrom: 'spectrum', condition, backing: 'white' };
}
