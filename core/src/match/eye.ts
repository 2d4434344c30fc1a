import { LEANINGS } from './leanings/registry.ts';
import { SCHOOLS, weightsOf, type Weights } from './schools.ts';

/** A decision: one of several sheets was chosen for a picture. */
export interface Choice {
  readonly pictureId: string;
  /** What each leaning takes from each sheet at weight 1, in the order of the leanings. */
  readonly costs: readonly (readonly number[])[];
  /** Which of the sheets was chosen. */
  readonly chosen: number;
}

/** A printmaker's own school. */
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

/** A question the printmaker weighs otherwise than it begins. */
export interface Otherwise {
  readonly leaning: string;
  readonly name: string;
  /** Fitted over start weight, both measured against the whole of their set. */
  readonly times: number;
}

export interface LearnedEye {
  readonly decisions: number;
  /** What chance would have chosen alike. */
  readonly chance: number;
  readonly schools: readonly Agreement[];
  /** Weights fitted to the decisions, on decisions they did not see. Absent while there are too few. */
  readonly own?: { readonly hits: number; readonly weights: Weights; readonly otherwise: readonly Otherwise[] };
}

/** Fewer decisions say nothing of an eye (our own choice). */
export const FEWEST_DECISIONS = 30;
const FOLDS = 10;
const STEPS = 400;
/** A step that wins less than this of the log likelihood is the last. */
const ENOUGH = 1e-4;
/** How strongly the weights are held to those it begins with, against one decision (our own choice). */
const HOLD = 0.35;
/** Costs nearer than this are a tie. */
const LEVEL = 1e-6;
/** A question is weighed otherwise from this ratio on, where it parts the sheets of so many decisions. */
const OTHERWISE = 1.5;
const SPOKEN = 5;
const PARTS = 0.02;

const START = LEANINGS.map((l) => l.weight);
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

/**
 * Weights under which the choices are likeliest: each sheet is chosen by the exponential of what is taken from it (McFadden’s conditional
 * logit), the weights never negative and held to those it begins with, so that what no decision speaks of stays as it was.
 */
export function fitWeights(choices: readonly Choice[]): number[] {
  const loss = (w: readonly number[]) =>
    choices.reduce((sum, { costs, chosen }) => {
      const totals = costs.map((c) => -dot(c, w));
      const most = Math.max(...totals);
      return sum + most + Math.log(totals.reduce((s, t) => s + Math.exp(t - most), 0)) - totals[chosen]!;
    }, 0) +
    HOLD * w.reduce((sum, v, k) => sum + (v - START[k]!) ** 2, 0);
  const gradient = (w: readonly number[]) => {
    const g = w.map((v, k) => 2 * HOLD * (v - START[k]!));
    for (const { costs, chosen } of choices) {
      const totals = costs.map((c) => -dot(c, w));
      const most = Math.max(...totals);
      const shares = totals.map((t) => Math.exp(t - most));
      const all = shares.reduce((s, v) => s + v, 0);
      costs.forEach((c, i) => c.forEach((v, k) => (g[k]! -= (v * shares[i]!) / all)));
      costs[chosen]!.forEach((v, k) => (g[k]! += v));
    }
    return g;
  };
  let w = [...START];
  let [now, step] = [loss(w), 0.1];
  for (let i = 0; i < STEPS && step > 1e-9; i++) {
    const g = gradient(w);
    const next = w.map((v, k) => Math.max(0, v - step * g[k]!));
    const then = loss(next);
    if (then > now) {
      step /= 2;
      continue;
    }
    const won = now - then;
    [w, now, step] = [next, then, step * 1.3];
    if (won < ENOUGH) break;
  }
  return w;
}

/** How often each school, and a fit of the printmaker’s own weights, would have chosen as they did. */
export function learnEye(choices: readonly Choice[], ownSchools: readonly OwnSchool[] = []): LearnedEye {
  // Where there was one sheet nothing was chosen.
  const real = choices.filter((c) => c.costs.length > 1);
  const told = {
    decisions: real.length,
    chance: real.reduce((sum, c) => sum + 1 / c.costs.length, 0),
    schools: [...SCHOOLS, ...ownSchools].map(({ key, name, weights }) => ({
      key,
      name,
      hits: real.reduce((sum, c) => sum + hit(c, asList(weights)), 0),
    })),
  };
  if (real.length < FEWEST_DECISIONS) return told;
  // Decisions on one picture are seen together or not at all.
  const pictures = [...new Set(real.map((c) => c.pictureId))];
  const fold = new Map(pictures.map((id, i) => [id, i % FOLDS]));
  let hits = 0;
  for (let f = 0; f < Math.min(FOLDS, pictures.length); f++) {
    const unseen = real.filter((c) => fold.get(c.pictureId) === f);
    const weights = fitWeights(real.filter((c) => fold.get(c.pictureId) !== f));
    hits += unseen.reduce((sum, c) => sum + hit(c, weights), 0);
  }
  const fitted = fitWeights(real);
  // A set of weights turns nothing when all are doubled: it is told at the size it began with.
  const size = START.reduce((s, v) => s + v, 0) / fitted.reduce((s, v) => s + v, 0);
  const weights = fitted.map((v) => v * size);
  return {
    ...told,
    own: {
      hits,
      weights: Object.fromEntries(LEANINGS.map((l, k) => [l.key, Math.round(weights[k]! * 100) / 100])),
      otherwise: LEANINGS.flatMap((l, k): Otherwise[] => {
        const speaks = real.filter(({ costs }) => spread(costs.map((c) => c[k]!)) > PARTS).length;
        const times = START[k]! > 0 ? weights[k]! / START[k]! : 0;
        const told = START[k]! > 0 && speaks >= SPOKEN && (times >= OTHERWISE || times <= 1 / OTHERWISE);
        return told ? [{ leaning: l.key, name: l.name, times }] : [];
      }).sort((p, q) => Math.abs(Math.log(q.times + 0.01)) - Math.abs(Math.log(p.times + 0.01))),
    },
  };
}

const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);
