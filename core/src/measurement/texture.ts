import FFT from 'fft.js';
import { seededNormal } from '../random.ts';

/** A grey picture of a bare sheet under a raking lamp. */
export interface TextureScan {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Pixels per inch. */
  readonly ppi: number;
  /** L* 0–100, row by row. */
  readonly lightness: Float32Array;
}

export interface Texture {
  /** Wavelength with most relief in it, mm. */
  readonly wavelengthMm: number;
  /** Standard deviation of L* in the band. */
  readonly amplitudeL: number;
  /** Standard deviations of both between places of one sheet. */
  readonly wavelengthSd: number;
  readonly amplitudeSd: number;
}

/** Band that makes a sheet's texture, mm: finer is the sensor's noise, coarser is a sheet that does not lie flat. */
export const TEXTURE_BAND_MM = [0.2, 4] as const;
/**
 * Wavelengths are gathered in fine steps (a ratio) and smoothed over a wider one: no bound between steps then decides
 * where the peak lies.
 */
const STEP_RATIO = 1.03;
const SMOOTH_RATIO = 1.15;
const MM_PER_INCH = 25.4;
/** Side of the smallest scan: the longest wavelength must fit in it four times. */
export const LEAST_SCAN_MM = 16;

/** A scan that can't be used. */
export class TextureError extends Error {
  override readonly name = 'TextureError';
  constructor(
    message: string,
    readonly remedy: string,
  ) {
    super(message);
  }
}

/**
 * Texture of a sheet from a raking-light scan: the power of its lightness between 0.2 and 4 mm (two-dimensional Fourier transform of the
 * Hann-windowed scan, without its mean and its tilt), its square root as the amplitude, and the wavelength where an equal ratio of
 * wavelengths holds most of it.
 * @throws TextureError when the scan is too small or too coarse
 */
export function textureOf(scan: TextureScan): Texture {
  const { widthPx, heightPx, ppi } = scan;
  const sideMm = (Math.min(widthPx, heightPx) / ppi) * MM_PER_INCH;
  if (sideMm < LEAST_SCAN_MM) {
    throw new TextureError(
      `The scan shows ${sideMm.toFixed(1)} mm of the sheet; ${LEAST_SCAN_MM} mm on either side is the least.`,
      'Scan a larger piece, or state the resolution it was scanned at.',
    );
  }
  const finest = (2 / ppi) * MM_PER_INCH;
  if (finest > TEXTURE_BAND_MM[0] * 1.01) {
    throw new TextureError(
      `At ${ppi} ppi nothing finer than ${finest.toFixed(2)} mm is seen; ${TEXTURE_BAND_MM[0]} mm is asked for.`,
      'Scan at 300 ppi or more.',
    );
  }
  const { steps, spread, inBand, variance } = spectrumOf(scan, Math.min(widthPx, heightPx));
  const amplitudeL = Math.sqrt(inBand);
  // Half the relative spread of the power: the amplitude is its root.
  const relative = Math.hypot(Math.sqrt(variance) / inBand / 2, UNEVEN);
  const wavelengthMm = wavelengthAt(peakOf(steps));
  return {
    wavelengthMm,
    amplitudeL,
    wavelengthSd: Math.hypot(peakSpread(steps, spread, wavelengthMm), UNEVEN * wavelengthMm),
    amplitudeSd: relative * amplitudeL,
  };
}

/** How much a sheet's own texture changes from place to place, as a share, beyond chance (our own assumption). */
const UNEVEN = 0.03;
/**
 * A window lets fewer waves count than its area holds: mean fourth power over the square of the mean square, for the
 * Hann window in two dimensions, (35/128 / (3/8)²)².
 */
const FEWER_BY_WINDOW = (35 / 128 / (3 / 8) ** 2) ** 2;

interface BandSpectrum {
  /** Power by step of wavelength. */
  readonly steps: Float64Array;
  /** Variance of each of them between places. */
  readonly spread: Float64Array;
  readonly inBand: number;
  /** Variance of the power in the band between places. */
  readonly variance: number;
}

/**
 * Power of the band, and how much it would be otherwise at another place: what a scan shows of a texture is a few waves
 * of it, each as strong as chance has it, so its power spreads as the fourth powers say (a periodogram’s variance is its
 * square).
 */
function spectrumOf(scan: TextureScan, side: number): BandSpectrum {
  // The largest power of two that fits; more is not needed and less would lose the long waves.
  const n = 2 ** Math.floor(Math.log2(side));
  const at = (x: number, y: number) => scan.lightness[y * scan.widthPx + x]!;
  const level = tilted(n, at);
  const window = Float64Array.from({ length: n }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / n));
  // Mean square of the Hann window in two dimensions: 3/8 each way.
  const lost = (3 / 8) ** 2;
  const power = power2d(n, (x, y) => (at(x, y) - level(x, y)) * window[x]! * window[y]!);
  const cyclesPerMm = scan.ppi / MM_PER_INCH / n;
  const [steps, spread] = [new Float64Array(STEPS), new Float64Array(STEPS)];
  let [inBand, variance] = [0, 0];
  for (let v = 0; v < n; v++) {
    for (let u = 0; u < n; u++) {
      const [fx, fy] = [u > n / 2 ? u - n : u, v > n / 2 ? v - n : v];
      const frequency = Math.hypot(fx, fy) * cyclesPerMm;
      if (frequency === 0) continue;
      const wavelength = 1 / frequency;
      if (wavelength < TEXTURE_BAND_MM[0] || wavelength > TEXTURE_BAND_MM[1]) continue;
      const p = power[v * n + u]! / lost;
      inBand += p;
      // Shared out between the two steps about it.
      const place = Math.log(wavelength) / Math.log(STEP_RATIO) - FIRST_STEP;
      const low = Math.floor(place);
      steps[low]! += p * (1 - (place - low));
      steps[low + 1]! += p * (place - low);
      const square = FEWER_BY_WINDOW * p * p;
      variance += square;
      spread[Math.round(place)]! += square;
    }
  }
  return { steps, spread, inBand, variance };
}

const wavelengthAt = (step: number) => STEP_RATIO ** (FIRST_STEP + step);
const PLACES = 64;
/** Steps that one wave reaches at once: they rise and fall together. */
const REACH_STEPS = 3;

/** Standard deviation of the peak’s wavelength: the power of each few steps is drawn again by its own spread. */
function peakSpread(steps: Float64Array, spread: Float64Array, wavelengthMm: number): number {
  const normal = seededNormal(3);
  const squares = Array.from({ length: PLACES }, () => {
    const elsewhere = new Float64Array(STEPS);
    for (let from = 0; from < STEPS; from += REACH_STEPS) {
      const to = Math.min(STEPS, from + REACH_STEPS);
      let [power, variance] = [0, 0];
      for (let s = from; s < to; s++) {
        power += steps[s]!;
        variance += spread[s]!;
      }
      // Log-normal of that mean and variance: no power is negative.
      const log = power > 0 ? Math.log(1 + variance / power ** 2) : 0;
      const by = Math.exp(Math.sqrt(log) * normal() - log / 2);
      for (let s = from; s < to; s++) elsewhere[s] = steps[s]! * by;
    }
    return (wavelengthAt(peakOf(elsewhere)) - wavelengthMm) ** 2;
  });
  return Math.sqrt(squares.reduce((sum, v) => sum + v, 0) / PLACES);
}

/** Steps of the scale of wavelengths, from a little below the band to a little above. */
const FIRST_STEP = Math.floor(Math.log(TEXTURE_BAND_MM[0]) / Math.log(STEP_RATIO)) - 1;
const STEPS = Math.ceil(Math.log(TEXTURE_BAND_MM[1]) / Math.log(STEP_RATIO)) + 2 - FIRST_STEP;

/** Where a smoothed run of values is highest, between its places: the top of the parabola through the highest and its neighbours. */
function peakOf(values: Float64Array): number {
  const width = Math.log(SMOOTH_RATIO) / Math.log(STEP_RATIO);
  const smooth = Array.from(values, (_, i) =>
    values.reduce((sum, v, j) => sum + v * Math.exp(-0.5 * ((i - j) / width) ** 2), 0),
  );
  const top = smooth.reduce((most, v, i) => (v > smooth[most]! ? i : most), 0);
  const q = smooth[top]!;
  const [p, r] = [smooth[top - 1] ?? q, smooth[top + 1] ?? q];
  const bend = p - 2 * q + r;
  return top + (bend === 0 ? 0 : (p - r) / (2 * bend));
}

/** Mean and tilt of a square, by least squares: a sheet is never lit quite evenly. */
function tilted(n: number, at: (x: number, y: number) => number): (x: number, y: number) => number {
  let [sum, sx, sy, sxx] = [0, 0, 0, 0];
  const middle = (n - 1) / 2;
  for (let y = 0; y < n; y++) {
    for (let x = 0; x < n; x++) {
      const v = at(x, y);
      sum += v;
      sx += v * (x - middle);
      sy += v * (y - middle);
    }
  }
  for (let x = 0; x < n; x++) sxx += (x - middle) ** 2;
  const [mean, dx, dy] = [sum / n / n, sx / (sxx * n), sy / (sxx * n)];
  return (x, y) => mean + dx * (x - middle) + dy * (y - middle);
}

/** Power of a square picture by frequency; sums to its mean square (Parseval). */
function power2d(n: number, at: (x: number, y: number) => number): Float64Array {
  const fft = new FFT(n);
  const rows = Array.from({ length: n }, (_, y) => {
    const out = fft.createComplexArray();
    fft.realTransform(
      out,
      Array.from({ length: n }, (_, x) => at(x, y)),
    );
    fft.completeSpectrum(out);
    return out;
  });
  const power = new Float64Array(n * n);
  const column = fft.createComplexArray();
  const out = fft.createComplexArray();
  for (let u = 0; u < n; u++) {
    for (let y = 0; y < n; y++) {
      column[2 * y] = rows[y]![2 * u]!;
      column[2 * y + 1] = rows[y]![2 * u + 1]!;
    }
    fft.transform(out, column);
    for (let v = 0; v < n; v++) power[v * n + u] = (out[2 * v]! ** 2 + out[2 * v + 1]! ** 2) / n ** 4;
  }
  return power;
}
