import { seededNormal } from '../random.ts';
import type { PressModel } from './printer.ts';

export const GLOSS_ANGLES = [20, 60, 85] as const;
/** Angle of incidence, degrees (ISO 2813). */
export type GlossAngle = (typeof GLOSS_ANGLES)[number];

/** Black glass of the standard: refractive index 1.567 is 100 gloss units at every angle (ISO 2813). */
const STANDARD_INDEX = 1.567;
const COATING_INDEX = 1.5;
const WAVELENGTH_NM = 550;
/** What of a white sheet's diffuse light falls into the meter, gloss units at 60° (our own model). */
const DIFFUSE = 2;
/** How a meter repeats: a share of the reading and a floor, gloss units (our own model). */
const NOISE = { share: 0.008, floor: 0.05 };

/** Reflectance of unpolarised light at a dielectric surface (Fresnel). */
export function fresnel(angleDeg: number, index: number): number {
  const cos = Math.cos((angleDeg * Math.PI) / 180);
  const within = Math.sqrt(1 - (Math.sin((angleDeg * Math.PI) / 180) / index) ** 2);
  const s = ((cos - index * within) / (cos + index * within)) ** 2;
  const p = ((index * cos - within) / (index * cos + within)) ** 2;
  return (s + p) / 2;
}

/**
 * Gloss units of a surface: Fresnel against the standard's black glass, less what roughness scatters (Bennett & Porteus 1961:
 * exp −(4πσ cos θ / λ)²), and a little diffuse light.
 * @param roughnessNm r.m.s., nm
 * @param whiteness 0–1, how much diffuse light the sheet gives back
 */
export function glossUnits(angleDeg: GlossAngle, roughnessNm: number, index: number, whiteness: number): number {
  const cos = Math.cos((angleDeg * Math.PI) / 180);
  const mirrored = Math.exp(-(((4 * Math.PI * roughnessNm * cos) / WAVELENGTH_NM) ** 2));
  return (
    (100 * fresnel(angleDeg, index) * mirrored) / fresnel(angleDeg, STANDARD_INDEX) + DIFFUSE * whiteness * cos * 2
  );
}

/** Reads the bare sheet and its full black, `times` times each. @returns gloss units by angle */
export function readGloss(
  model: PressModel,
  times: number,
  seed: number,
): { angle: GlossAngle; white: number[]; black: number[] }[] {
  const normal = seededNormal(seed);
  const { sheet, inks } = model;
  const reading = (gloss: number) =>
    Array.from({ length: times }, () => Math.max(0, gloss * (1 + NOISE.share * normal()) + NOISE.floor * normal()));
  return GLOSS_ANGLES.map((angle) => ({
    angle,
    white: reading(glossUnits(angle, sheet.roughnessNm, COATING_INDEX, sheet.reflectance)),
    black: reading(glossUnits(angle, sheet.roughnessNm * inks.film.roughness, inks.film.index, 0.02)),
  }));
}
