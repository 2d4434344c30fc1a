import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import { VIEWING_LIGHTS, type ViewingLight } from '../colour/lights.ts';
import { spectrumToXyz } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';

/** How far the greys of a print turn under one light. */
export interface GreyShift {
  readonly light: ViewingLight;
  /** Mean over the greys, ΔE00 between the grey under D50 and under the light, each relative to the paper under the same light. */
  readonly meanDeltaE: number;
}

/** Shift of greys relative to the paper white under each viewing light but the reference (after CIE 13.3's way of indexing). */
export function greyShifts(white: Spectrum, greys: readonly Spectrum[]): GreyShift[] {
  const [reference, ...others] = VIEWING_LIGHTS;
  const seen = (grey: Spectrum, light: ViewingLight) =>
    xyzToLab(spectrumToXyz(grey, light.power), spectrumToXyz(white, light.power));
  return others.map((light) => ({
    light,
    meanDeltaE:
      greys.reduce((sum, grey) => sum + deltaE2000(seen(grey, reference), seen(grey, light)), 0) /
      Math.max(1, greys.length),
  }));
}
