import { addProducts, cholesky, lengthsThrough, solveCholesky, solveLower } from './linear-algebra.ts';
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
  /** Lower triangle of the normal equations, for the uncertainty elsewhere. */
  readonly lower: Float64Array;
}

export interface Scattered {
  /** Device values 0–1 of each place. */
  readonly places: readonly (readonly number[])[];
  /** Place · channels + channel. */
  readonly values: Float64Array;
  readonly channels: number;
  /** How much each place counts; 1 where it is not said. */
  readonly weights?: readonly number[];
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
/** So many weights are tried as a rule; progress alone rests on it. */
const USUAL_TRIES = 8;

/**
 * Regularised least squares on a regular lattice: data and second differences, in the lattice's smoothest shapes; the weight of smoothness is the one
 * that foretells left-out values best (leave-one-out cross-validation in closed form, Allen 1974).
 * @param progress told 0–1 as weights are tried
 * @throws RangeError for fewer than two places
 */
export function fitSmooth(
  { places, values, channels, weights }: Scattered,
  modes: LatticeModes,
  progress: (share: number) => void = () => {},
): SmoothFit {
  const n = places.length;
  if (n < 2) throw new RangeError('A surface needs at least two places.');
  const size = modes.count;
  const weightOf = (p: number) => weights?.[p] ?? 1;
  const rows = places.map((at) => modesAt(modes, at));
  const normal = new Float64Array(size * size);
  const sides = Array.from({ length: channels }, () => new Float64Array(size));
  rows.forEach((row, p) => {
    for (let c = 0; c < channels; c++) {
      const value = weightOf(p) * values[p * channels + c];
      const side = sides[c];
      for (let i = 0; i < size; i++) side[i] += row[i] * value;
    }
  });
  addProducts(normal, size, rows, weightOf);

  const solve = (smoothness: number) => {
    const lower = Float64Array.from(normal);
    for (let i = 0; i < size; i++) lower[i * size + i] += smoothness * n * (modes.bending[i] + BENDING_FLOOR);
    cholesky(lower, size);
    const amounts = new Float64Array(channels * size);
    sides.forEach((side, c) => amounts.set(solveCholesky(lower, size, Float64Array.from(side)), c * size));
    return { lower, amounts };
  };
  /** What the places pull on themselves, and how far each is off once left out, four at a time. */
  const leftOut = ({ lower, amounts }: ReturnType<typeof solve>, which: readonly number[]) => {
    const pulls = new Float64Array(which.length);
    const errors = new Float64Array(which.length * channels);
    for (let at = 0; at < which.length; at += 4) {
      const four = which.slice(at, at + 4);
      const lengths = lengthsThrough(
        lower,
        size,
        four.map((p) => rows[p]),
      );
      four.forEach((p, i) => {
        pulls[at + i] = weightOf(p) * lengths[i];
        const row = rows[p];
        for (let c = 0; c < channels; c++) {
          let said = 0;
          for (let m = 0; m < size; m++) said += row[m] * amounts[c * size + m];
          errors[(at + i) * channels + c] =
            (values[p * channels + c] - said) / (1 - Math.min(pulls[at + i], MOST_PULL));
        }
      });
    }
    return { pulls, errors };
  };

  const rooms = roomsOf(places);
  const judges = spreadOut(n, JUDGES);
  const tried = new Map<number, number>();
  const cost = (smoothness: number) => {
    const before = tried.get(smoothness);
    if (before !== undefined) return before;
    const { errors } = leftOut(solve(smoothness), judges);
    // Errors by their size and not by their square: a misread patch must not choose the smoothness.
    let sum = 0;
    judges.forEach((p, j) => {
      let square = 0;
      for (let c = 0; c < channels; c++) square += errors[j * channels + c] ** 2;
      sum += rooms[p] * Math.sqrt(square);
    });
    tried.set(smoothness, sum);
    progress(Math.min(1, tried.size / USUAL_TRIES));
    return sum;
  };
  const best = leastAlong(FIRST_TRIED, STEP, cost);

  const solved = solve(best);
  const { pulls, errors } = leftOut(
    solved,
    places.map((_, p) => p),
  );
  return { modes, ...solved, smoothness: best, leverage: pulls, leftOut: errors, rooms };
}

/** Where a cost is least, from steps downhill on a scale of factors, and the parabola through the last three. */
function leastAlong(from: number, step: number, cost: (at: number) => number): number {
  let best = from;
  for (const by of [step, 1 / step])
    for (let next = best * by; next > BOUNDS[0] && next < BOUNDS[1] && cost(next) < cost(best); next *= by) best = next;
  const [below, here, above] = [best / step, best, best * step].map(cost);
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
 * How much of the device solid each place speaks for: the cube of the distance to its nearest neighbour, as far as it lies inside, as a share of all. A chart with a long row of greys
 * and few colours is judged by its colours too.
 */
function roomsOf(places: readonly (readonly number[])[]): Float64Array {
  const rooms = Float64Array.from(places, (at, p) => {
    let least = Infinity;
    for (let q = 0; q < places.length; q++) {
      if (q === p) continue;
      let square = 0;
      for (let x = 0; x < at.length; x++) square += (at[x] - places[q][x]) ** 2;
      if (square < least) least = square;
    }
    // On a face of the cube half of it lies outside, at a corner seven parts of eight.
    const walls = at.filter((v) => v <= 0 || v >= 1).length;
    return least ** 1.5 / 2 ** walls;
  });
  const sum = rooms.reduce((s, v) => s + v, 0);
  return rooms.map((v) => v / sum);
}

/** Values of every channel at a place. */
export function fittedAt({ modes, amounts }: SmoothFit, at: readonly number[]): Float64Array {
  const row = modesAt(modes, at);
  const channels = amounts.length / modes.count;
  return Float64Array.from({ length: channels }, (_, c) => {
    let sum = 0;
    for (let i = 0; i < row.length; i++) sum += row[i] * amounts[c * row.length + i];
    return sum;
  });
}

/** Variance of the fit at a place, in units of a single value's own variance. */
export function varianceAt({ modes, lower }: SmoothFit, at: readonly number[]): number {
  const through = solveLower(lower, modes.count, modesAt(modes, at));
  return through.reduce((sum, v) => sum + v * v, 0);
}
