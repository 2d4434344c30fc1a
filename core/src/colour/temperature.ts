import { CIE_START_NM, CIE_STEP_NM } from './cie-tables.ts';
import { spectrumToXyz } from './spectrum.ts';
import type { Spectrum, Xyz } from './types.ts';

/** Second radiation constant, m·K (ITS-90). */
const C2 = 1.4388e-2;
const COUNT = 50;
const KELVIN = { low: 1500, high: 25_000 } as const;

/** Relative power of a blackbody (Planck), 1 at 560 nm. @param kelvin absolute temperature */
export function blackbody(kelvin: number): Spectrum {
  const at = (nm: number) => nm ** -5 / Math.expm1((C2 * 1e9) / (nm * kelvin));
  const reference = at(560);
  return {
    startNm: CIE_START_NM,
    stepNm: CIE_STEP_NM,
    values: Array.from({ length: COUNT }, (_, i) => at(CIE_START_NM + i * CIE_STEP_NM) / reference),
  };
}

/** Chromaticity x, y of CIE daylight (CIE 15). @param kelvin 4000–25 000 @throws RangeError outside */
export function daylightXy(kelvin: number): readonly [x: number, y: number] {
  if (!(kelvin >= 4000 && kelvin <= 25_000)) throw new RangeError('daylight is defined from 4000 K to 25 000 K');
  const [a, b, c, d] = kelvin <= 7000 ? [-4.607e9, 2.9678e6, 99.11, 0.244063] : [-2.0064e9, 1.9018e6, 247.48, 0.23704];
  const x = a / kelvin ** 3 + b / kelvin ** 2 + c / kelvin + d;
  return [x, -3 * x * x + 2.87 * x - 0.275];
}

/** CIE 1960 u, v, in which colour temperatures are correlated. */
const uv = ([X, Y, Z]: Xyz): readonly [number, number] => [
  (4 * X) / (X + 15 * Y + 3 * Z),
  (6 * Y) / (X + 15 * Y + 3 * Z),
];
const WHITE: Spectrum = { startNm: 360, stepNm: 10, values: [1, 1] };
const locus = (kelvin: number) => uv(spectrumToXyz(WHITE, blackbody(kelvin)));

/** Colour of a light itself: XYZ of the perfect diffuser in it. */
export const lightXyz = (light: Spectrum): Xyz => spectrumToXyz(WHITE, light);

/**
 * Correlated colour temperature of a white, kelvin, and its distance from the blackbody's line in u, v (green above, pink below).
 * @returns undefined further than 0.05 from the line, where the word means nothing (CIE 15)
 */
export function colourTemperature(white: Xyz): { kelvin: number; duv: number } | undefined {
  const [u, v] = uv(white);
  const away = (mired: number) => {
    const [p, q] = locus(1e6 / mired);
    return Math.hypot(u - p, v - q);
  };
  // In mired the distance has one valley: thirds of the range are cut off until it is found.
  let [low, high] = [1e6 / KELVIN.high, 1e6 / KELVIN.low];
  while (high - low > 0.02) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (away(a) < away(b)) high = b;
    else low = a;
  }
  const kelvin = 2e6 / (low + high);
  const [, q] = locus(kelvin);
  const distance = away((low + high) / 2);
  return distance > 0.05 ? undefined : { kelvin, duv: v >= q ? distance : -distance };
}
