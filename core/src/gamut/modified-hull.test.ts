import fc from 'fast-check';
import type { Lab } from '../colour/types.ts';
import { seededRandom } from '../random.ts';
import { convexHull, distinct } from './convex-hull.ts';
import { centreOf, mapMesh, meshVolume } from './mesh.ts';
import { indexMesh } from './mesh-index.ts';
import { modifiedHull } from './modified-hull.ts';

/** Points on a solid with a waist: the radius is 40 at both ends of the a* axis and `waist` around its middle. */
function waisted(waist: number, count: number, seed: number): { points: Lab[]; volume: number } {
  const random = seededRandom(seed);
  const radius = (x: number) => waist + (40 - waist) * x * x;
  const points = Array.from({ length: count }, (): Lab => {
    const z = 2 * random() - 1;
    const t = 2 * Math.PI * random();
    const s = Math.sqrt(1 - z * z);
    const [x, y] = [s * Math.cos(t), s * Math.sin(t)];
    const r = radius(x);
    return [50 + r * z, r * x, r * y];
  });
  // ∫ r³/3 over the sphere; around the a* axis, x is uniform in −1…1.
  const steps = 2000;
  let volume = 0;
  for (let i = 0; i < steps; i++) volume += (2 * Math.PI * radius(-1 + (2 * i + 1) / steps) ** 3 * (2 / steps)) / 3;
  return { points, volume };
}

describe('the modified hull (Balasubramanian & Dalal 1997)', () => {
  it('recovers a known solid with a waist better than the plain hull', () => {
    for (const waist of [12, 15, 18]) {
      const { points, volume } = waisted(waist, 3000, waist);
      const modified = Math.abs(meshVolume(modifiedHull(points)) / volume - 1);
      const plain = Math.abs(meshVolume(convexHull(points)) / volume - 1);
      expect(modified).toBeLessThan(0.05);
      expect(plain).toBeGreaterThan(modified + 0.005);
    }
  });

  it('is never larger than the plain hull and holds its own middle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 12, max: 200 }), (seed, count) => {
        const random = seededRandom(seed);
        const points = distinct(
          Array.from({ length: count }, (): Lab => [5 + 90 * random(), 160 * random() - 80, 160 * random() - 80]),
        );
        expect(meshVolume(modifiedHull(points))).toBeLessThanOrEqual(meshVolume(convexHull(points)) * (1 + 1e-9));
      }),
      { numRuns: 100 },
    );
    const { points } = waisted(30, 400, 5);
    expect(indexMesh(modifiedHull(points)).contains(centreOf(points))).toBe(true);
  });

  it('turned, shifted and scaled it is the same solid', () => {
    const { points } = waisted(30, 500, 9);
    const volume = meshVolume(modifiedHull(points));
    const moved = points.map(([L, a, b]): Lab => [2 * L + 7, -2 * b, 2 * a + 3]);
    expect(meshVolume(modifiedHull(moved)) / volume / 8).toBeCloseTo(1, 2);
    expect(meshVolume(mapMesh(modifiedHull(points), ([L, a, b]) => [2 * L, 2 * a, 2 * b]))).toBeCloseTo(8 * volume, 3);
  });

  it('patches read twice do not change it', () => {
    const { points } = waisted(30, 300, 3);
    expect(meshVolume(modifiedHull([...points, ...points]))).toBeCloseTo(meshVolume(modifiedHull(points)), 6);
  });
});
