import fc from 'fast-check';
import { simplexOf } from '../characterisation/lattice.ts';
import { throughPrinted } from '../characterisation/printed.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import { mapThree } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';
import { deviceSurface } from '../gamut/device-surface.ts';
import { mapMesh } from '../gamut/mesh.ts';
import { LabCells } from '../picture/cells.ts';
import { seededRandom } from '../random.ts';
import { laySolid } from './lay.ts';
import { onSheet } from './on-sheet.ts';
import { paletteOf, SHADOW_L, STEP_L } from './palette.ts';
import { matchAim, readySheet, surelyHeld } from './ready-sheet.ts';

/** A made-up sheet of a fifth less chroma than sRGB and a black of L* 12. */
const surface = deviceSurface(
  Array.from({ length: 5 }, (_, i) => i / 4),
  (rgb) => rgbToLab(SRGB, rgb),
)!;
const sheet = laySolid(
  mapMesh(surface, ([L, a, b]): Lab => [12 + L * 0.88, a * 0.8, b * 0.8]),
  [100, 0, 0],
  [12, 0, 0],
  17,
);

/** Colours as a picture has them: crowded here, thinly strewn there. */
function colours(seed: number, count = 40_000): Float32Array {
  const random = seededRandom(seed);
  const labs = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    const reach = random() ** 2;
    const hue = 2 * Math.PI * random();
    labs.set([100 * random(), 85 * reach * Math.cos(hue), 85 * reach * Math.sin(hue)], i * 3);
  }
  return labs;
}

describe('a picture laid on a sheet', () => {
  it('of many colours has the shares beside a bound of L* that its pixels have, though few of each lie there', () => {
    const random = seededRandom(8);
    const pixels = 400_000;
    const labs = new Float32Array(pixels * 3);
    // Steep about the bound: far more just below it than just above.
    for (let i = 0; i < pixels; i++)
      labs.set([25 + 2 * (1 - 1.8 * Math.sqrt(random())), 60 * random() - 30, 60 * random() - 30], i * 3);
    const cells = new LabCells(pixels);
    cells.add(labs);
    const palette = paletteOf(cells.occupied(pixels), 17);
    expect(palette.count).toBeLessThan(cells.occupied(pixels).count / 2);
    const dark = labs.filter((L, i) => i % 3 === 0 && L < SHADOW_L).length / pixels;
    expect(Math.abs(palette.shadowShare - dark)).toBeLessThan(0.001);
    for (const L of [23.5, 24, 25.5])
      expect(
        Math.abs(palette.below[L / STEP_L] - labs.filter((v, i) => i % 3 === 0 && v < L).length / pixels),
      ).toBeLessThan(0.001);
  });

  it.each([1, 2, 3])('has the shares and means that its pixels have, one by one (%d)', (seed) => {
    const labs = colours(seed);
    const pixels = labs.length / 3;
    const cells = new LabCells(pixels);
    cells.add(labs);
    const figures = onSheet(paletteOf(cells.occupied(pixels), 17), [], readySheet({ bare: sheet, seen: sheet }));

    const out = new Float32Array(labs.length);
    throughPrinted(sheet.lattice, labs, out);
    const aimAt = matchAim(sheet.blackL);
    let [outside, lost, error, dark] = [0, 0, 0, 0];
    for (let i = 0; i < labs.length; i += 3) {
      const lab: Lab = [labs[i], labs[i + 1], labs[i + 2]];
      const printed: Lab = [out[i], out[i + 1], out[i + 2]];
      const off = deltaE2000(aimAt(lab), printed);
      if (off > 1) [outside, lost] = [outside + 1, lost + off];
      if (lab[0] < sheet.blackL) dark++;
      error += deltaE2000(lab, printed);
    }
    // Shares to 0.3 points, means to a few hundredths, as a lattice of 17 has them.
    expect(outside / pixels).toBeGreaterThan(0.05);
    expect(Math.abs(figures.outsideShare - outside / pixels)).toBeLessThan(0.003);
    expect(Math.abs(figures.darkerThanBlackShare - dark / pixels)).toBeLessThan(0.003);
    expect(Math.abs(figures.colourLostDeltaE - lost / pixels)).toBeLessThan(0.03);
    expect(Math.abs(figures.meanDeltaE - error / pixels)).toBeLessThan(0.07);
    expect(figures.lostFamilies.length).toBeGreaterThan(0);
  });

  it('no difference that is passed over unseen is a step that could be seen', () => {
    const part = fc.double({ min: -1.2, max: 1.2, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: 0, max: 100, noNaN: true }),
          fc.double({ min: -120, max: 120, noNaN: true }),
          fc.double({ min: -120, max: 120, noNaN: true }),
        ),
        fc.tuple(part, part, part),
        (lab, d) => {
          fc.pre(surelyHeld(...d));
          expect(
            deltaE2000(
              lab,
              mapThree(lab, (v, c) => v + d[c]),
            ),
          ).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
      { numRuns: 2_000 },
    );
  });

  it('is told at once where colours were made ready for another lattice', () => {
    const cells = new LabCells(3);
    cells.add(Float32Array.of(50, 0, 0));
    expect(() => onSheet(paletteOf(cells.occupied(1), 33), [], readySheet({ bare: sheet, seen: sheet }))).toThrow(
      /another size/,
    );
  });
});

it('the nodes about a place give what the lattice gives there', () => {
  const at = fc.double({ min: -0.1, max: 1.1, noNaN: true });
  fc.assert(
    fc.property(at, at, at, (L, a, b) => {
      const corners = new Int32Array(4);
      const weights = new Float64Array(4);
      simplexOf(3, 33, [L, a, b], corners, weights, 0);
      expect(weights.reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
      // A lattice of straight lines is read exactly, and held at its ends.
      const held = (v: number) => Math.min(1, Math.max(0, v));
      const axis = (n: number, stride: number) => (Math.floor(n / stride) % 33) / 32;
      [33 * 33, 33, 1].forEach((stride, x) =>
        expect(corners.reduce((s, n, i) => s + weights[i] * axis(n, stride), 0)).toBeCloseTo(held([L, a, b][x]), 9),
      );
    }),
  );
});
