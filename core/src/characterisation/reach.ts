import type { ColourLattice } from './lattice.ts';

/** How far a sheet's colours reach: greatest chroma by lightness and hue. */
export interface Reach {
  /** C*ab at a lightness and a hue in radians, −π to π, 0 where nothing is reached. */
  chromaAt(L: number, hue: number): number;
  /** Chroma up to which every hue is reached at a lightness. */
  grey(L: number): number;
  /** Lightness at which a hue reaches furthest. */
  ripest(hue: number): number;
  /**
   * Where a line from the grey axis leaves what is reached, as a multiple of the way to a colour: of L* `from` at its
   * beginning, of L*, C* and hue at the colour. 64 where it leaves it nowhere before, 0 where it begins outside.
   */
  edge(from: number, L: number, C: number, hue: number): number;
}

const LEVELS = 101;
const HUES = 120;
/** The cube's faces are cut this fine. */
const FACE_STEPS = 16;
/** Multiples of its length a line is followed for. */
const FURTHEST = 64;
/** Share of the way up to which the edge is found, and steps towards it: the first of them by regula falsi. */
const FINE = 1e-7;
const MOST_STEPS = 32;
const FALSI = 10;
/** So near to the edge, in C*, it is met. */
const AT_EDGE = 1e-6;

/** Reach of an RGB condition: its device cube's faces cut at every level of lightness. */
export function reachOf({ nodes, values }: ColourLattice): Reach {
  const table = new Float64Array(LEVELS * HUES);
  const along = Array.from({ length: FACE_STEPS + 1 }, (_, i) => Math.round((i * (nodes - 1)) / FACE_STEPS));
  const strides = [nodes * nodes, nodes, 1];
  const corner = (node: number) => [values[node * 3]!, values[node * 3 + 1]!, values[node * 3 + 2]!];
  for (let axis = 0; axis < 3; axis++)
    for (const end of [0, nodes - 1]) {
      const [u, v] = [0, 1, 2].filter((x) => x !== axis).map((x) => strides[x]);
      const base = end * strides[axis]!;
      for (let i = 0; i < FACE_STEPS; i++)
        for (let j = 0; j < FACE_STEPS; j++) {
          const at = (x: number, y: number) => corner(base + along[x]! * u! + along[y]! * v!);
          const [p, s] = [at(i, j), at(i + 1, j + 1)];
          cutTriangle(table, p, at(i + 1, j), s);
          cutTriangle(table, p, at(i, j + 1), s);
        }
    }
  const smooth = softened(table);
  const ripest = Array.from({ length: HUES }, (_, h) => {
    let [most, sum] = [0, 0];
    for (let l = 0; l < LEVELS; l++) {
      const c = smooth[l * HUES + h]! ** 8;
      most += c * l;
      sum += c;
    }
    return sum > 0 ? most / sum : 50;
  });
  const hueSpot = (hue: number) => {
    const turned = (hue / (2 * Math.PI)) * HUES;
    const spot = turned < 0 ? turned + HUES : turned;
    const low = Math.floor(spot) % HUES;
    return [low, (low + 1) % HUES, spot - Math.floor(spot)] as const;
  };
  return {
    chromaAt(L, hue) {
      if (L <= 0 || L >= LEVELS - 1) return 0;
      const level = Math.floor(L);
      const t = L - level;
      const [h0, h1, u] = hueSpot(hue);
      const row = (l: number) => smooth[l * HUES + h0]! * (1 - u) + smooth[l * HUES + h1]! * u;
      return row(level) * (1 - t) + row(level + 1) * t;
    },
    grey(L) {
      const level = Math.min(LEVELS - 1, Math.max(0, Math.round(L)));
      let least = Infinity;
      for (let h = 0; h < HUES; h++) least = Math.min(least, smooth[level * HUES + h]!);
      return least;
    },
    ripest(hue) {
      const [h0, h1, u] = hueSpot(hue);
      return ripest[h0]! * (1 - u) + ripest[h1]! * u;
    },
    edge(from, L, C, hue) {
      // The hue is the same all along: its two columns are found once.
      const [h0, h1, u] = hueSpot(hue);
      /** Chroma that is left up to the edge: below 0 outside. */
      const left = (t: number) => {
        const at = from + t * (L - from);
        if (at <= 0 || at >= LEVELS - 1) return -t * C;
        const level = at | 0;
        const low = level * HUES;
        const high = low + HUES;
        const below = smooth[low + h0]! * (1 - u) + smooth[low + h1]! * u;
        const above = smooth[high + h0]! * (1 - u) + smooth[high + h1]! * u;
        return below + (above - below) * (at - level) - t * C;
      };
      let low = 0;
      let leftLow = left(0);
      if (leftLow < 0) return 0;
      let high = 1;
      let leftHigh = left(1);
      while (leftHigh >= 0 && high < FURTHEST) {
        low = high;
        leftLow = leftHigh;
        high *= 2;
        leftHigh = left(high);
      }
      if (leftHigh >= 0) return FURTHEST;
      // Regula falsi, the end that stays weighed less each time (the Illinois way); by halves where that is slow.
      let side = 0;
      for (let i = 0; i < MOST_STEPS && high - low > FINE * high; i++) {
        const t =
          i < FALSI && leftLow > leftHigh ? low + ((high - low) * leftLow) / (leftLow - leftHigh) : (low + high) / 2;
        const there = left(t);
        if (Math.abs(there) < AT_EDGE) return t;
        if (there >= 0) {
          low = t;
          leftLow = there;
          if (side === 1) leftHigh /= 2;
          side = 1;
        } else {
          high = t;
          leftHigh = there;
          if (side === -1) leftLow /= 2;
          side = -1;
        }
      }
      return low;
    },
  };
}

/** Marks every hue a triangle is met at, level by level. */
function cutTriangle(table: Float64Array, ...corners: readonly number[][]): void {
  const lightness = corners.map((c) => c[0]!);
  const from = Math.max(0, Math.ceil(Math.min(...lightness)));
  const to = Math.min(LEVELS - 1, Math.floor(Math.max(...lightness)));
  for (let level = from; level <= to; level++) {
    const ends: [number, number][] = [];
    for (let i = 0; i < 3; i++) {
      const [p, q] = [corners[i]!, corners[(i + 1) % 3]!];
      if (p[0]! > level === q[0]! > level) continue;
      const t = (level - p[0]!) / (q[0]! - p[0]!);
      ends.push([p[1]! + (q[1]! - p[1]!) * t, p[2]! + (q[2]! - p[2]!) * t]);
    }
    if (ends.length === 2) markSegment(table, level, ends[0]!, ends[1]!);
  }
}

function markSegment(table: Float64Array, level: number, p: [number, number], q: [number, number]): void {
  const cross = p[0] * q[1] - p[1] * q[0];
  if (Math.abs(cross) < 1e-9) return;
  const [s, e] = cross > 0 ? [p, q] : [q, p];
  const first = Math.atan2(s[1], s[0]);
  let last = Math.atan2(e[1], e[0]);
  if (last < first) last += 2 * Math.PI;
  const step = (2 * Math.PI) / HUES;
  for (let h = Math.ceil(first / step); h * step <= last; h++) {
    const [dx, dy] = [Math.cos(h * step), Math.sin(h * step)];
    const denominator = dx * (e[1] - s[1]) - dy * (e[0] - s[0]);
    if (Math.abs(denominator) < 1e-12) continue;
    const c = (s[0] * (e[1] - s[1]) - s[1] * (e[0] - s[0])) / denominator;
    const at = level * HUES + (((h % HUES) + HUES) % HUES);
    if (c > table[at]!) table[at] = c;
  }
}

/** Neighbours take the corners off; never further out than was reached. */
function softened(table: Float64Array): Float64Array {
  return table.map((own, at) => {
    const [l, h] = [Math.floor(at / HUES), at % HUES];
    if (own === 0) return 0;
    let sum = 0;
    let count = 0;
    for (let dl = -1; dl <= 1; dl++)
      for (let dh = -2; dh <= 2; dh++) {
        const row = l + dl;
        if (row < 0 || row >= LEVELS) continue;
        sum += table[row * HUES + ((h + dh + HUES) % HUES)]!;
        count++;
      }
    return Math.min(own, sum / count);
  });
}
