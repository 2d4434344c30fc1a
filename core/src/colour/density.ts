/**
 * Visual density, absolute: D = −log10(Y/100) (ISO 5-3).
 * @param Y luminous reflectance factor in percent, above 0
 */
export function visualDensity(Y: number): number {
  return -Math.log10(Math.max(Y, 1e-6) / 100);
}

/** Luminous reflectance factor Y (0–100) of a visual density. */
export function densityToY(density: number): number {
  return 100 * 10 ** -density;
}
