import { converter } from 'culori';
import fc from 'fast-check';
import { screenPixels } from './screen.ts';

const toRgb = converter('rgb');
const codesOf = (lab: readonly number[]) => [...screenPixels(Float32Array.from(lab)).pixels];
/** As another library has it: CIELAB of D50 on a screen of sRGB. */
const theirs = ([l, a, b]: readonly number[]) => {
  const { r, g, b: blue } = toRgb({ mode: 'lab', l, a, b });
  return [r, g, blue].map((v) => Math.round(255 * Math.min(1, Math.max(0, v))));
};

describe('a picture on the screen', () => {
  it('has the codes another library gives it, to one code (culori; fast-check)', () =>
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: 1, max: 99, noNaN: true }),
          fc.double({ min: -25, max: 25, noNaN: true }),
          fc.double({ min: -25, max: 25, noNaN: true }),
        ),
        (lab) => {
          const expected = theirs(lab);
          codesOf(lab).forEach((code, c) => expect(Math.abs(code - expected[c])).toBeLessThanOrEqual(1));
        },
      ),
    ));

  it('greys have no tint, from black to white, and rise', () => {
    let before = -1;
    for (let L = 0; L <= 100; L++) {
      const [r, g, b] = codesOf([L, 0, 0]);
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThanOrEqual(1);
      expect(g).toBeGreaterThanOrEqual(before);
      before = g;
    }
    expect(codesOf([100, 0, 0])).toEqual([255, 255, 255]);
  });

  it('counts what it can’t show, and not what is only rounded', () => {
    const labs = Float32Array.of(50, 0, 0, 60, 90, 60, 100, 0, 0, 20, -60, 20, 0, 0, 0);
    expect(screenPixels(labs).beyond).toBe(2);
    expect(screenPixels(new Float32Array(0))).toEqual({ pixels: new Uint8Array(0), beyond: 0 });
  });
});
