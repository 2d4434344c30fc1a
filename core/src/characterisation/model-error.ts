import { colourWords } from '../colour/hue-names.ts';
import type { Lab } from '../colour/types.ts';
import type { PrintSample } from './print-samples.ts';

/** A patch as the model foretells it from all the others. */
export interface Prediction {
  readonly sample: PrintSample;
  readonly lab: Lab;
  /** Foretold against read. */
  readonly deltaE00: number;
  /** Share of the device solid it speaks for. */
  readonly room: number;
  /** Residual in the fitted unit, its own pull given back. */
  readonly studentised: number;
}

/** ΔE00 over many colours. */
export interface ErrorSummary {
  readonly mean: number;
  readonly p95: number;
  readonly max: number;
}

/** What a model knows of its own error. */
export interface ModelError {
  /** Different patches it was made from, misfits left out. */
  readonly patches: number;
  /** Each patch foretold from all the others; one counts by how much of the device solid it speaks for. */
  readonly crossValidated: ErrorSummary;
  /** Parts of the print from the worst to the best. */
  readonly regions: readonly { readonly name: string; readonly patches: number; readonly mean: number }[];
  /** The patches it foretells worst, by their names on the chart. */
  readonly worst: readonly { readonly patch: string; readonly lab: Lab; readonly deltaE00: number }[];
  /** Patches that don't belong, and were left out. */
  readonly misfits: readonly { readonly patch: string; readonly lab: Lab; readonly deltaE00: number }[];
  /** Mean ΔE00 of one reading of a patch from its mean; absent where nothing was read twice. */
  readonly noise?: number;
}

const WORST = 5;
const FEWEST_OF_REGION = 3;

export function modelError(
  predictions: readonly Prediction[],
  misfits: readonly { sample: PrintSample; deltaE00: number }[],
): ModelError {
  const byRegion = new Map<string, Prediction[]>();
  for (const p of predictions) {
    const name = colourWords(p.sample.lab);
    byRegion.set(name, [...(byRegion.get(name) ?? []), p]);
  }
  // A reading's distance from the mean of n is short by √((n−1)/n).
  const repeats = predictions.flatMap(({ sample: { repeats: list } }) =>
    list.map((d) => d * Math.sqrt(list.length / (list.length - 1))),
  );
  return {
    patches: predictions.length,
    crossValidated: summarise(
      predictions.map((p) => p.deltaE00),
      predictions.map((p) => p.room),
    ),
    regions: [...byRegion]
      .filter(([, list]) => list.length >= FEWEST_OF_REGION)
      .map(([name, list]) => ({
        name,
        patches: list.length,
        mean: list.reduce((sum, p) => sum + p.room * p.deltaE00, 0) / list.reduce((sum, p) => sum + p.room, 0),
      }))
      .sort((a, b) => b.mean - a.mean),
    worst: [...predictions]
      .sort((a, b) => b.deltaE00 - a.deltaE00)
      .slice(0, WORST)
      .map(({ sample, deltaE00 }) => ({ patch: sample.id, lab: sample.lab, deltaE00 })),
    misfits: misfits.map(({ sample, deltaE00 }) => ({ patch: sample.id, lab: sample.lab, deltaE00 })),
    noise: repeats.length > 0 ? repeats.reduce((s, v) => s + v, 0) / repeats.length : undefined,
  };
}

/** Mean, the value 95 of 100 stay below, and the greatest. @param weights how much each counts; alike where absent */
export function summarise(deltas: readonly number[], weights?: ArrayLike<number>): ErrorSummary {
  const sorted = deltas.map((delta, i) => ({ delta, weight: weights?.[i] ?? 1 })).sort((p, q) => p.delta - q.delta);
  const all = sorted.reduce((s, p) => s + p.weight, 0);
  let below = 0;
  const p95 = sorted.find(({ weight }) => (below += weight) >= 0.95 * all * (1 - 1e-12));
  return {
    mean: sorted.reduce((s, p) => s + p.delta * p.weight, 0) / all,
    p95: p95!.delta,
    max: sorted[sorted.length - 1]!.delta,
  };
}
