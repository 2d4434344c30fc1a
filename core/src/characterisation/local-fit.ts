import { cholesky, solveCholesky } from './linear-algebra.ts';
import { nearest, placeList } from './nearest.ts';

/** How local a fit is. */
export interface LocalSettings {
  /** Device values at which a bump ends. */
  readonly radius: number;
  /** Variance of the noise, as a share of that of what is left over. */
  readonly noise: number;
}

/**
 * What a smooth fit leaves over, followed where neighbours agree on it: a sum of one compact bump a patch. Plain data.
 */
export interface LocalFit extends LocalSettings {
  /** Device values of each bump's middle. */
  readonly places: readonly (readonly number[])[];
  /** Place · channels + channel. */
  readonly weights: readonly number[];
}

/** Radii and noise, as a share of what is left over, that are tried (our own choice). */
const RADII = [0.1, 0.2, 0.4] as const;
const NOISES = [0.05, 0.3, 1.5] as const;
/** Neighbours that decide on a place: the nearest, at most. */
const MAX_NEIGHBOURS = 20;
const MAX_ROUNDS = 60;
const CLOSE_ENOUGH = 1e-4;

/** A bump that ends at 1 with two derivatives (Wendland 1995, φ₃,₁). */
export function bump(t: number): number {
  if (t >= 1) return 0;
  const square = (1 - t) * (1 - t);
  return square * square * (4 * t + 1);
}

const distance = (p: readonly number[], q: readonly number[]): number => {
  let square = 0;
  for (let x = 0; x < p.length; x++) square += (p[x]! - q[x]!) ** 2;
  return Math.sqrt(square);
};

/** Places within a radius of each place, itself first, with their distances. */
function neighboursOf(places: readonly (readonly number[])[], radius: number) {
  return places.map((at) => {
    const near: { q: number; d: number }[] = [];
    places.forEach((other, q) => {
      const d = distance(at, other);
      if (d < radius) near.push({ q, d });
    });
    return near.sort((a, b) => a.d - b.d);
  });
}

/** What a local fit predicts of each place from the others: place · channels + channel. */
export interface LocalCandidate extends LocalSettings {
  readonly fromOthers: Float64Array;
}

/** Predicts the residual of each place from its neighbours, for every radius and noise that is tried, or the one that is known. */
export function* localCandidates(
  places: readonly (readonly number[])[],
  residuals: Float64Array,
  channels: number,
  known?: LocalSettings,
): Generator<LocalCandidate> {
  const list = placeList(places);
  const near = places.map((at, p) => nearest(list, at, MAX_NEIGHBOURS, p));
  const apart = near.map((some) => distancesAmong(places, some));
  const most = MAX_NEIGHBOURS * MAX_NEIGHBOURS;
  const [matrix, side] = [new Float64Array(most), new Float64Array(MAX_NEIGHBOURS)];
  for (const radius of known ? [known.radius] : RADII)
    for (const noise of known ? [known.noise] : NOISES) {
      const fromOthers = new Float64Array(residuals.length);
      near.forEach((all, p) => {
        const reaching = all.findIndex((q) => distance(places[p]!, places[q]!) >= radius);
        const n = reaching < 0 ? all.length : reaching;
        if (n === 0) return;
        for (let i = 0; i < n; i++) {
          side[i] = bump(distance(places[p]!, places[all[i]!]!) / radius);
          for (let j = 0; j < i; j++) matrix[i * n + j] = bump(apart[p]![i * all.length + j]! / radius);
          matrix[i * n + i] = 1 + noise;
        }
        const weights = solveCholesky(cholesky(matrix.subarray(0, n * n), n), n, side.slice(0, n));
        for (let i = 0; i < n; i++)
          for (let c = 0; c < channels; c++)
            fromOthers[p * channels + c]! += weights[i]! * residuals[all[i]! * channels + c]!;
      });
      yield { radius, noise, fromOthers };
    }
}

function distancesAmong(places: readonly (readonly number[])[], some: readonly number[]): Float64Array {
  const out = new Float64Array(some.length ** 2);
  some.forEach((p, i) => {
    for (let j = 0; j < i; j++) out[i * some.length + j] = distance(places[p]!, places[some[j]!]!);
  });
  return out;
}

/** Weights of all bumps together, so that with the noise they explain the residuals (conjugate gradients). */
export function fitLocal(
  places: readonly (readonly number[])[],
  residuals: Float64Array,
  channels: number,
  { radius, noise }: LocalSettings,
): LocalFit {
  const near = neighboursOf(places, radius).map((list) => list.map(({ q, d }) => ({ q, k: bump(d / radius) })));
  const n = places.length;
  const weights = new Float64Array(n * channels);
  for (let c = 0; c < channels; c++) {
    const x = new Float64Array(n);
    const r = Float64Array.from({ length: n }, (_, p) => residuals[p * channels + c]!);
    let direction = Float64Array.from(r);
    let size = dot(r, r);
    const enough = size * CLOSE_ENOUGH ** 2;
    for (let round = 0; round < MAX_ROUNDS && size > enough; round++) {
      const image = Float64Array.from(near, (list, p) =>
        list.reduce((s, { q, k }) => s + k * direction[q]!, noise * direction[p]!),
      );
      const step = size / dot(direction, image);
      for (let p = 0; p < n; p++) {
        x[p]! += step * direction[p]!;
        r[p]! -= step * image[p]!;
      }
      const next = dot(r, r);
      direction = direction.map((v, p) => r[p]! + (next / size) * v);
      size = next;
    }
    for (let p = 0; p < n; p++) weights[p * channels + c] = x[p]!;
  }
  return { radius, noise, places, weights: Array.from(weights, (v) => Number(v.toPrecision(5))) };
}

const dot = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
};

/** What a local fit adds at one place, by channel. */
export function localAt({ radius, places, weights }: LocalFit, at: readonly number[]): Float64Array {
  const channels = weights.length / places.length;
  const out = new Float64Array(channels);
  places.forEach((place, p) => {
    const k = bump(distance(place, at) / radius);
    if (k > 0) for (let c = 0; c < channels; c++) out[c]! += k * weights[p * channels + c]!;
  });
  return out;
}

/** Adds a local fit to channels at the nodes of a lattice, the last axis fastest. */
export function addLocal(
  channels: readonly Float64Array[],
  axes: number,
  nodes: number,
  { radius, places, weights }: LocalFit,
): void {
  const count = weights.length / places.length;
  const at = new Array<number>(axes).fill(0);
  places.forEach((place, p) => {
    const range = place.map((v) => [
      Math.max(0, Math.ceil((v - radius) * (nodes - 1))),
      Math.min(nodes - 1, Math.floor((v + radius) * (nodes - 1))),
    ]);
    const walk = (axis: number, node: number, square: number): void => {
      if (axis === axes) {
        const k = bump(Math.sqrt(square) / radius);
        if (k > 0) for (let c = 0; c < count; c++) channels[c]![node]! += k * weights[p * count + c]!;
        return;
      }
      for (let i = range[axis]![0]!; i <= range[axis]![1]!; i++) {
        at[axis] = i;
        const off = i / (nodes - 1) - place[axis]!;
        const there = square + off * off;
        if (there < radius * radius) walk(axis + 1, node * nodes + i, there);
      }
    };
    walk(0, 0, 0);
  });
}
