import FFT from 'fft.js';
import { seededNormal } from '../random.ts';
import { scanTexture } from '../simulation/scanner.ts';
import { standIn } from '../simulation/stand-in.ts';
import { textureAmplitude } from './measures/texture.ts';
import type { Observation } from './observations.ts';
import { textureOf, type TextureScan } from './texture.ts';

const WHEN = '2026-11-20T10:00:00Z';
const sheetOf = (surface: 'smooth' | 'rough') =>
  standIn({
    coating: 'cotton',
    surface,
    brightenerClaim: 'none',
    weightGsm: 300,
    thicknessUm: 400,
    blackInk: 'matt black',
    mediaSetting: 'Fine art matt',
    printMode: 'colour through a profile',
    blackOvercoat: false,
  }).sheet;
const [smooth, rough] = [sheetOf('smooth'), sheetOf('rough')];

const PPI = 400;
const SIDE_PX = 256;
const MM_PER_INCH = 25.4;

type Plane = number[][];

/** A transform of rows, then of columns, of complex numbers side by side. */
function transform(rows: Plane, way: 'transform' | 'inverseTransform'): Plane {
  const n = rows.length;
  const fft = new FFT(n);
  const one = (line: number[]) => {
    const out = fft.createComplexArray();
    fft[way](out, line);
    return out;
  };
  const across = rows.map(one);
  const column = new Array<number>(2 * n);
  for (let u = 0; u < 2 * n; u += 2) {
    across.forEach((row, v) => ([column[2 * v], column[2 * v + 1]] = [row[u], row[u + 1]]));
    one(column).forEach((value, i) => (across[i >> 1][u + (i & 1)] = value));
  }
  return across;
}

/** A sheet whose relief is noise about one wavelength: every piece of it another draw of the same texture. */
function noisyRelief(wavelengthMm: number, width: number, seed: number): TextureScan {
  const normal = seededNormal(seed);
  const n = SIDE_PX;
  const noise = Array.from({ length: n }, () => Array.from({ length: 2 * n }, (_, i) => (i % 2 === 0 ? normal() : 0)));
  const spectrum = transform(noise, 'transform');
  for (let v = 0; v < n; v++)
    for (let u = 0; u < n; u++) {
      const perMm = (Math.hypot(u > n / 2 ? u - n : u, v > n / 2 ? v - n : v) * PPI) / MM_PER_INCH / n;
      // Divided by the frequency: a ring of even ratio holds more of the fine.
      const share = perMm === 0 ? 0 : Math.exp(-0.5 * (Math.log(1 / perMm / wavelengthMm) / width) ** 2) / perMm;
      spectrum[v][2 * u] *= share;
      spectrum[v][2 * u + 1] *= share;
    }
  const height = transform(spectrum, 'inverseTransform').flatMap((row) => row.filter((_, i) => i % 2 === 0));
  const rms = Math.sqrt(height.reduce((s, h) => s + h * h, 0) / height.length);
  return {
    widthPx: n,
    heightPx: n,
    ppi: PPI,
    lightness: Float32Array.from(height, (h) => 60 + (2 * h) / rms),
  };
}

const mean = (values: number[]) => values.reduce((s, v) => s + v, 0) / values.length;
const rootMeanSquare = (values: number[]) => Math.sqrt(mean(values.map((v) => v * v)));
const deviation = (values: number[]) => rootMeanSquare(values.map((v) => v - mean(values)));

describe('the spread of a texture', () => {
  it.each<[string, (place: number) => TextureScan]>([
    ['of noise about one wavelength', (place) => noisyRelief(1.2, 0.4, place + 1)],
    ['of noise of many wavelengths', (place) => noisyRelief(1, 0.8, place + 50)],
    ['of a smooth sheet under the simulated scanner', (place) => scanTexture(smooth, 400, 16, 31 * place + 7)],
    ['of a rough sheet under the simulated scanner', (place) => scanTexture(rough, 400, 16, 31 * place + 7)],
  ])('one sheet differs from itself in at most 5 of 100 pairs of places: %s', (_, scan) => {
    const places = Array.from({ length: 16 }, (__, place) => textureOf(scan(place)));
    const pairs = places.flatMap((p, i) => places.slice(i + 1).map((q) => [p, q] as const));
    for (const [value, sd] of [
      ['wavelengthMm', 'wavelengthSd'],
      ['amplitudeL', 'amplitudeSd'],
    ] as const) {
      const apart = pairs.filter(([p, q]) => Math.abs(p[value] - q[value]) > 1.96 * Math.hypot(p[sd], q[sd])).length;
      expect(apart / pairs.length).toBeLessThanOrEqual(0.05);
    }
  });

  it('two sheets of which one is half as rough again are distinguished by four places each', () => {
    const scans = (by: number) =>
      [0, 1, 2, 3].map((place): Observation => {
        const scan = noisyRelief(1.2, 0.4, 90 + place + 10 * by);
        const lightness = scan.lightness.map((l) => 60 + by * (l - 60));
        return { kind: 'texture', ppi: 400, takenAt: WHEN, ...textureOf({ ...scan, lightness }) };
      });
    const [p, q] = [1, 1.5].map((by) => textureAmplitude.observe(scans(by)));
    if (p.shape !== 'scalar' || q.shape !== 'scalar') throw new Error('Nothing was measured.');
    expect(q.value / p.value).toBeGreaterThan(1.38);
    expect(q.value / p.value).toBeLessThan(1.62);
    expect(q.value - p.value).toBeGreaterThan(1.96 * Math.hypot(p.sd, q.sd));
    expect(p.note).toBe('mean of 4 places');
    // Four places say twice as much as one.
    const [one] = scans(1);
    const single = textureAmplitude.observe([one]);
    expect(single).toMatchObject({ shape: 'scalar' });
    expect(p.sd / (single as { sd: number }).sd).toBeLessThan(0.65);
    // A scan of another day, or of another resolution, is no place of this sitting.
    const other = { ...one, takenAt: '2026-01-01T09:00:00Z' };
    expect(textureAmplitude.observe([other, one])).toEqual(single);
  });

  it('is what other pieces of the same sheet differ by', () => {
    const [mm, width] = [1.2, 0.4];
    const pieces = Array.from({ length: 10 }, (_, seed) => textureOf(noisyRelief(mm, width, seed + 1)));
    expect(Math.abs(mean(pieces.map((p) => p.wavelengthMm)) / mm - 1)).toBeLessThan(0.02);
    for (const [value, sd] of [
      ['wavelengthMm', 'wavelengthSd'],
      ['amplitudeL', 'amplitudeSd'],
    ] as const) {
      const stated = rootMeanSquare(pieces.map((p) => p[sd]));
      const found = deviation(pieces.map((p) => p[value]));
      expect(stated / found).toBeGreaterThan(0.5);
      expect(stated / found).toBeLessThan(2);
    }
  });
});
