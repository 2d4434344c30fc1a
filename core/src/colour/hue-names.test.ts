import fc from 'fast-check';
import { rgbToLab, SRGB } from './rgb-space.ts';
import { colourWords } from './hue-names.ts';
import { chroma, hueDegrees } from './lab.ts';

describe('a printmaker’s words for colours', () => {
  it.each<[string, [number, number, number], string]>([
    ['sRGB red', [1, 0, 0], 'reds'],
    ['sRGB green', [0, 1, 0], 'light greens'],
    ['a mid green', [0.2, 0.5, 0.2], 'greens'],
    ['sRGB blue', [0, 0, 1], 'deep blues'],
    ['a navy', [0.02, 0.06, 0.3], 'deep blues'],
    ['sodium light', [0.95, 0.55, 0.05], 'oranges'],
    ['a pale yellow', [1, 0.95, 0.5], 'light yellows'],
    ['a mid grey', [0.5, 0.5, 0.5], 'greys'],
    ['nearly black', [0.05, 0.05, 0.05], 'dark greys'],
  ])('%s', (_, rgb, words) => expect(colourWords(rgbToLab(SRGB, rgb))).toBe(words));

  it('every colour has a word', () => {
    const c = fc.double({ min: -128, max: 128, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), c, c, (L, a, b) => {
        expect(colourWords([L, a, b])).toMatch(/^((deep|light|dark) )?[a-z- ]+s$/);
        expect(hueDegrees([L, a, b])).toBeGreaterThanOrEqual(0);
        expect(hueDegrees([L, a, b])).toBeLessThanOrEqual(360);
        expect(chroma([L, a, b])).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});
