import {
  addToDiagonal,
  columnsOf,
  factor,
  fillPanels,
  gram,
  lengthsOf,
  padded,
  panelTimes,
  rowOf,
  solveLowerPanel,
  solveUpperPanel,
  times,
} from './panel-algebra.ts';
import { PANEL, panelRoom } from './panels.ts';
import { modesAt, type LatticeModes } from './smooth-modes.ts';

/** A smooth function of device values through scattered, noisy values: amounts of a lattice's shapes. */
export interface SmoothFit {
  readonly modes: LatticeModes;
  /** Channel · modes + mode. */
  readonly amounts: Float64Array;
  /** Weight of smoothness that was chosen. */
  readonly smoothness: number;
  /** What each value pulls on its own prediction, 0–1: one a place. */
  readonly leverage: Float64Array;
  /** Values less what the fit says with each left out in turn: place · channels + channel. */
  readonly leftOut: Float64Array;
  /** Share of the device solid each place speaks for. */
  readonly rooms: Float64Array;
  /** Variance of the fit at each place asked for, with values of variance 1. */
  readonly variances: Float64Array;
  /** The same at each own place once it is left out. */
  readonly ownVariances: Float64Array;
}

export interface Scattered {
  /** Device values 0–1 of each place. */
  readonly places: readonly (readonly number[])[];
  /** Place · channels + channel. */
  readonly values: Float64Array;
  readonly channels: number;
  /** How much each place counts; 1 where it is not said. */
  readonly weights?: readonly number[];
  /** Further places at which the uncertainty of the fit is wanted. */
  readonly asked?: readonly (readonly number[])[];
  /** Weight of smoothness, where it is known; else the best is looked for. */
  readonly smoothness?: number;
}

/** Bending that even a straight shape is charged with, so that few patches can't tilt it wildly (our own choice). */
export const BENDING_FLOOR = 0.3;
/** The weight of smoothness that is tried first, and the step from one to the next. */
const FIRST_TRIED = 5e-6;
const STEP = 10;
const BOUNDS = [1e-10, 1e3] as const;
/** Places whose left-out error decides on the weight; more say the same at more cost. */
const JUDGES = 120;
const MOST_PULL = 1 - 1e-9;
/** Where values are followed to the last digit, uncertainties are taken as if they were not: else there are none. */
const MIN_STIFF = 1e-6;
/** So many weights are tried as a rule; progress alone rests on it. */
const USUAL_TRIES = 8;

/**
 * Regularised least squares on a regular lattice: data and second differences, in the lattice's smoothest shapes; the
 * weight of smoothness is the one that foretells left-out values best (leave-one-out cross-validation in closed form,
 * Allen 1974).
 * @param progress told 0–1 as weights are tried
 * @throws RangeError for fewer than two places
 */
export function fitSmooth(
  { places, values, channels, weights, asked = [], smoothness: known }: Scattered,
  modes: LatticeModes,
  progress: (share: number) => void = () => {},
): SmoothFit {
  const n = places.length;
  if (n < 2) throw new RangeError('A surface needs at least two places.');
  const size = modes.count;
  const weightOf = (p: number) => weights?.[p] ?? 1;
  const rows = places.map((at) => modesAt(modes, at));
  const width = padded(size);
  const room = panelRoom([
    [size, n],
    [channels, n],
    [size, width],
    [size, width],
    [channels, width],
    [channels, width],
    [PANEL, width],
    [PANEL, padded(channels)],
  ]);
  // Every place by the root of what it counts, on both sides of each product.
  const root = (p: number) => Math.sqrt(weightOf(p));
  const columns = columnsOf(room, rows, root);
  const normal = gram(room, size, columns, columns);
  const read = room.take(channels, n);
  fillPanels(
    read,
    Array.from({ length: channels }, (_, c) => places.map((__, p) => root(p) * values[p * channels + c]!)),
  );
  const sides = room.take(channels, width);
  times(room, read, columns, sides);
  const lower = room.take(size, width);
  const answers = room.take(channels, width);
  const four = room.take(PANEL, width);
  const said = room.take(PANEL, padded(channels));

  /** Leaves the triangle and the amounts behind. */
  const solve = (smoothness: number): void => {
    lower.values.set(normal.values);
    for (let i = 0; i < size; i++) addToDiagonal(lower, i, smoothness * n * (modes.bending[i]! + BENDING_FLOOR));
    factor(room, lower);
    answers.values.set(sides.values);
    for (let panel = 0; panel < answers.count; panel++) {
      solveLowerPanel(room, lower, answers, panel);
      solveUpperPanel(lower, answers, panel);
    }
  };
  /** What the places pull on themselves, and how far each is off once left out, by what was solved last. */
  const leftOut = (which: readonly number[]) => {
    const pulls = new Float64Array(which.length);
    const errors = new Float64Array(which.length * channels);
    for (let at = 0; at < which.length; at += PANEL) {
      const some = which.slice(at, at + PANEL);
      fillPanels(
        four,
        some.map((p) => rows[p]!),
      );
      panelTimes(room, four, 0, answers, said);
      solveLowerPanel(room, lower, four);
      const lengths = lengthsOf(four);
      some.forEach((p, i) => {
        pulls[at + i] = weightOf(p) * lengths[i]!;
        const by = 1 / (1 - Math.min(pulls[at + i]!, MOST_PULL));
        for (let c = 0; c < channels; c++)
          errors[(at + i) * channels + c] = (values[p * channels + c]! - said.values[c * PANEL + i]!) * by;
      });
    }
    return { pulls, errors };
  };

  /** Variance at further places, by what was solved last. */
  const variancesAt = (further: readonly (readonly number[])[]) => {
    const out = new Float64Array(further.length);
    for (let at = 0; at < further.length; at += PANEL) {
      const some = further.slice(at, at + PANEL);
      fillPanels(
        four,
        some.map((place) => modesAt(modes, place)),
      );
      solveLowerPanel(room, lower, four);
      const lengths = lengthsOf(four);
      some.forEach((_, i) => (out[at + i] = lengths[i]!));
    }
    return out;
  };

  const rooms = roomsOf(places);
  const judges = spreadOut(n, JUDGES);
  const tried = new Map<number, number>();
  const cost = (smoothness: number) => {
    const before = tried.get(smoothness);
    if (before !== undefined) return before;
    solve(smoothness);
    const { errors } = leftOut(judges);
    // Errors by their size and not by their square: a misread patch must not choose the smoothness.
    let sum = 0;
    judges.forEach((p, j) => {
      let square = 0;
      for (let c = 0; c < channels; c++) square += errors[j * channels + c]! ** 2;
      sum += rooms[p]! * Math.sqrt(square);
    });
    tried.set(smoothness, sum);
    progress(Math.min(1, tried.size / USUAL_TRIES));
    return sum;
  };
  const best = known ?? leastAlong(FIRST_TRIED, STEP, cost);

  solve(best);
  const amounts = new Float64Array(channels * size);
  for (let c = 0; c < channels; c++) amounts.set(rowOf(answers, c).subarray(0, size), c * size);
  const { pulls, errors } = leftOut(places.map((_, p) => p));
  if (best < MIN_STIFF) solve(MIN_STIFF);
  const variances = variancesAt(asked);
  const own = best < MIN_STIFF ? variancesAt(places) : pulls.map((pull, p) => pull / weightOf(p));
  const ownVariances = own.map((v, p) => v / (1 - Math.min(weightOf(p) * v, MOST_PULL)));
  return { modes, amounts, smoothness: best, leverage: pulls, leftOut: errors, rooms, variances, ownVariances };
}

/** Where a cost is least, from steps downhill on a scale of factors, and the parabola through the last three. */
function leastAlong(from: number, step: number, cost: (at: number) => number): number {
  let best = from;
  for (const by of [step, 1 / step])
    for (let next = best * by; next > BOUNDS[0] && next < BOUNDS[1] && cost(next) < cost(best); next *= by) best = next;
  const [below, here, above] = [cost(best / step), cost(best), cost(best * step)];
  const bend = below - 2 * here + above;
  const shift = bend > 0 ? Math.max(-0.5, Math.min(0.5, (below - above) / (2 * bend))) : 0;
  return best * step ** shift;
}

/** Places of a list, evenly spread, as many at most. */
const spreadOut = (n: number, most: number) =>
  n <= most
    ? Array.from({ length: n }, (_, i) => i)
    : Array.from({ length: most }, (_, i) => Math.floor((i * n) / most));

/**
 * How much of the device solid each place speaks for: the cube of the distance to its nearest neighbour, as far as it
 * lies inside, as a share of all. A chart with a long row of greys and few colours is judged by its colours too.
 */
function roomsOf(places: readonly (readonly number[])[]): Float64Array {
  const flat = Float64Array.from(places.flatMap((at) => [at[0], at[1], at[2], at[3] ?? 0]));
  const rooms = Float64Array.from(places, (at, p) => {
    const x = flat[p * 4]!;
    const y = flat[p * 4 + 1]!;
    const z = flat[p * 4 + 2]!;
    const w = flat[p * 4 + 3]!;
    let least = Infinity;
    for (let q = 0; q < flat.length; q += 4) {
      const dx = flat[q]! - x;
      const dy = flat[q + 1]! - y;
      const dz = flat[q + 2]! - z;
      const dw = flat[q + 3]! - w;
      const square = dx * dx + dy * dy + dz * dz + dw * dw;
      if (square < least && q !== p * 4) least = square;
    }
    // On a face of the cube half of it lies outside, at a corner seven parts of eight.
    const walls = at.filter((v) => v <= 0 || v >= 1).length;
    return least ** 1.5 / 2 ** walls;
  });
  const sum = rooms.reduce((s, v) => s + v, 0);
  return rooms.map((v) => v / sum);
}
