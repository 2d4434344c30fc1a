import { seededRandom } from '@rakuen/core/random';

/** Smooth noise over the plane, 0–1, the same for the same seed. */
export type Noise = (x: number, y: number) => number;

const SIZE = 256;

export function valueNoise(seed: number): Noise {
  const random = seededRandom(seed);
  const lattice = Float32Array.from({ length: SIZE * SIZE }, () => random());
  const at = (i: number, j: number) => lattice[(j & (SIZE - 1)) * SIZE + (i & (SIZE - 1))];
  return (x, y) => {
    const i = Math.floor(x);
    const j = Math.floor(y);
    const u = smooth(x - i);
    const v = smooth(y - j);
    return (at(i, j) * (1 - u) + at(i + 1, j) * u) * (1 - v) + (at(i, j + 1) * (1 - u) + at(i + 1, j + 1) * u) * v;
  };
}

/** Noise of several octaves, 0–1. */
export function fractal(noise: Noise, octaves: number): Noise {
  return (x, y) => {
    let sum = 0;
    let weight = 0.5;
    let total = 0;
    for (let o = 0; o < octaves; o++) {
      sum += weight * noise(x * 2 ** o + o * 17.3, y * 2 ** o + o * 9.1);
      total += weight;
      weight /= 2;
    }
    return sum / total;
  };
}

/** Distance to the nearest and second nearest of scattered points, one a unit cell: the cracks of a dried crust. */
export function cells(seed: number): (x: number, y: number) => readonly [nearest: number, second: number, id: number] {
  const random = seededRandom(seed);
  const points = Float32Array.from({ length: SIZE * SIZE * 2 }, () => random());
  return (x, y) => {
    const i = Math.floor(x);
    const j = Math.floor(y);
    let first = 9;
    let second = 9;
    let id = 0;
    for (let dj = -1; dj <= 1; dj++) {
      for (let di = -1; di <= 1; di++) {
        const n = ((j + dj) & (SIZE - 1)) * SIZE + ((i + di) & (SIZE - 1));
        const d = Math.hypot(i + di + points[n * 2] - x, j + dj + points[n * 2 + 1] - y);
        if (d < first) {
          second = first;
          first = d;
          id = n;
        } else if (d < second) second = d;
      }
    }
    return [first, second, id];
  };
}

export const smooth = (t: number): number => t * t * (3 - 2 * t);
export const clamp01 = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v);
/** 0 below `from`, 1 above `to`, smooth between. */
export const ramp = (from: number, to: number, v: number): number => smooth(clamp01((v - from) / (to - from)));
export const mix = (p: readonly number[], q: readonly number[], t: number): [number, number, number] => [
  p[0] + (q[0] - p[0]) * t,
  p[1] + (q[1] - p[1]) * t,
  p[2] + (q[2] - p[2]) * t,
];
