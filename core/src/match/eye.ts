import { cholesky, solveCholesky } from '../characterisation/linear-algebra.ts';
import { LEANINGS } from './leanings/registry.ts';
import { SCHOOLS, weightsOf, type Weights } from './schools.ts';

/** A decision: one of several sheets was chosen for a picture. */
export interface Choice {
  readonly pictureId: string;
  /** What each criterion takes from each sheet at weight 1, in the order of the criteria. */
  readonly costs: readonly (readonly number[])[];
  /** Which of the sheets was chosen. */
  readonly chosen: number;
}

/** A printmaker's own preset. */
export interface OwnSchool {
  readonly key: string;
  readonly name: string;
  readonly weights: Weights;
}

/** How often a set of weights would have chosen as the printmaker did; of sheets that tie each counts in part. */
export interface Agreement {
  readonly key: string;
  readonly name: string;
  readonly hits: number;
}

/** How strongly a printmaker weighs a criterion, against the default. */
export interface WeightFound {
  readonly leaning: string;
  readonly name: string;
  /** Fitted weight over the default one; 19 times in 20 it lies between the two bounds. */
  readonly times: number;
  readonly between: readonly [low: number, high: number];
  /** Of how many decisions the sheets differ by it. */
  readonly decisions: number;
}

export interface LearnedEye {
  readonly decisions: number;
  /** What chance would have chosen alike. */
  readonly chance: number;
  readonly schools: readonly Agreement[];
  /** Weights fitted to the decisions. Absent while there are too few. */
  readonly own?: {
    /** Newest decisions the fit rests on, and how many of them it foresees: each from a fit that did not see it. */
    readonly fittedTo: number;
    readonly hits: number;
    readonly weights: Weights;
    /** Criteria whose interval does not hold the default weight, the surest first. */
    readonly otherwise: readonly WeightFound[];
    /** Criteria that part the sheets, and whose weight these decisions can't tell from the default. */
    readonly unsure: readonly WeightFound[];
  };
}

/** Fewer decisions say nothing of an eye (our own choice). */
export const FEWEST_DECISIONS = 30;
/** An eye changes, and a fit need not be finer than this gives: the newest decisions are fitted (our own choice). */
export const MAX_FITTED = 2000;
const FOLDS = 5;
const MAX_STEPS = 40;
/** A Newton step that moves no weight by more is the last. */
const STILL = 1e-5;
/** How strongly the weights are held to the default ones, against one decision (our own choice). */
const HOLD = 0.35;
/** Costs nearer than this are a tie. */
const LEVEL = 1e-6;
/** Costs that differ by more part sheets. */
const PARTS = 0.02;
/**
 * Nineteen made-up eyes in twenty lie within so many standard deviations: more than the 1.96 of a normal quantity, for
 * few decisions are drawn towards the default.
 */
const SD_95 = 2.3;
/** A criterion that parts the sheets of fewer decisions is not spoken of. */
const MIN_PARTED = 5;

const START = LEANINGS.map((l) => l.weight);
const COUNT = START.length;
const asList = (weights: Weights): number[] => {
  const full = weightsOf(weights);
  return LEANINGS.map((l) => full[l.key]!);
};
const dot = (p: readonly number[], q: readonly number[]) => p.reduce((sum, v, i) => sum + v * q[i]!, 0);

/** 1 where the weights choose as it was chosen, a part of it where they leave a tie. */
function hit({ costs, chosen }: Choice, weights: readonly number[]): number {
  const totals = costs.map((c) => dot(c, weights));
  const least = Math.min(...totals);
  const first = totals.flatMap((t, i) => (t - least < LEVEL ? [i] : []));
  return first.includes(chosen) ? 1 / first.length : 0;
}

/** Sums over decisions at some weights: how unlikely they are, in which direction that falls, and how fast. */
interface Likelihood {
  readonly loss: number;
  readonly gradient: Float64Array;
  readonly curvature: Float64Array;
}

function likelihood(choices: readonly Choice[], weights: ArrayLike<number>): Likelihood {
  let loss = 0;
  const gradient = new Float64Array(COUNT);
  const curvature = new Float64Array(COUNT * COUNT);
  const mean = new Float64Array(COUNT);
  for (const { costs, chosen } of choices) {
    const totals = costs.map((c) => {
      let sum = 0;
      for (let k = 0; k < COUNT; k++) sum -= c[k]! * weights[k]!;
      return sum;
    });
    const most = Math.max(...totals);
    const shares = totals.map((t) => Math.exp(t - most));
    const all = shares.reduce((s, v) => s + v, 0);
    loss += most + Math.log(all) - totals[chosen]!;
    mean.fill(0);
    costs.forEach((c, i) => {
      for (let k = 0; k < COUNT; k++) mean[k]! += (c[k]! * shares[i]!) / all;
    });
    for (let k = 0; k < COUNT; k++) gradient[k]! += costs[chosen]![k]! - mean[k]!;
    costs.forEach((c, i) => {
      const share = shares[i]! / all;
      for (let k = 0; k < COUNT; k++) {
        const off = (c[k]! - mean[k]!) * share;
        if (off !== 0) for (let j = 0; j <= k; j++) curvature[k * COUNT + j]! += off * (c[j]! - mean[j]!);
      }
    });
  }
  for (let k = 0; k < COUNT; k++) for (let j = 0; j < k; j++) curvature[j * COUNT + k] = curvature[k * COUNT + j]!;
  return { loss, gradient, curvature };
}

/** Only the loss: what a line search asks. */
function lossOf(choices: readonly Choice[], weights: ArrayLike<number>): number {
  let loss = 0;
  for (const { costs, chosen } of choices) {
    let [most, at] = [-Infinity, 0];
    const totals = costs.map((c, i) => {
      let sum = 0;
      for (let k = 0; k < COUNT; k++) sum -= c[k]! * weights[k]!;
      if (i === chosen) at = sum;
      most = Math.max(most, sum);
      return sum;
    });
    loss += most + Math.log(totals.reduce((s, t) => s + Math.exp(t - most), 0)) - at;
  }
  return loss;
}

/** How decided an eye is: by how much the default weights must be multiplied for its choices to be likeliest. */
function decidedness(choices: readonly Choice[]): number {
  let [low, high] = [Math.log(0.05), Math.log(50)];
  const at = (x: number) =>
    lossOf(
      choices,
      START.map((w) => w * Math.exp(x)),
    );
  // The loss is convex in the factor, so that its least lies in the kept part.
  while (high - low > 0.02) {
    const [p, q] = [low + (high - low) * 0.382, low + (high - low) * 0.618];
    if (at(p) < at(q)) high = q;
    else low = p;
  }
  return Math.exp((low + high) / 2);
}

interface Fit {
  /** Relative to the default weights’ size. */
  readonly weights: Float64Array;
  /** Covariance of the weights that are not held at 0. */
  readonly covariance: Float64Array;
}

/**
 * Weights under which the choices are likeliest: each sheet is chosen by the exponential of what is taken from it
 * (McFadden’s conditional logit), scaled by how decided the eye is; the weights are never negative and held to the
 * default ones, so that what no decision speaks of stays as it was. Newton’s method with an active set.
 */
function fit(choices: readonly Choice[], decided: number, from: ArrayLike<number> = START): Fit {
  const weights = Float64Array.from(from);
  const scaled = (w: ArrayLike<number>) => Float64Array.from(w, (v) => v * decided);
  const held = (w: ArrayLike<number>) => START.reduce((sum, s, k) => sum + HOLD * (w[k]! - s) ** 2, 0);
  const whole = (w: ArrayLike<number>) => lossOf(choices, scaled(w)) + held(w);
  let now = whole(weights);
  let curvature = new Float64Array(0);
  for (let step = 0; step < MAX_STEPS; step++) {
    const found = likelihood(choices, scaled(weights));
    const gradient = found.gradient.map((g, k) => g * decided + 2 * HOLD * (weights[k]! - START[k]!));
    curvature = found.curvature.map((v, i) => v * decided ** 2 + (i % (COUNT + 1) === 0 ? 2 * HOLD : 0));
    // A weight at 0 that would fall further stays there.
    const free = gradient.map((g, k) => (weights[k]! <= 0 && g > 0 ? 0 : 1));
    const matrix = curvature.map((v, i) => {
      const [r, c] = [Math.floor(i / COUNT), i % COUNT];
      return free[r] && free[c] ? v : r === c ? 1 : 0;
    });
    const move = solveCholesky(
      cholesky(matrix, COUNT),
      COUNT,
      gradient.map((g, k) => g * free[k]!),
    );
    let length = 1;
    let next = weights;
    let then = now;
    for (; length > 1e-4; length /= 2) {
      next = weights.map((v, k) => Math.max(0, v - length * move[k]!));
      then = whole(next);
      if (then <= now) break;
    }
    const moved = next.reduce((most, v, k) => Math.max(most, Math.abs(v - weights[k]!)), 0);
    if (then <= now) {
      weights.set(next);
      now = then;
    }
    if (moved < STILL || then > now) break;
  }
  return { weights, covariance: inverse(curvature) };
}

function inverse(matrix: Float64Array): Float64Array {
  const lower = cholesky(Float64Array.from(matrix), COUNT);
  const out = new Float64Array(COUNT * COUNT);
  for (let k = 0; k < COUNT; k++) {
    const unit = new Float64Array(COUNT);
    unit[k] = 1;
    out.set(solveCholesky(lower, COUNT, unit), k * COUNT);
  }
  return out;
}

/** Weights fitted to choices, at the size of the default ones. */
export function fitWeights(choices: readonly Choice[]): number[] {
  return sized(choices, fit(choices, decidedness(choices)));
}

/** How many decisions a criterion parts the sheets of. */
const partedBy = (choices: readonly Choice[], k: number): number =>
  choices.filter(({ costs }) => spread(costs.map((c) => c[k]!)) > PARTS).length;

/** What no decision speaks of keeps its default. */
function sized(choices: readonly Choice[], { weights, covariance }: Fit): number[] {
  const { size } = sizeOf(weights, covariance);
  return START.map((start, k) => (partedBy(choices, k) === 0 ? start : weights[k]! / size));
}

/**
 * All weights doubled choose alike: an eye’s are compared at the size at which most of them, by what is known of each,
 * stand at their default.
 */
function sizeOf(weights: Float64Array, covariance: Float64Array): { size: number; sd: number } {
  const ratios = LEANINGS.flatMap((_, k) => {
    if (START[k]! <= 0) return [];
    const sd = Math.sqrt(covariance[k * COUNT + k]!) / START[k]!;
    return [{ ratio: weights[k]! / START[k]!, evidence: 1 / sd ** 2 }];
  }).sort((p, q) => p.ratio - q.ratio);
  const all = ratios.reduce((s, r) => s + r.evidence, 0);
  let reached = 0;
  const middle = ratios.find((r) => (reached += r.evidence) >= all / 2)!;
  return { size: Math.max(0.05, middle.ratio), sd: 1.25 / Math.sqrt(all) };
}

/** Every criterion with its weight against the default one, and the interval it lies in. */
function weightsFound(choices: readonly Choice[], { weights, covariance }: Fit): WeightFound[] {
  const { size, sd } = sizeOf(weights, covariance);
  return LEANINGS.flatMap((l, k): WeightFound[] => {
    const parted = partedBy(choices, k);
    if (START[k]! <= 0 || parted < MIN_PARTED) return [];
    const times = weights[k]! / size / START[k]!;
    const off = (SD_95 * Math.hypot(Math.sqrt(covariance[k * COUNT + k]!) / START[k]!, times * sd)) / size;
    return [
      { leaning: l.key, name: l.name, times, between: [Math.max(0, times - off), times + off], decisions: parted },
    ];
  });
}

/** How often each preset, and a fit of the printmaker’s own weights, would have chosen as they did. @param choices from old to new */
export function learnEye(choices: readonly Choice[], ownSchools: readonly OwnSchool[] = []): LearnedEye {
  // Where there was one sheet nothing was chosen.
  const real = choices.filter((c) => c.costs.length > 1);
  const known = {
    decisions: real.length,
    chance: real.reduce((sum, c) => sum + 1 / c.costs.length, 0),
    schools: [...SCHOOLS, ...ownSchools].map(({ key, name, weights }) => {
      const list = asList(weights);
      return { key, name, hits: real.reduce((sum, c) => sum + hit(c, list), 0) };
    }),
  };
  if (real.length < FEWEST_DECISIONS) return known;
  const newest = real.slice(-MAX_FITTED);
  const decided = decidedness(newest);
  const found = fit(newest, decided);
  const all = weightsFound(newest, found);
  const holdsDefault = ({ between: [low, high] }: WeightFound) => low <= 1 && high >= 1;
  const weights = sized(newest, found);
  return {
    ...known,
    own: {
      fittedTo: newest.length,
      hits: foreseen(newest, decided, found),
      weights: Object.fromEntries(LEANINGS.map((l, k) => [l.key, Math.round(weights[k]! * 100) / 100])),
      otherwise: all.filter((w) => !holdsDefault(w)).sort((p, q) => surety(q) - surety(p)),
      unsure: all.filter(holdsDefault).sort((p, q) => q.decisions - p.decisions),
    },
  };
}

/** Decisions on one picture are seen together or not at all: each fold is foreseen from the others. */
function foreseen(choices: readonly Choice[], decided: number, whole: Fit): number {
  const pictures = [...new Set(choices.map((c) => c.pictureId))];
  const fold = new Map(pictures.map((id, i) => [id, i % FOLDS]));
  let hits = 0;
  for (let f = 0; f < Math.min(FOLDS, pictures.length); f++) {
    const unseen = choices.filter((c) => fold.get(c.pictureId) === f);
    const { weights } = fit(
      choices.filter((c) => fold.get(c.pictureId) !== f),
      decided,
      whole.weights,
    );
    const list = Array.from(weights);
    hits += unseen.reduce((sum, c) => sum + hit(c, list), 0);
  }
  return hits;
}

/** How far the default lies outside an interval, in its half widths. */
const surety = ({ times, between: [low, high] }: WeightFound) => Math.abs(times - 1) / Math.max(1e-9, (high - low) / 2);
const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);
