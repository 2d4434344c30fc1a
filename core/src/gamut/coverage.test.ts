import fc from 'fast-check';
import { ADOBE_RGB_1998, ROMM_RGB, SRGB } from '../colour/rgb-space.ts';
import type { Lab } from '../colour/types.ts';
import { seededRandom } from '../random.ts';
import { columnsOf } from './columns.ts';
import { convexHull } from './convex-hull.ts';
import { coverage, reachesBeyond } from './coverage.ts';
import { meshVolume, type GamutMesh } from './mesh.ts';
import { sliceAtHue, sliceAtLightness } from './slices.ts';
import { spaceSolid } from './working-spaces.ts';

const [srgb, adobe] = [spaceSolid(SRGB), spaceSolid(ADOBE_RGB_1998)];
const box = ([L, a, b]: Lab, [dL, da, db]: Lab): GamutMesh =>
  convexHull([0, 1, 2, 3, 4, 5, 6, 7].map((i): Lab => [L + (i & 1) * dL, a + ((i >> 1) & 1) * da, b + (i >> 2) * db]));
const cloud = (seed: number): GamutMesh => {
  const random = seededRandom(seed);
  return convexHull(Array.from({ length: 40 }, (): Lab => [100 * random(), 120 * random() - 60, 120 * random() - 60]));
};

describe('columns', () => {
  it('hold the volume of the mesh, to 0.2 %', () => {
    for (const mesh of [srgb, adobe, box([10, -30, -20], [50, 40, 60])])
      expect(Math.abs(columnsOf(mesh).volume / meshVolume(mesh) - 1)).toBeLessThan(
        0.002 + 0.01 * Number(mesh.vertices.length < 10),
      );
  });
});

describe('coverage', () => {
  it('of sRGB in Adobe RGB (1998) is 100 %, the reverse 68–70 % (Lindbloom’s volumes give 68.9 %)', () => {
    const { firstCoversSecond, secondCoversFirst } = coverage(columnsOf(adobe), columnsOf(srgb));
    expect(firstCoversSecond).toBeGreaterThan(0.998);
    expect(firstCoversSecond).toBeLessThanOrEqual(1);
    expect(secondCoversFirst).toBeGreaterThan(0.68);
    expect(secondCoversFirst).toBeLessThan(0.7);
  });

  it('ROMM RGB (ISO 22028-2) holds both', () => {
    const romm = columnsOf(spaceSolid(ROMM_RGB));
    for (const mesh of [srgb, adobe]) expect(coverage(romm, columnsOf(mesh)).firstCoversSecond).toBeGreaterThan(0.99);
  });

  it('of a set by itself is 100 %; of two that do not meet, 0; it is symmetric and never more than the smaller', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 1, max: 5000 }), (s, t) => {
        const [p, q] = [columnsOf(cloud(s), 2), columnsOf(cloud(t), 2)];
        const there = coverage(p, q);
        const back = coverage(q, p);
        expect(there.intersection).toBeCloseTo(back.intersection, 6);
        expect(there.firstCoversSecond).toBeCloseTo(back.secondCoversFirst, 9);
        expect(there.intersection).toBeLessThanOrEqual(Math.min(p.volume, q.volume) + 1e-6);
        expect(coverage(p, p)).toMatchObject({ firstCoversSecond: 1, secondCoversFirst: 1 });
      }),
      { numRuns: 30 },
    );
    expect(
      coverage(columnsOf(box([0, 0, 0], [10, 10, 10])), columnsOf(box([0, 50, 50], [10, 10, 10]))).intersection,
    ).toBe(0);
  });

  it('two boxes overlap by the box they share', () => {
    const shared = coverage(
      columnsOf(box([0, 0, 0], [60, 40, 40]), 0.5),
      columnsOf(box([30, 20, 10], [60, 40, 40]), 0.5),
    ).intersection;
    expect(Math.abs(shared / (30 * 20 * 30) - 1)).toBeLessThan(0.03);
  });

  it('columns of different steps are not compared', () =>
    expect(() => coverage(columnsOf(srgb, 1), columnsOf(srgb, 2))).toThrow(RangeError));
});

describe('where one reaches beyond the other', () => {
  it('is said in words: Adobe RGB (1998) has greens that sRGB has not, and sRGB has nothing of its own', () => {
    const [a, s] = [columnsOf(adobe), columnsOf(srgb)];
    const words = reachesBeyond(a, s);
    expect(
      words
        .slice(0, 4)
        .map((w) => w.words)
        .join(),
    ).toMatch(/greens/);
    expect(words.reduce((sum, w) => sum + w.volume, 0)).toBeCloseTo(a.volume - coverage(a, s).intersection, 3);
    expect(reachesBeyond(s, a).reduce((sum, w) => sum + w.volume, 0)).toBeLessThan(0.003 * s.volume);
  });

  it('a box taller than another reaches beyond it in its deep part alone', () => {
    const beyond = reachesBeyond(
      columnsOf(box([10, 20, -60], [60, 20, 20])),
      columnsOf(box([30, 20, -60], [40, 20, 20])),
    );
    for (const { words, highL } of beyond) {
      expect(words).toMatch(/blues|violets/);
      expect(highL).toBeLessThanOrEqual(30.01);
    }
    expect(beyond.reduce((sum, w) => sum + w.volume, 0)).toBeCloseTo(20 * 20 * 20, -3);
  });
});

describe('slices', () => {
  it('of a box at any lightness are its base, closed', () => {
    const segments = sliceAtLightness(box([10, -20, -30], [60, 40, 60]), 33.3);
    const ends = new Map<string, number>();
    for (const [x0, y0, x1, y1] of segments)
      for (const p of [
        [x0, y0],
        [x1, y1],
      ])
        ends.set(p.map((v) => v.toFixed(6)).join(), (ends.get(p.map((v) => v.toFixed(6)).join()) ?? 0) + 1);
    expect([...ends.values()].every((n) => n % 2 === 0)).toBe(true);
    expect(segments.every(([x0, y0]) => Math.abs(Math.abs(x0) - 20) < 1e-9 || Math.abs(Math.abs(y0) - 30) < 1e-9)).toBe(
      true,
    );
    expect(sliceAtLightness(box([10, -20, -30], [60, 40, 60]), 80)).toEqual([]);
  });

  it('slices of every lightness add up to the volume', () => {
    const loops = (mesh: GamutMesh, L: number) => {
      // Segments chained into their loops, so that each goes round one way.
      const rest = sliceAtLightness(mesh, L).map((s) => [...s]);
      let sum = 0;
      while (rest.length > 0) {
        let [x, y] = rest[0].slice(2);
        const start = rest.shift()!;
        let loop = start[0] * start[3] - start[2] * start[1];
        for (;;) {
          const at = rest.findIndex(
            (s) => Math.hypot(s[0] - x, s[1] - y) < 1e-6 || Math.hypot(s[2] - x, s[3] - y) < 1e-6,
          );
          if (at < 0) break;
          const [s] = rest.splice(at, 1);
          const next = Math.hypot(s[0] - x, s[1] - y) < 1e-6 ? [s[2], s[3]] : [s[0], s[1]];
          loop += x * next[1] - next[0] * y;
          [x, y] = next;
        }
        sum += Math.abs(loop) / 2;
      }
      return sum;
    };
    let volume = 0;
    for (let L = 1; L < 100; L += 2) volume += 2 * loops(srgb, L);
    expect(Math.abs(volume / meshVolume(srgb) - 1)).toBeLessThan(0.01);
  });

  it('at a hue lie on the side of the hue, between black and white', () => {
    for (const hue of [0, 40, 100, 160, 300]) {
      const segments = sliceAtHue(srgb, hue);
      expect(segments.length).toBeGreaterThan(8);
      for (const [c0, L0, c1, L1] of segments) {
        expect(Math.min(c0, c1)).toBeGreaterThanOrEqual(0);
        for (const L of [L0, L1]) expect(L).toBeGreaterThan(-0.01);
      }
    }
  });
});
