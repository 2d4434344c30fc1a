import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';

/** A measured colour as this screen can show it: sRGB, the screen's white standing for the perfect diffuser. */
export function screenColour(lab: Lab): { css: string; outside: boolean } {
  const rgb = xyzToRgb(SRGB, labToXyz(lab));
  const outside = rgb.some((v) => v < -0.002 || v > 1.002);
  return { css: `rgb(${rgb.map((v) => Math.round(255 * Math.min(1, Math.max(0, v)))).join(' ')})`, outside };
}
