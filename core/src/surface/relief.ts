import FFT from 'fft.js';

/** Heights of a square of a sheet, guessed from a scan. */
export interface Relief {
  readonly size: number;
  /** Row by row, in units of the slopes times pixels. */
  readonly heights: Float32Array;
}

/** Waves longer than this are a lamp’s fall-off or a sheet that does not lie flat, and no tooth, mm. */
const HILL_MM = 4;
/**
 * Waves that run along the lamp’s light say how high they are, waves across it do not: below this share of their
 * steepness they are left out, or the noise of each row would pile up into streaks.
 */
const ACROSS = 0.02;
const MM_PER_INCH = 25.4;

/**
 * Height from shading: the scan’s lamp stands at the left, so light less its mean is the slope along a row. Height is
 * what has that slope, found wave by wave (least squares, damped where the lamp tells nothing).
 * @param light of each pixel of the square, row by row, on any scale
 */
export function reliefOf(light: ArrayLike<number>, size: number, ppi: number): Relief {
  const n = 2 ** Math.ceil(Math.log2(size));
  let mean = 0;
  for (let i = 0; i < size * size; i++) mean += light[i]! / (size * size);
  const field = new Float64Array(n * n * 2);
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) field[(y * n + x) * 2] = light[y * size + x]! - mean;
  const waves = transformed(field, n);
  const slowest = MM_PER_INCH / ppi / HILL_MM;
  for (let v = 0; v < n; v++)
    for (let u = 0; u < n; u++) {
      const [kx, ky] = [(u > n / 2 ? u - n : u) / n, (v > n / 2 ? v - n : v) / n];
      const all = kx * kx + ky * ky;
      // 1 / (i·2π·kx), damped, without what is slower than the tooth.
      const by = all === 0 ? 0 : (kx / (kx * kx + ACROSS * all) / (2 * Math.PI)) * (all / (all + slowest * slowest));
      const at = (v * n + u) * 2;
      const [real, imaginary] = [waves[at]!, waves[at + 1]!];
      waves[at] = imaginary * by;
      // Conjugate: a forward transform of it is the way back.
      waves[at + 1] = real * by;
    }
  const back = transformed(waves, n);
  const heights = new Float32Array(size * size);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) heights[y * size + x] = back[(y * n + x) * 2]! / (n * n);
  return { size, heights };
}

/** Fourier transform of a square of complex numbers, real and imaginary in turn. */
function transformed(field: Float64Array, n: number): Float64Array {
  const fft = new FFT(n);
  const line = fft.createComplexArray();
  const out = fft.createComplexArray();
  const result = Float64Array.from(field);
  const along = (first: number, step: number) => {
    for (let i = 0; i < n; i++) {
      line[2 * i] = result[first + i * step]!;
      line[2 * i + 1] = result[first + i * step + 1]!;
    }
    fft.transform(out, line);
    for (let i = 0; i < n; i++) {
      result[first + i * step] = out[2 * i]!;
      result[first + i * step + 1] = out[2 * i + 1]!;
    }
  };
  for (let y = 0; y < n; y++) along(y * n * 2, 2);
  for (let x = 0; x < n; x++) along(x * 2, n * 2);
  return result;
}

/** Height of the raking lamp a scan is made under, degrees over the sheet (practice; no scan says its own). */
export const SCAN_LAMP_DEG = 15;

/** How steep a sheet is at each place: rise over run to the right and downwards, two numbers a pixel. */
export interface Slopes {
  readonly size: number;
  readonly sideMm: number;
  readonly values: Float32Array;
}

/**
 * Slopes of a sheet from a raking-light scan of it: a diffuse sheet under a lamp at height h has 1 + slope / tan h of
 * the light it has lying flat. One lamp tells slopes along its own direction; those across it come from the heights
 * beside each other, and are an estimate.
 * @param luminance of each pixel of the square, proportional to light
 */
export function slopesOf(luminance: ArrayLike<number>, size: number, ppi: number): Slopes {
  let mean = 0;
  for (let i = 0; i < size * size; i++) mean += luminance[i]! / (size * size);
  const along = new Float32Array(size * size);
  const perLight = Math.tan((SCAN_LAMP_DEG * Math.PI) / 180);
  for (let i = 0; i < along.length; i++) along[i] = mean > 0 ? (luminance[i]! / mean - 1) * perLight : 0;
  const { heights } = reliefOf(along, size, ppi);
  const values = new Float32Array(size * size * 2);
  for (let y = 0; y < size; y++) {
    const [above, below] = [Math.max(0, y - 1) * size, Math.min(size - 1, y + 1) * size];
    for (let x = 0; x < size; x++) {
      values[(y * size + x) * 2] = along[y * size + x]!;
      values[(y * size + x) * 2 + 1] = (heights[below + x]! - heights[above + x]!) / 2;
    }
  }
  return { size, sideMm: (size / ppi) * MM_PER_INCH, values };
}
