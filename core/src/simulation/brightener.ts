import { CIE_START_NM, CIE_STEP_NM } from '../colour/cie-tables.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { excitation } from '../light/excitation.ts';
import { spectrumAt } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';
import type { MeasurementCondition } from '../measurement/reading.ts';

/** Brightener emits in the blue, steeply rising and with a long tail. */
const emission = (nm: number) => (nm < 437 ? Math.exp(-(((nm - 437) / 14) ** 2)) : Math.exp(-(((nm - 437) / 34) ** 2)));

/** Light that falls on the sheet in a measurement condition (ISO 13655). M2 is D50 with everything below 420 nm taken out. */
export function lightOf(condition: MeasurementCondition): Spectrum {
  if (condition === 'M0') return ILLUMINANTS.A;
  if (condition === 'M1') return ILLUMINANTS.D50;
  return {
    ...ILLUMINANTS.D50,
    values: ILLUMINANTS.D50.values.map((s, i) => (CIE_START_NM + i * CIE_STEP_NM < 420 ? 0 : s)),
  };
}

/**
 * Luminescent part of the total radiance factor of a brightened sheet under a light: the light it takes from the UV, given back
 * at λ, relative to the light that falls at λ. One description (excitation × emission) serves every light.
 *
 * @param strength share of the exciting light given back at the emission peak, 0 for none, about 0.6 for a strongly brightened sheet
 */
export function luminescence(strength: number, light: Spectrum, nm: number): number {
  const here = spectrumAt(light, nm);
  if (strength === 0 || here <= 0) return 0;
  let taken = 0;
  for (let uv = 340; uv <= 410; uv += 10) taken += spectrumAt(light, uv) * excitation(uv);
  return (strength * emission(nm) * taken) / 5 / here;
}
