import { describeBeside, describePair, describeWhites, LATER_SET } from './sentences.ts';
import { MEASURES } from './measures/registry.ts';
import { DEFAULT_THRESHOLDS } from './thresholds.ts';
import type { Figure } from './figure.ts';

const figures = (dmax: number, volume: number, white: [number, number, number]): Record<string, Figure> => ({
  dmax: { shape: 'scalar', value: dmax, sd: 0.003 },
  gamutVolume: { shape: 'scalar', value: volume, sd: 300 },
  white: { shape: 'colour', lab: white, sd: 0.02 },
  brightenerShift: { shape: 'missing', why: 'A reading without UV (M2) is missing.' },
});

describe('the pair in hand', () => {
  const told = describePair(
    MEASURES,
    figures(2.5, 860_000, [97.8, 0, 0.7]),
    figures(1.61, 845_000, [97.4, 1.6, -4.2]),
    DEFAULT_THRESHOLDS,
  );

  it('is told in sentences, what can be seen first', () => {
    expect(told.map((t) => t.verdict)).toEqual([
      'visible across the room',
      'visible across the room',
      'too small to see',
    ]);
    expect(told.map((t) => t.sentence)).toEqual([
      'The left sheet is blacker by 0.89 D: visible across the room.',
      'Paper white: 5.0 ΔE00 apart, the left one yellower by 4.9, greener by 1.6: visible across the room.',
      'The left sheet is larger in gamut by 1.8 %: too small to see.',
    ]);
  });

  it('a later set is spoken of as one', () => {
    const [white, black] = describePair(
      MEASURES,
      figures(2.44, 860_000, [97.8, 0, 0.7]),
      figures(2.5, 860_000, [97.8, 0, 3]),
      DEFAULT_THRESHOLDS,
      LATER_SET,
    );
    expect(white.sentence).toMatch(/^Paper white: .* the later one bluer by 2\.3/);
    expect(black.sentence).toBe('The later set is less black by 0.06 D: visible edge to edge.');
  });

  it('what the hand feels is said without a verdict of the eye, and only beyond the noise', () => {
    const body = (gsm: number, gloss: number): Record<string, Figure> => ({
      weight: { shape: 'scalar', value: gsm, sd: 1 },
      gloss60: { shape: 'scalar', value: gloss, sd: 0.3 },
    });
    expect(describeBeside(MEASURES, body(315, 50), body(261, 2)).map((t) => t.sentence)).toEqual([
      'The left sheet is heavier by 54 g/m².',
    ]);
    expect(describeBeside(MEASURES, body(262, 50), body(261, 2))).toEqual([]);
    expect(describePair(MEASURES, body(315, 50), body(261, 2), DEFAULT_THRESHOLDS)[0].sentence).toBe(
      'The left sheet is glossier by 48.0 GU: visible across the room.',
    );
  });

  it('a light that wakes brightener parts two whites, and one without UV brings them together', () => {
    const words = describeWhites(
      [
        [97, 1, -4.2],
        [97, 0, 0.1],
      ],
      [
        [97, 0, 0.2],
        [97, 0, 0.1],
      ],
      'daylight at a window',
    );
    expect(words).toBe(
      'Under daylight at a window the left white is 4.3 bluer; without UV the two whites are the same.',
    );
    expect(
      describeWhites(
        [
          [97, 0, 0.2],
          [97, 0, 0.1],
        ],
        [
          [97, 0, 0.2],
          [97, 0, 0.1],
        ],
        'D50',
      ),
    ).toBeUndefined();
  });

  it('leaves out what was not measured', () => expect(told.some((t) => t.measure === 'brightenerShift')).toBe(false));

  it('an echo is told where it is seen and what it follows from is not', () => {
    const figures = (dmax: number, range: number): Record<string, Figure> => ({
      dmax: { shape: 'scalar', value: dmax, sd: 0.001 },
      densityRange: { shape: 'scalar', value: range, sd: 0.001 },
    });
    const keys = (l: Record<string, Figure>, r: Record<string, Figure>) =>
      describePair(MEASURES, l, r, DEFAULT_THRESHOLDS).map((t) => t.measure);
    expect(keys(figures(2.01, 1.95), figures(2, 1.9))).toEqual(['densityRange', 'dmax']);
    expect(keys(figures(2.2, 2.1), figures(2, 1.9))).toEqual(['dmax']);
  });

  it('the furthest above what can be seen comes first', () => {
    const [l, r]: Record<string, Figure>[] = [2.4, 2].map((dmax, i) => ({
      dmax: { shape: 'scalar', value: dmax, sd: 0.001 },
      gamutVolume: { shape: 'scalar', value: i === 0 ? 900_000 : 450_000, sd: 100 },
    }));
    expect(describePair(MEASURES, l, r, DEFAULT_THRESHOLDS).map((t) => t.sentence)).toEqual([
      'The left sheet is larger in gamut by 100.0 %: visible across the room.',
      'The left sheet is blacker by 0.40 D: visible across the room.',
    ]);
    // From the other side it is the other's half that is missing.
    expect(describePair(MEASURES, r, l, DEFAULT_THRESHOLDS)[1].sentence).toContain('smaller in gamut by 50.0 %');
  });
});
