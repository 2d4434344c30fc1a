import { CONTOUR_HUES, hueContours, lightnessContours, outermost } from './contours.ts';
import type { GamutMesh } from './mesh.ts';

/** A double cone: black at 0, white at 100, chroma 60 at L* 50. */
const SIDES = 72;
const cone: GamutMesh = {
  vertices: [
    [0, 0, 0],
    [100, 0, 0],
    ...Array.from({ length: SIDES }, (_, i): [number, number, number] => {
      const h = (2 * Math.PI * (i + 0.37)) / SIDES;
      return [50, 60 * Math.cos(h), 60 * Math.sin(h)];
    }),
  ],
  triangles: Array.from({ length: SIDES }, (_, i) => [2 + i, 2 + ((i + 1) % SIDES)] as const).flatMap(([p, q]) => [
    [0, q, p] as [number, number, number],
    [1, p, q] as [number, number, number],
  ]),
};

it('a solid is drawn by its heights: at every lightness a line of that lightness, as wide as the solid is there', () => {
  for (const contour of lightnessContours(cone)) {
    const chroma = 60 * (1 - Math.abs(contour.at - 50) / 50);
    for (const [L, a, b] of contour.pieces.flat()) {
      expect(L).toBe(contour.at);
      expect(Math.hypot(a, b)).toBeGreaterThan(chroma * 0.99);
      expect(Math.hypot(a, b)).toBeLessThan(chroma * 1.001);
    }
    expect(contour.pieces.length).toBeGreaterThanOrEqual(SIDES);
    expect(outermost(contour, 90)![2]).toBeCloseTo(chroma, 0);
  }
});

it('and by its meridians: twelve hues, each from black over its widest to white', () => {
  const lines = hueContours(cone);
  expect(lines.map((l) => l.at)).toEqual(CONTOUR_HUES);
  for (const { at, pieces } of lines) {
    const points = pieces.flat();
    expect(Math.max(...points.map((p) => Math.hypot(p[1], p[2])))).toBeGreaterThan(59);
    for (const [, a, b] of points)
      if (Math.hypot(a, b) > 1) {
        const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
        expect(Math.abs(((hue - at + 540) % 360) - 180)).toBeLessThan(1e-6);
      }
  }
  expect(outermost({ at: 0, pieces: [] }, 0)).toBeUndefined();
});
