import { three } from '../colour/three.ts';
import fc from 'fast-check';
import type { Lab } from '../colour/types.ts';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { CodeBins } from './bins.ts';
import type { OccupiedCells } from './cells.ts';
import { PictureReader } from './reader.ts';
import { PictureTally, type PictureFigures } from './tally.ts';

const labOf = (codes: Float32Array): Float32Array => {
  const out = new Float32Array(codes.length);
  for (let i = 0; i < codes.length; i += 3) out.set(rgbToLab(SRGB, [codes[i], codes[i + 1], codes[i + 2]]), i);
  return out;
};
type Shade = (x: number, y: number) => readonly [number, number, number];
/** A picture drawn in sRGB, 16 bits, read in odd runs. */
function read(
  widthPx: number,
  heightPx: number,
  shade: Shade,
): { figures: PictureFigures; cells: OccupiedCells; labs: () => Lab[] } {
  const reader = new PictureReader({ widthPx, heightPx, channels: 3, bits: 16 }, labOf);
  const codes = new Uint16Array(widthPx * heightPx * 3);
  for (let y = 0, at = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const rgb = shade(x, y).map((v) => Math.round(Math.min(1, Math.max(0, v)) * 65_535));
      rgb.forEach((v) => (codes[at++] = v));
    }
  for (let from = 0; from < codes.length; from += 3 * 7777) reader.add(codes.subarray(from, from + 3 * 7777));
  const labs = () =>
    Array.from({ length: widthPx * heightPx }, (_, i) =>
      rgbToLab(SRGB, [codes[i * 3] / 65_535, codes[i * 3 + 1] / 65_535, codes[i * 3 + 2] / 65_535]),
    );
  return { ...reader.finish(), labs };
}
const grey = (v: number) => [v, v, v] as const;

function tallied(labs: Lab[]) {
  const tally = new PictureTally(labs.length);
  tally.add(Float32Array.from(labs.flat()));
  return tally.finish();
}
const greys = (from: number, to: number, n = 200) =>
  Array.from({ length: n }, (_, i): Lab => [from + ((to - from) * i) / (n - 1), 0, 0]);

describe('tone and colour', () => {
  it('shares against a bound are those of the pixels, wherever the bound lies', () => {
    fc.assert(
      fc.property(fc.double({ min: 3, max: 40, noNaN: true }), fc.integer({ min: 1, max: 1e6 }), (bound, seed) => {
        const normal = seededNormal(seed);
        // Noise in each channel of its own, as pictures have it.
        const { cells, labs } = read(160, 120, (x, y) => {
          const dense = (x + y) % 3 === 0;
          return three(() => (dense ? 0.13 + 0.006 * normal() : 0.25 + 0.12 * normal()));
        });
        const pixels = labs();
        let below = 0;
        for (let i = 0; i < cells.count; i++) if (cells.data[i * 4] < bound) below += cells.data[i * 4 + 3];
        expect(Math.abs(below - pixels.filter(([L]) => L < bound).length / pixels.length)).toBeLessThan(0.004);
      }),
      { numRuns: 5, endOnFailure: true },
    );
  });

  it('figures counted by code agree with those of every pixel', () => {
    const random = seededRandom(5);
    const { figures, labs } = read(300, 200, (x, y) => [
      x / 300 + 0.1 * random(),
      y / 200,
      0.5 + 0.3 * Math.sin(x / 40),
    ]);
    const { figures: exact } = tallied(labs());
    expect(Math.abs(figures.medianL - exact.medianL)).toBeLessThan(0.4);
    expect(Math.abs(figures.meanL - exact.meanL)).toBeLessThan(0.1);
    for (const key of ['nearBlackShare', 'nearWhiteShare', 'saturatedShare'] as const)
      expect(Math.abs(figures[key] - exact[key])).toBeLessThan(0.003);
    expect(figures.pixelsRead).toBe(60_000);
  });

  it('near black is below L* 10 and no other; the median is told to a tenth', () => {
    const { figures } = tallied([
      [9.6, 0, 0],
      [9.99, 0, 0],
      [10.01, 0, 0],
      [91.04, 0, 0],
      [95.2, 0, 0],
    ]);
    expect(figures.nearBlackShare).toBeCloseTo(0.4, 9);
    expect(figures.nearWhiteShare).toBeCloseTo(0.2, 9);
    expect(figures.medianL).toBeCloseTo(10, 9);
    expect(tallied([[91.04, 0, 0]]).figures.medianL).toBeCloseTo(91, 9);
  });

  it('one colour over and over is one cell', () => {
    expect(tallied(Array.from({ length: 5000 }, (): Lab => [50, 10, 10])).cells.count).toBe(1);
  });

  it('key and contrast', () => {
    expect(tallied(greys(0, 30)).figures).toMatchObject({ key: 'low key', colour: 'black and white' });
    expect(tallied(greys(75, 99)).figures).toMatchObject({ key: 'high key', contrast: 'soft' });
    const hard = tallied([...greys(0, 5), ...greys(97, 100)]).figures;
    expect(hard).toMatchObject({ contrast: 'hard' });
    expect(hard.lightness.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
  });

  it('tells black and white, toned, split-toned and colour apart', () => {
    const toned = greys(5, 95).map(([L]): Lab => [L, 3, 12]);
    expect(tallied(toned).figures.colour).toBe('toned');
    const split = greys(5, 95).map(([L]): Lab => [L, 0, 12 * Math.tanh((L - 50) / 15)]);
    expect(tallied(split).figures.colour).toBe('split-toned');
    const colour = greys(5, 95).map(([L], i): Lab => [L, i % 2 ? 30 : -30, i % 3 ? 20 : -40]);
    expect(tallied(colour).figures.colour).toBe('colour');
  });

  it('a small lamp is named, however small', () => {
    const { figures } = read(300, 200, (x, y) => (x > 290 && y > 190 ? [1, 0.05, 0.02] : grey(0.2)));
    expect(figures.accents?.[0].name).toBe('reds');
    const mark = figures.structure!.marks.find((m) => m.kind === 'colour')!;
    expect(mark.x).toBeGreaterThan(0.93);
    expect(mark.y).toBeGreaterThan(0.93);
    expect(Math.hypot(mark.lab[1], mark.lab[2])).toBeGreaterThan(70);
  });

  it('the cells hold all of the picture and its mean colour', () => {
    const part = (min: number, max: number) => fc.float({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(part(0, 100), part(-100, 100), part(-100, 100)), { minLength: 1, maxLength: 200 }),
        (labs) => {
          const { cells } = tallied(labs);
          let [share, L] = [0, 0];
          for (let i = 0; i < cells.count; i++) {
            share += cells.data[i * 4 + 3];
            L += cells.data[i * 4] * cells.data[i * 4 + 3];
          }
          expect(share).toBeCloseTo(1, 4);
          expect(L).toBeCloseTo(labs.reduce((s, l) => s + l[0], 0) / labs.length, 2);
        },
      ),
    );
  });
});

describe('structure', () => {
  it('a dark thing on a pale sheet is low key on a light ground, and no snow', () => {
    const { figures } = read(300, 300, (x, y) =>
      Math.hypot(x - 150, y - 150) < 90 ? grey(0.15 + 0.1 * Math.sin(x / 3)) : [0.92, 0.9, 0.84],
    );
    const { ground, subject, hints } = figures.structure!;
    expect(figures.key).toBe('high key');
    expect(ground!.share).toBeGreaterThan(0.6);
    expect(ground!.lab[0]).toBeGreaterThan(85);
    expect(subject.key).toBe('low key');
    expect(hints.map((h) => h.hint)).not.toContain('snow');
  });

  it('a slope is smooth, a pattern is busy, and each lies where it is', () => {
    const { figures } = read(400, 200, (x, y) => (x < 200 ? grey(0.3 + y / 600) : grey((x >> 2) % 2 ? 0.2 : 0.8)));
    const { smoothShare, busyShare, map } = figures.structure!;
    expect(smoothShare).toBeCloseTo(0.5, 1);
    expect(busyShare).toBeCloseTo(0.5, 1);
    const row = map.busy.slice(0, map.columns);
    expect(row[2]).toBe('0');
    expect(row[map.columns - 3]).toBe('9');
  });

  it('the darkest place with detail is marked, not the plain black beside it', () => {
    const { figures } = read(300, 200, (x, y) => {
      if (x < 100) return grey(0.01);
      if (x < 200) return grey(0.08 + 0.05 * Math.sin(x / 2) * Math.sin(y / 2));
      return grey(0.7);
    });
    const mark = figures.structure!.marks.find((m) => m.kind === 'shadow')!;
    expect(mark.x).toBeGreaterThan(0.31);
    expect(mark.x).toBeLessThan(0.69);
    expect(mark.detailL).toBeGreaterThan(1);
  });

  it('noise is told in L*, and is not called detail', () => {
    const normal = seededNormal(3);
    const { figures } = read(300, 200, () => grey(0.5 + 0.01 * normal()));
    const { noiseL, busyShare, smoothShare } = figures.structure!;
    // One hundredth of a channel about the middle is 1.0 L*; across and down both pixels carry it.
    expect(noiseL).toBeGreaterThan(0.6);
    expect(noiseL).toBeLessThan(1.4);
    expect(busyShare).toBe(0);
    expect(smoothShare).toBeGreaterThan(0.95);
  });

  it('contrast by scale adds up to the whole contrast', () => {
    const { figures } = read(256, 256, (x, y) => grey(0.5 + 0.2 * Math.sin(x / 8) + 0.15 * Math.sin(y / 50)));
    const whole = Math.sqrt(figures.structure!.scales.reduce((s, v) => s + v.sdL ** 2, 0));
    expect(whole).toBeGreaterThan(figures.contrastSdL * 0.85);
    expect(whole).toBeLessThan(figures.contrastSdL * 1.02);
  });
});

it.each([1, 3] as const)('a bin that was full of one code knows that others came after it: %i channels', (channels) => {
  const bins = new CodeBins({ widthPx: 100, heightPx: 100, channels, bits: 16 });
  // One bin, codes 30 000 to 30 200: first many of one alone, then as many of another.
  for (const code of [30_000, 30_200]) bins.add(new Uint16Array(5000 * channels).fill(code));
  const { codes, pixels } = bins.counted();
  expect(pixels.reduce((sum, n) => sum + n, 0)).toBeCloseTo(10_000, 6);
  let above = 0;
  for (let i = 0; i < pixels.length; i++) if (codes[i * channels] * 65_535 > 30_080) above += pixels[i];
  expect(above).toBeGreaterThan(4000);
  expect(above).toBeLessThan(6000);
});

it('counts every pixel of a small picture whose colours are all unlike', () => {
  // Each of its bins is full with its first pixel.
  const [widthPx, heightPx] = [97, 71];
  const bins = new CodeBins({ widthPx, heightPx, channels: 3, bits: 8 });
  const random = seededRandom(9);
  bins.add(Uint8Array.from({ length: widthPx * heightPx * 3 }, () => random() * 256));
  const { pixels } = bins.counted();
  expect(pixels.reduce((sum, n) => sum + n, 0)).toBeCloseTo(widthPx * heightPx, 6);
});

it('a large picture of two codes side by side in one bin keeps their shares', () => {
  const [widthPx, heightPx] = [2000, 1200];
  const bins = new CodeBins({ widthPx, heightPx, channels: 1, bits: 16 });
  // Three of the one, one of the other, in turn; both in the same bin, in other parts of it.
  bins.add(Uint16Array.from({ length: widthPx * heightPx }, (_, i) => (i % 4 === 0 ? 30_300 : 30_000)));
  const { codes, pixels } = bins.counted();
  const above = pixels.reduce((sum, n, i) => sum + (codes[i] * 65_535 > 30_200 ? n : 0), 0);
  expect(above / (widthPx * heightPx)).toBeCloseTo(0.25, 2);
});
