import { ILLUMINANTS } from '../colour/illuminant.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';

/**
 * CIE whiteness W10 and tint T10, D65 and 10° (CIE 15, (memory)): W = Y + 800(xn − x) + 1700(yn − y), T = 900(xn − x) − 650(yn − y).
 * The formula holds for 40 < W < 5Y − 280 and −4 < T < 2; `valid` says whether it does.
 */
export function cieWhiteness(spectrum: Spectrum): { whiteness: number; tint: number; valid: boolean } {
  const [X, Y, Z] = spectrumToXyz(spectrum, ILLUMINANTS.D65, '10');
  const [Xn, Yn, Zn] = illuminantWhite(ILLUMINANTS.D65, '10');
  const dx = Xn / (Xn + Yn + Zn) - X / (X + Y + Z);
  const dy = Yn / (Xn + Yn + Zn) - Y / (X + Y + Z);
  const whiteness = Y + 800 * dx + 1700 * dy;
  const tint = 900 * dx - 650 * dy;
  return { whiteness, tint, valid: whiteness > 40 && whiteness < 5 * Y - 280 && tint > -4 && tint < 2 };
}
