import { asThree } from '../colour/three.ts';
import fc from 'fast-check';
import quickHull from 'quickhull3d';
import { rgbToLab, ADOBE_RGB_1998, SRGB } from '../colour/rgb-space.ts';
import type { Lab } from '../colour/types.ts';
import { deltaE76 } from '../colour/difference.ts';
import { seededRandom } from '../random.ts';
import { convexHull, distinct } from './convex-hull.ts';
import { deviceSurface } from './device-surface.ts';
import { meshVolume } from './mesh.ts';
import { indexMesh } from './mesh-index.ts';
import { modifiedHull } from './modified-hull.ts';
import { abOutline } from './outline.ts';

const levels = (n: number) => Array.from({ length: n }, (_, i) => i / (n - 1));
const solid = (space: typeof SRGB, n = 17) => deviceSurface(levels(n), (rgb) => rgbToLab(space, rgb))!;

describe('volume', () => {
  it.each([
    ['sRGB', SRGB, 832_870],
    ['Adobe RGB (1998)', ADOBE_RGB_1998, 1_208_631],
  ] as const)(
    '%s is %d–%d cubic Lab units within 0.3 %% (Lindbloom, table of RGB working spaces)',
    (_, space, published) => {
      expect(Math.abs(meshVolume(solid(space, 33)) / published - 1)).toBeLessThan(0.003);
    },
  );

  it('a box of sides 10, 20, 30 holds 6,000, wherever it stands', () => {
    const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, (x, y, z) => {
        const box = [0, 1, 2, 3, 4, 5, 6, 7].map((i): Lab => [
          x + (i & 1) * 10,
          y + ((i >> 1) & 1) * 20,
          z + (i >> 2) * 30,
        ]);
        expect(meshVolume(convexHull(box))).toBeCloseTo(6000, 6);
      }),
    );
  });

  it('the convex hull is that of quickhull3d, and closed', () => {
    const coordinate = fc.integer({ min: -20, max: 20 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(coordinate, coordinate, coordinate), { minLength: 8, maxLength: 120 }),
        fc.boolean(),
        (list, scattered) => {
          const random = seededRandom(list.length);
          const points = distinct(
            list.map((p): Lab => (scattered ? [p[0] + random(), p[1] + random(), p[2] + random()] : p)),
          );
          let ours;
          try {
            ours = convexHull(points);
          } catch (error) {
            expect((error as Error).message).toMatch(/in one plane|at least four/);
            return;
          }
          const theirs = {
            vertices: points,
            triangles: quickHull(points.map((p) => [...p])).map(asThree),
          };
          expect(meshVolume(ours)).toBeCloseTo(meshVolume(theirs), 6);
          const edges = new Set(ours.triangles.flatMap(([i, j, k]) => [`${i},${j}`, `${j},${k}`, `${k},${i}`]));
          for (const edge of edges) expect(edges.has(edge.split(',').reverse().join())).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('the modified hull comes within 3 % of the device surface and the plain hull does not', () => {
    for (const space of [SRGB, ADOBE_RGB_1998]) {
      const truth = meshVolume(solid(space, 9));
      const random = seededRandom(7);
      const inside = Array.from({ length: 300 }, () => rgbToLab(space, [random(), random(), random()]));
      const points = [...solid(space, 9).vertices, ...inside];
      expect(Math.abs(meshVolume(modifiedHull(points)) / truth - 1)).toBeLessThan(0.03);
      expect(meshVolume(convexHull(distinct(points))) / truth - 1).toBeGreaterThan(0.03);
    }
  });

  it('the modified hull with exponent 1 is the plain hull', () => {
    const points = solid(SRGB, 5).vertices;
    expect(meshVolume(modifiedHull(points, 1))).toBeCloseTo(meshVolume(convexHull(distinct(points))), 3);
  });

  it('says so when there is nothing to enclose', () => {
    expect(() =>
      modifiedHull([
        [10, 0, 0],
        [90, 0, 0],
        [50, 0, 0],
        [30, 0, 0],
        [20, 0, 0],
      ]),
    ).toThrow(/one line or in one plane/);
    expect(() => convexHull([[1, 2, 3]])).toThrow(/at least four/);
  });
});

describe('inside and nearest', () => {
  const mesh = solid(SRGB, 9);
  const index = indexMesh(mesh);
  const channel = fc.double({ min: 0.05, max: 0.95, noNaN: true });

  it('every colour of the device is inside, to the coarseness of the net', () => {
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        const lab = rgbToLab(SRGB, [r, g, b]);
        return index.contains(lab) || index.nearest(lab).distance < 1;
      }),
    );
  });

  it('colours no device has are outside', () => {
    for (const lab of [
      [50, 120, 0],
      [120, 0, 0],
      [-5, 0, 0],
      [90, 0, -60],
      [20, -60, 0],
    ] as Lab[])
      expect(index.contains(lab)).toBe(false);
  });

  it('finds the nearest colour of the surface as looking at every corner and face middle would, or a nearer one', () => {
    const lab = fc.tuple(
      fc.double({ min: -20, max: 120, noNaN: true }),
      fc.double({ min: -150, max: 150, noNaN: true }),
      fc.double({ min: -150, max: 150, noNaN: true }),
    );
    const samples = mesh.triangles.flatMap(([i, j, k]) => {
      const [p, q, r] = [mesh.vertices[i], mesh.vertices[j], mesh.vertices[k]];
      return [p, q, r, asThree([0, 1, 2].map((c) => (p[c] + q[c] + r[c]) / 3))];
    });
    fc.assert(
      fc.property(lab, (point) => {
        const found = index.nearest(point);
        const sampled = Math.min(...samples.map((s) => deltaE76(s, point)));
        expect(found.distance).toBeLessThanOrEqual(sampled + 1e-9);
        expect(deltaE76(found.lab, point)).toBeCloseTo(found.distance, 9);
        // The surface lies no further from its samples than half the longest edge.
        expect(found.distance).toBeGreaterThan(sampled - 25);
      }),
      { numRuns: 60 },
    );
  });
});

describe('outline', () => {
  it('reaches as far as the most saturated colours and no further', () => {
    const mesh = solid(SRGB, 9);
    const outline = abOutline(mesh, 360);
    const most = Math.max(...mesh.vertices.map((v) => Math.hypot(v[1], v[2])));
    const reach = Math.max(...outline.map((p) => p.chroma));
    expect(reach).toBeLessThanOrEqual(most + 1e-9);
    expect(reach).toBeGreaterThan(most - 1.5);
    expect(outline).toHaveLength(360);
    expect(Math.min(...outline.map((p) => p.chroma))).toBeGreaterThan(20);
  });
});
