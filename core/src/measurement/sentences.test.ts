import { describePair, LATER_SET } from './sentences.ts';
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
  const told = describePair(MEASURES, figures(2.5, 860_000, [97.8, 0, 0.7]), figures(1.61, 845_000, [97.4, 1.6, -4.2]), DEFAULT_THRESHOLDS);

  it('is told in sentences, what can be seen first', () => {
    expect(told.map((t) => t.verdict)).toEqual(['visible across the room', 'visible across the room', 'too small to see']);
    expect(told.map((t) => t.sentence)).toEqual([
      'Paper white: 5.0 ΔE00 apart, the left one yellower by 4.9, greener by 1.6: visible across the room.',
      'The left sheet is blacker by 0.89 D: visible across the room.',
      'The left sheet is larger in gamut by 1.7 %: too small to see.',
    ]);
  });

  it('a later set is spoken of as one', () => {
    const [white, black] = describePair(MEASURES, figures(2.44, 860_000, [97.8, 0, 0.7]), figures(2.5, 860_000, [97.8, 0, 3]), DEFAULT_THRESHOLDS, LATER_SET);
    expect(white.sentence).toMatch(/^Paper white: .* the later one bluer by 2\.3/);
    expect(black.sentence).toBe('The later set is less black by 0.06 D: visible edge to edge.');
  });

  it('leaves out what was not measured', () => expect(told.some((t) => t.measure === 'brightenerShift')).toBe(false));
});
