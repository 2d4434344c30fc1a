import type { MeasurementCondition } from '../measurement/reading.ts';
import { lightOf, luminescence } from './brightener.ts';

/** A sheet of paper as physics: what it does with light before any ink is on it. */
export interface SheetModel {
  /** Reflectance of the base far into the red, 0–1. */
  readonly reflectance: number;
  /** How much of it is lost towards the blue, 0 for none: 0.03 natural, 0.15 a warm handmade sheet. */
  readonly warmth: number;
  /** Brightener, 0 none to about 0.6 high; see {@link luminescence}. */
  readonly brightener: number;
  /** Share of the light that leaves the surface into the 45°:0° instrument: 0.001 gloss, 0.01 matt. It greys the black. */
  readonly surfaceReflection: number;
  /** Yule–Nielsen n: optical dot gain, 1.6 on gloss to 2.4 on open fibre. */
  readonly yuleNielsen: number;
  /** How much of the ink's density the coating keeps at the top: 1 on a good baryta, 0.4 on bare fibre. */
  readonly inkHold: number;
  /** How late colour has to give way as black comes in: 10 on a coating that takes much ink, 3 on bare fibre. */
  readonly inkLimit: number;
  /** Metallic flake, 0 none to 1: mirrors that throw light past the instrument, dull the white and glint from reading to reading. */
  readonly flake: number;
  /** Roughness of the surface on the scale of light, nm r.m.s.: 40 gloss, 100 lustre, 650 matt. The gloss meter sees it. */
  readonly roughnessNm: number;
  /** Relief that a hand feels and a raking lamp shows. */
  readonly relief: { readonly wavelengthMm: number; readonly heightUm: number };
  /** What a scale and a micrometer find. */
  readonly weightGsm: number;
  readonly thicknessUm: number;
  /** Luminous reflectance over black ÷ over a stack of itself, percent. */
  readonly opacity: number;
}

/** Wavelengths of the simulated bench, nm. */
export const BENCH_GRID = { startNm: 380, stepNm: 10, count: 36 } as const;

/** Share of the body's light that a full flake sends elsewhere than to a 45°:0° instrument (our own model). */
const FLAKE_LOSS = 0.16;

/** Diffuse reflectance of the bare base at a wavelength, without luminescence. */
export function baseReflectance(sheet: SheetModel, nm: number): number {
  const blue = 1 / (1 + Math.exp((nm - 455) / 38));
  const violet = 1 / (1 + Math.exp((nm - 398) / 7));
  return sheet.reflectance * (1 - FLAKE_LOSS * sheet.flake) * (1 - sheet.warmth * blue) * (1 - 0.22 * violet);
}

/** Body of the sheet on the bench grid: what it reflects, and what its brightener adds in a measurement condition. */
export function sheetBody(
  sheet: SheetModel,
  condition: MeasurementCondition,
): { reflected: number[]; emitted: number[] } {
  const light = lightOf(condition);
  const nms = Array.from({ length: BENCH_GRID.count }, (_, i) => BENCH_GRID.startNm + i * BENCH_GRID.stepNm);
  return {
    reflected: nms.map((nm) => baseReflectance(sheet, nm)),
    emitted: nms.map((nm) => luminescence(sheet.brightener, light, nm)),
  };
}
