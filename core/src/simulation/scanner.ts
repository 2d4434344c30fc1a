import type { TextureScan } from '../measurement/texture.ts';
import { seededNormal, seededRandom } from '../random.ts';
import type { SheetModel } from './sheet.ts';

/** Height of the raking lamp over the sheet, degrees. */
const LAMP_DEG = 15;
const WAVES = 48;
const MM_PER_INCH = 25.4;
const SENSOR_NOISE_L = 0.12;

/**
 * A bare sheet under a raking lamp: relief as many random waves near one wavelength, lit from the left at 15°. A slope of one degree
 * towards the lamp lightens by its share of the lamp's height.
 * @param sizeMm side of the square that is scanned
 * @returns L* by pixel
 */
export function scanTexture(sheet: SheetModel, ppi: number, sizeMm: number, seed: number): TextureScan {
  const uniform = seededRandom(seed);
  const normal = seededNormal(seed + 1);
  const size = Math.round((sizeMm / MM_PER_INCH) * ppi);
  const waves = Array.from({ length: WAVES }, () => {
    const wavelength = sheet.relief.wavelengthMm * Math.exp(0.22 * normal());
    const direction = 2 * Math.PI * uniform();
    return {
      kx: (2 * Math.PI * Math.cos(direction)) / wavelength,
      ky: (2 * Math.PI * Math.sin(direction)) / wavelength,
      phase: 2 * Math.PI * uniform(),
    };
  });
  // Every wave has the same height; together they have the relief's standard deviation.
  const heightMm = (sheet.relief.heightUm / 1000) * Math.sqrt(2 / WAVES);
  const base = 116 * Math.cbrt(sheet.reflectance * 0.6) - 16;
  const perSlope = base / 3 / Math.tan((LAMP_DEG * Math.PI) / 180);
  const L = new Float32Array(size * size);
  const mm = MM_PER_INCH / ppi;
  const slope = new Float64Array(size);
  for (let y = 0; y < size; y++) {
    slope.fill(0);
    for (const w of waves) {
      // Along a row a wave is a pointer turning by the same angle from pixel to pixel: two products instead of a cosine.
      const height = heightMm * w.kx;
      const [turnCos, turnSin] = [Math.cos(w.kx * mm), Math.sin(w.kx * mm)];
      let [cos, sin] = [Math.cos(w.ky * y * mm + w.phase), Math.sin(w.ky * y * mm + w.phase)];
      for (let x = 0; x < size; x++) {
        slope[x]! += height * cos;
        [cos, sin] = [cos * turnCos - sin * turnSin, sin * turnCos + cos * turnSin];
      }
    }
    for (let x = 0; x < size; x++)
      L[y * size + x] = Math.min(100, Math.max(0, base + perSlope * slope[x]! + SENSOR_NOISE_L * normal()));
  }
  return { widthPx: size, heightPx: size, ppi, lightness: L };
}
