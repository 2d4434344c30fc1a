import fc from 'fast-check';
import { scanTexture } from '../simulation/scanner.ts';
import { CLASS_SHEETS } from '../simulation/stand-in.ts';
import { glossUnits } from '../simulation/gloss-meter.ts';
import { seededRandom } from '../random.ts';
import { reliefOf, slopesOf } from './relief.ts';
import { lobeDeg, MIRRORED, sheen } from './sheen.ts';

const luminance = (l: number) => (l > 8 ? ((l + 16) / 116) ** 3 : (l * 27) / 24389);

describe('the relief of a sheet from its scan', () => {
  const PPI = 400;
  const scan = (heightUm: number) =>
    scanTexture(
      {
        ...CLASS_SHEETS.cotton,
        brightener: 0,
        weightGsm: 310,
        thicknessUm: 500,
        relief: { wavelengthMm: 0.9, heightUm },
      },
      PPI,
      16,
      3,
    );
  const sd = (values: Float32Array, axis: 0 | 1) =>
    Math.sqrt(values.reduce((s, v, i) => s + (i % 2 === axis ? v * v : 0), 0) / (values.length / 2));

  it('a sheet twice as rough is twice as steep, along the lamp and across it alike', () => {
    const [low, high] = [6, 12].map((um) => {
      const { lightness, widthPx } = scan(um);
      return slopesOf(Array.from(lightness, luminance), widthPx, PPI);
    });
    expect(sd(high.values, 0) / sd(low.values, 0)).toBeGreaterThan(1.7);
    expect(sd(high.values, 0) / sd(low.values, 0)).toBeLessThan(2.3);
    expect(sd(high.values, 1) / sd(high.values, 0)).toBeGreaterThan(0.4);
    expect(sd(high.values, 1) / sd(high.values, 0)).toBeLessThan(2.5);
    expect(high.sideMm).toBeCloseTo(16, 1);
  });

  it('finds the heights a known relief has, along the lamp and askew to it', () => {
    const size = 128;
    const height = (x: number, y: number) => 3 * Math.sin((2 * Math.PI * (2 * x + y)) / 32);
    const at = (i: number) => [i % size, Math.floor(i / size)] as const;
    const slope = Float64Array.from({ length: size * size }, (_, i) => {
      const [x, y] = at(i);
      return (height(x + 0.01, y) - height(x - 0.01, y)) / 0.02;
    });
    const { heights } = reliefOf(slope, size, PPI);
    let [product, own, found] = [0, 0, 0];
    heights.forEach((h, i) => {
      const wanted = height(...at(i));
      product += h * wanted;
      own += wanted * wanted;
      found += h * h;
    });
    expect(product / Math.sqrt(own * found)).toBeGreaterThan(0.99);
    expect(Math.sqrt(found / own)).toBeGreaterThan(0.85);
    expect(Math.sqrt(found / own)).toBeLessThan(1.05);
  });

  it('the noise of a row does not pile up into a streak', () => {
    const size = 128;
    const random = seededRandom(5);
    const { heights } = reliefOf(
      Float64Array.from({ length: size * size }, () => random() - 0.5),
      size,
      PPI,
    );
    // What a row has in common, beside what its pixels have.
    let [rows, all] = [0, 0];
    for (let y = 0; y < size; y++) {
      let sum = 0;
      for (let x = 0; x < size; x++) {
        sum += heights[y * size + x] / size;
        all += heights[y * size + x] ** 2 / (size * size);
      }
      rows += sum ** 2 / size;
    }
    expect(rows / all).toBeLessThan(0.1);
  });

  it('a sheet that is flat is flat', () => {
    expect(slopesOf(new Float32Array(64 * 64).fill(0.5), 64, PPI).values.every((v) => v === 0)).toBe(true);
    expect(slopesOf(new Float32Array(64 * 64), 64, PPI).values.every((v) => v === 0)).toBe(true);
  });
});

describe('sheen from gloss units', () => {
  it('the receptor of a meter catches the share of the lobe that the gloss units say', () => {
    for (const gu of [2, 10, 40, 80]) {
      const lobe = Math.sqrt(lobeDeg(gu) ** 2 - 2 ** 2);
      const receptor = Math.sqrt((4.4 * 11.7) / Math.PI);
      expect(100 * (1 - Math.exp(-((receptor / lobe) ** 2) / 2))).toBeCloseTo(gu, 6);
    }
  });

  it('what is mirrored is spread, not made: all of the lobe together is the light that is thrown back (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 60, noNaN: true }), (gu) => {
        const lobe = lobeDeg(gu);
        let sum = 0;
        const step = lobe / 50;
        // Rings about the middle: π of a white’s radiance is its exitance.
        for (let r = step / 2; r < lobe * 6; r += step)
          sum += sheen(r, lobe) * 2 * Math.PI * r * step * (Math.PI / 180) ** 2;
        expect(sum / Math.PI).toBeCloseTo(MIRRORED, 3);
      }),
    );
  });

  it('a glossier sheet mirrors brighter and narrower', () => {
    const [matt, gloss] = [300, 120].map((nm) => lobeDeg(glossUnits(60, nm, 1.5, 0.9)));
    expect(gloss).toBeLessThan(matt);
    expect(sheen(0, gloss)).toBeGreaterThan(sheen(0, matt));
    expect(sheen(25, gloss)).toBeLessThan(sheen(25, matt));
  });
});
