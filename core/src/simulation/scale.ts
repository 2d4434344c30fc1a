import { seededNormal } from '../random.ts';
import type { SheetModel } from './sheet.ts';

/** A scale that reads to a hundredth of a gram and a micrometer that reads to a micrometre (our own choice of instruments). */
const SCALE = { resolutionG: 0.01, sdG: 0.008 };
const MICROMETER = { resolutionUm: 1, sdUm: 1.5 };
/** How sheets of one pack differ in weight (our own model). */
const SHEET_TO_SHEET = 0.006;

const rounded = (value: number, to: number) => Math.round(value / to) * to;

/** Weighs sheets one by one. @returns grams */
export function weigh(sheet: SheetModel, widthMm: number, heightMm: number, times: number, seed: number): number[] {
  const normal = seededNormal(seed);
  const grams = (sheet.weightGsm * widthMm * heightMm) / 1e6;
  return Array.from({ length: times }, () =>
    rounded(grams * (1 + SHEET_TO_SHEET * normal()) + SCALE.sdG * normal(), SCALE.resolutionG),
  );
}

/** Thickness of a stack, measured in several places. @returns µm of the whole stack */
export function measureStack(sheet: SheetModel, sheets: number, times: number, seed: number): number[] {
  const normal = seededNormal(seed);
  return Array.from({ length: times }, () =>
    rounded(sheet.thicknessUm * sheets + MICROMETER.sdUm * Math.sqrt(sheets) * normal(), MICROMETER.resolutionUm),
  );
}

/** Luminous reflectance over black and over a stack of itself, percent of the perfect diffuser. */
export function readBacking(
  sheet: SheetModel,
  times: number,
  seed: number,
): { overBlack: number[]; overStack: number[] } {
  const normal = seededNormal(seed);
  const stack = 100 * sheet.reflectance;
  const reading = (Y: number) => Array.from({ length: times }, () => Y * (1 + 0.0012 * normal()));
  return { overBlack: reading((stack * sheet.opacity) / 100), overStack: reading(stack) };
}
