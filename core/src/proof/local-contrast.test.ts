import fc from 'fast-check';
import { applyLocal, localBase, type LightnessPlane } from './local-contrast.ts';
import { PLAIN } from './recipe.ts';

const SIDE = 240;
/** A print of 240 mm, a pixel a millimetre. */
const plane = (of: (x: number, y: number) => number): LightnessPlane => ({
  widthPx: SIDE,
  heightPx: SIDE,
  lightness: Float32Array.from({ length: SIDE * SIDE }, (_, i) => of(i % SIDE, Math.floor(i / SIDE))),
});
const wave = (mm: number) => (x: number) => 50 + 3 * Math.sin((2 * Math.PI * x) / mm);
const turned = (picture: LightnessPlane, recipe: Partial<typeof PLAIN>) => {
  const labs = new Float32Array(SIDE * SIDE * 3);
  picture.lightness.forEach((l, i) => (labs[i * 3] = l));
  applyLocal(labs, { ...PLAIN, ...recipe }, localBase(picture, SIDE), { widthPx: SIDE, heightPx: SIDE, first: 0 });
  return labs;
};
/** Half the way from the darkest to the lightest, in the middle of the picture. */
const amplitude = (labs: Float32Array) => {
  const row = Array.from({ length: 120 }, (_, i) => labs[((SIDE / 2) * SIDE + 60 + i) * 3]);
  return (Math.max(...row) - Math.min(...row)) / 2;
};

describe('contrast by its scale on paper', () => {
  it('grows at its own scale, and the tone it rides on stays', () => {
    const broad = turned(plane(wave(12)), { localBroad: 0.5 });
    expect(amplitude(broad)).toBeGreaterThan(3.8);
    expect(amplitude(broad)).toBeLessThan(5);
    const mean = (labs: Float32Array) => {
      let sum = 0;
      for (let i = 0; i < 120; i++) sum += labs[((SIDE / 2) * SIDE + 60 + i) * 3];
      return sum / 120;
    };
    expect(mean(broad)).toBeCloseTo(50, 0);
    // A swell of a hand's width is no local contrast.
    expect(amplitude(turned(plane(wave(200)), { localBroad: 0.5 }))).toBeLessThan(3.25);
    // What is fine is turned by the fine scale, what is broad hardly.
    expect(amplitude(turned(plane(wave(4)), { localFine: 0.5 }))).toBeGreaterThan(3.3);
    expect(amplitude(turned(plane(wave(60)), { localFine: 0.5 }))).toBeLessThan(3.1);
  });

  it('draws no halo along an edge', () => {
    const labs = turned(
      plane((x) => (x < SIDE / 2 ? 30 : 70)),
      { localBroad: 1 },
    );
    let most = 0;
    for (let i = 0; i < SIDE; i++) most = Math.max(most, labs[i * 3]);
    expect(most).toBeLessThan(72);
  });

  it('less is a softer picture, and nothing turned is the same picture', () => {
    expect(amplitude(turned(plane(wave(12)), { localBroad: -0.5 }))).toBeLessThan(2.4);
    const same = turned(plane(wave(12)), {});
    expect(same[0]).toBe(plane(wave(12)).lightness[0]);
  });

  it('a part of a picture is turned as the whole is', () => {
    const picture = plane((x, y) => 50 + 5 * Math.sin(x / 3) + 4 * Math.cos(y / 7));
    const base = localBase(picture, SIDE);
    const whole = turned(picture, { localFine: 0.6, localBroad: 0.4 });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: SIDE - 21 }), fc.integer({ min: 0, max: SIDE - 21 }), (left, top) => {
        const labs = new Float32Array(20 * 20 * 3);
        for (let i = 0; i < 400; i++)
          labs[i * 3] = picture.lightness[(top + Math.floor(i / 20)) * SIDE + left + (i % 20)];
        applyLocal(labs, { ...PLAIN, localFine: 0.6, localBroad: 0.4 }, base, {
          widthPx: 20,
          heightPx: 20,
          first: 0,
          part: { x: left / SIDE, y: top / SIDE, width: 20 / SIDE, height: 20 / SIDE },
        });
        let off = 0;
        for (let i = 0; i < 400; i++)
          off = Math.max(off, Math.abs(labs[i * 3] - whole[((top + Math.floor(i / 20)) * SIDE + left + (i % 20)) * 3]));
        expect(off).toBeLessThan(0.01);
      }),
      { numRuns: 10 },
    );
  });

  it('black and white stay, whatever is turned', () => {
    const labs = turned(
      plane((x, y) => ((x + y) % 2 ? 100 : 0)),
      { localFine: 1, localBroad: 1 },
    );
    expect(labs.every((v, i) => i % 3 !== 0 || v < 0.5 || v > 99.5)).toBe(true);
  });
});
