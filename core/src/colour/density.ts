/**
 * Visual density, absolute: D = −log10(Y/100) (ISO 5-3).
 * @param Y luminous reflectance factor in percent, above 0
 */
export function visualDensity(Y: number): number {
  return -Math.log10(Math.max(Y, 1e-6) / 100);
}
