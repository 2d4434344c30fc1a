import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { readingFromCgats } from '../formats/reading-from-cgats.ts';
import { convexHull, distinct } from '../gamut/convex-hull.ts';
import { meshVolume } from '../gamut/mesh.ts';
import { differenceOf } from './difference.ts';
import type { ColourFigure, ScalarFigure } from './figure.ts';
import { computeFigures, MEASURES } from './measures/registry.ts';
import { readingFacts } from './reading-facts.ts';
import type { Reading } from './reading.ts';
import { formatFigure, formatNumber, supportedDigits } from './show.ts';
import { DEFAULT_THRESHOLDS } from './thresholds.ts';

const fixture = (name: string) =>
  readingFromCgats(readFileSync(new URL(`../../test/fixtures/${name}`, import.meta.url)));
const coated = fixture('fogra39l.cgats.txt');
const uncoated = fixture('fogra29l.cgats.txt');
const scalar = (r: Reading, key: string) => computeFigures(readingFacts(r))[key] as ScalarFigure;
const measure = (key: string) => MEASURES.find((m) => m.key === key)!;

/** The darkest row as the file has it, found without the product's own parser. */
function darkestRow(name: string): number[] {
  const rows = readFileSync(new URL(`../../test/fixtures/${name}`, import.meta.url), 'latin1')
    .split(/\r?\n/)
    .filter((l) => /^\d+\s/.test(l))
    .map((l) => l.trim().split(/\s+/).slice(-6).map(Number));
  return rows.reduce((d, r) => (r[3] < d[3] ? r : d));
}

describe('figures of measured offset data (icc-profiles-free)', () => {
  it('coated FOGRA39L: white exactly 95.00, 0.00, −2.00', () => {
    expect((computeFigures(readingFacts(coated.reading)).white as ColourFigure).lab).toEqual([95, 0, -2]);
    expect(coated.reading.patches).toHaveLength(1617);
  });

  it('uncoated FOGRA29L: white exactly as in the file', () => {
    expect((computeFigures(readingFacts(uncoated.reading)).white as ColourFigure).lab).toEqual([95.71, 0.61, -2.32]);
  });

  it.each(['fogra39l.cgats.txt', 'fogra29l.cgats.txt'])(
    '%s: darkest patch, density and contrast are those of the darkest row',
    (name) => {
      const [, Y, , L, a, b] = darkestRow(name);
      const figures = computeFigures(readingFacts(fixture(name).reading));
      expect((figures.black as ColourFigure).lab).toEqual([L, a, b]);
      expect((figures.dmax as ScalarFigure).value).toBeCloseTo(-Math.log10(Y / 100), 12);
      const white = fixture(name).reading.patches[0].xyz[1];
      expect((figures.contrastRatio as ScalarFigure).value).toBeCloseTo(white / Y, 9);
      expect((figures.densityRange as ScalarFigure).value).toBeCloseTo(Math.log10(white / Y), 12);
      expect((figures.dmin as ScalarFigure).value).toBeCloseTo(-Math.log10(white / 100), 12);
    },
  );

  it.each([
    ['FOGRA39L', coated],
    ['FOGRA29L', uncoated],
  ] as const)('%s: the boundary lies below the plain hull and above 85 %% of it', (_, { reading }) => {
    const plain = meshVolume(convexHull(distinct(reading.patches.map((p) => p.lab))));
    const volume = scalar(reading, 'gamutVolume').value;
    expect(volume).toBeLessThan(plain);
    expect(volume).toBeGreaterThan(0.85 * plain);
  });

  it('real coated and uncoated offset rank as their names say: coated blacker, its white nearer to neutral', () => {
    const [c, u] = [coated, uncoated].map(({ reading }) => computeFigures(readingFacts(reading)));
    expect((c.dmax as ScalarFigure).value).toBeGreaterThan((u.dmax as ScalarFigure).value + 0.3);
    const chromaOf = ({ white }: typeof c) =>
      Math.hypot((white as ColourFigure).lab[1], (white as ColourFigure).lab[2]);
    expect(chromaOf(c)).toBeLessThan(chromaOf(u));
  });

  it('coated is more than twice uncoated', () => {
    expect(scalar(coated.reading, 'gamutVolume').value).toBeGreaterThan(
      2 * scalar(uncoated.reading, 'gamutVolume').value,
    );
  });

  it('the black ramp is read from black ink alone and its ends lie on the line', () => {
    const ramp = readingFacts(coated.reading).ramp!;
    expect(ramp.length).toBeGreaterThan(8);
    expect(ramp[ramp.length - 1].lab).toEqual([95, 0, -2]);
    expect(ramp[ramp.length - 1].chromaOffLine).toBe(0);
    for (let i = 1; i < ramp.length; i++) expect(ramp[i].lab[0]).toBeGreaterThan(ramp[i - 1].lab[0]);
  });
});

describe('what can’t be computed', () => {
  const greys: Reading = {
    colourFrom: 'Lab',
    patches: [10, 40, 70, 95].map((L, i) => ({ id: String(i), lab: [L, 0, 0], xyz: [0, L, 0] })),
  };
  it('says which reading is missing', () => {
    const figures = computeFigures(readingFacts(greys));
    expect(figures.gamutVolume).toMatchObject({
      shape: 'missing',
      why: expect.stringMatching(/^The corners of the gamut were not read/),
    });
    expect(figures.neutrality).toMatchObject({ shape: 'missing', why: expect.stringContaining('neutral ramp') });
    expect(figures.brightenerShift).toMatchObject({ shape: 'missing', why: expect.stringContaining('M1') });
  });
});

describe('differences in words', () => {
  const dmax = measure('dmax');
  const d = (value: number, sd = 0.002): ScalarFigure => ({ shape: 'scalar', value, sd });

  it.each([
    [2.41, 2.409, 0.002, 'within your noise'],
    [2.41, 2.39, 0.002, 'too small to see'],
    [2.41, 2.37, 0.002, 'visible edge to edge'],
    [2.41, 1.6, 0.002, 'visible across the room'],
    [2.41, 2.3, 0.05, 'within your noise'],
  ] as const)('Dmax %d against %d with a deviation of %d is %s (practice)', (l, r, sd, verdict) => {
    expect(differenceOf(dmax, d(l, sd), d(r, sd), DEFAULT_THRESHOLDS)?.verdict).toBe(verdict);
  });

  it('3 % of gamut volume is too small to see (practice)', () => {
    expect(differenceOf(measure('gamutVolume'), d(900_000, 500), d(873_000, 500), DEFAULT_THRESHOLDS)?.verdict).toBe(
      'too small to see',
    );
  });

  it('does not depend on which hand holds which, but for the sign', () => {
    const value = fc.double({ min: 0.1, max: 3, noNaN: true });
    fc.assert(
      fc.property(value, value, (x, y) => {
        const one = differenceOf(dmax, d(x), d(y), DEFAULT_THRESHOLDS)!;
        const other = differenceOf(dmax, d(y), d(x), DEFAULT_THRESHOLDS)!;
        expect(one.verdict).toBe(other.verdict);
        expect(one.amount).toBeCloseTo(-other.amount, 12);
      }),
    );
  });

  it('a missing figure has no difference', () => {
    expect(differenceOf(dmax, d(2), { shape: 'missing', why: '' }, DEFAULT_THRESHOLDS)).toBeUndefined();
  });
});

describe('digits', () => {
  it('shows none beyond the repeatability', () => {
    expect(supportedDigits(0.004, 2)).toBe(2);
    expect(supportedDigits(0.04, 2)).toBe(2);
    expect(supportedDigits(0.4, 2)).toBe(1);
    expect(supportedDigits(4, 2)).toBe(0);
    expect(formatFigure(measure('gamutVolume'), { shape: 'scalar', value: 912_345, sd: 700 })).toBe('912\u2009300');
    expect(formatNumber(-0.04, 1)).toBe('0.0');
    expect(formatNumber(-2, 1)).toBe('−2.0');
  });
});
