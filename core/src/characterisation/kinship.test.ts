import { halton } from '../halton.ts';
import { kinPrinter, kinshipOf, type Kinship, type Like } from './kinship.ts';

const BANDS = 31;
/** A printer of three inks, in a few waves. */
const like: Like = {
  bands: Float64Array.from({ length: BANDS }, (_, i) => i / (BANDS - 1)),
  print: (device) =>
    Float64Array.from({ length: BANDS }, (_, i) => {
      const x = i / (BANDS - 1);
      const density = device.reduce(
        (s, v, c) => s + (1 - v) * 1.4 * Math.exp(-(((x - [0.85, 0.5, 0.15][c]) / 0.25) ** 2)),
        0,
      );
      return 0.006 + 0.88 * 10 ** -density;
    }),
};
const own = like.print([1, 1, 1]);
const samples = Array.from({ length: 30 }, (_, i) => ({ device: [2, 3, 5].map((base) => halton(i + 1, base)) }));
const SAME: Kinship = { surface: 0.0042, strength: [1, 1, 1], bend: [1, 1, 1] };

describe('one print told from another', () => {
  const { print, whites } = kinPrinter(like, own);

  it('a print that is its like comes out as its like', () => {
    const kin = { ...SAME, surface: whites.likeSurface };
    for (const { device } of samples)
      print(kin, device).forEach((v, i) => expect(v).toBeCloseTo(like.print(device)[i], 9));
  });

  it('on a whiter sheet its white is the sheet’s own', () => {
    const whiter = Array.from(own, (v) => v * 1.05);
    print(SAME, [1, 1, 1]).forEach((v, i) => expect(v).toBeCloseTo(own[i], 9));
    kinPrinter(like, whiter)
      .print(SAME, [1, 1, 1])
      .forEach((v, i) => expect(v).toBeCloseTo(whiter[i], 9));
  });

  it('stronger inks are darker everywhere; a surface that shines lifts the black', () => {
    const strong = print({ ...SAME, strength: [1.3, 1.3, 1.3] }, [0.2, 0.3, 0.4]);
    print(SAME, [0.2, 0.3, 0.4]).forEach((v, i) => expect(strong[i]).toBeLessThan(v));
    const shining = print({ ...SAME, surface: 0.02 }, [0, 0, 0]);
    print(SAME, [0, 0, 0]).forEach((v, i) => expect(shining[i]).toBeGreaterThan(v));
  });

  it('what made a print is found again from thirty patches of it', () => {
    const made: Kinship = { surface: 0.008, strength: [1.12, 0.93, 1.05], bend: [1.08, 0.94, 1.03] };
    const read = samples.map((s) => print(made, s.device));
    const found = kinshipOf(like, samples, read, own);
    found.strength.forEach((v, c) => expect(v).toBeCloseTo(made.strength[c], 1));
    found.bend.forEach((v, c) => expect(v).toBeCloseTo(made.bend[c], 1));
    for (const { device } of samples)
      print(found, device).forEach((v, i) => expect(Math.cbrt(v)).toBeCloseTo(Math.cbrt(print(made, device)[i]), 2));
  });

  it('from three patches it stays near the like, where the like would do as well', () => {
    const few = samples.slice(0, 3);
    const found = kinshipOf(
      like,
      few,
      few.map((s) => like.print(s.device)),
      own,
    );
    for (const v of [...found.strength, ...found.bend]) expect(Math.abs(v - 1)).toBeLessThan(0.05);
    expect(found.surface).toBeGreaterThanOrEqual(0);
  });
});
