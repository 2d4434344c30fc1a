import { colourWords } from '../colour/hue-names.ts';
import type { Lab } from '../colour/types.ts';
import type { PrintSample } from './print-samples.ts';
import type { QuestionedPatch } from './questioned.ts';
import { statedError, type StatedError } from './stated-error.ts';

/** A patch as the model predicts it from all the others. */
export interface Prediction {
  readonly sample: PrintSample;
  readonly lab: Lab;
  /** Predicted against read. */
  readonly deltaE00: number;
  /** Share of the device solid it speaks for. */
  readonly room: number;
  /** Standard deviation of the prediction, in the fit's own unit. */
  readonly spread: number;
}

/** ΔE00 over many colours. */
export interface ErrorSummary {
  readonly mean: number;
  readonly p95: number;
  readonly max: number;
}

/** A patch to be read again. */
export interface QuestionedReading {
  readonly patch: string;
  readonly lab: Lab;
  readonly deltaE00: number;
  /** Place of its reading in the list the model was computed from; −1 where several were averaged. */
  readonly set: number;
}

/** What a model knows of its own error. */
export interface ModelError {
  /** Different patches it was made from. */
  readonly patches: number;
  /** What is to be expected of colours that were not read: of all the printer has, and of colours as pictures have them. */
  readonly stated: { readonly all: StatedError; readonly pictures: StatedError };
  /** Each patch predicted from all the others, by how much of the device solid it speaks for: larger than the error between patches. */
  readonly crossValidated: ErrorSummary;
  /** Parts of the print from the worst to the best. */
  readonly regions: readonly { readonly name: string; readonly patches: number; readonly mean: number }[];
  /** The patches it predicts worst, by their names on the chart. */
  readonly worst: readonly { readonly patch: string; readonly lab: Lab; readonly deltaE00: number }[];
  /** Patches that the others contradict, to be read again; they stay in the model, the most doubtful first. */
  readonly questioned: readonly QuestionedReading[];
  /** Readings of patches that were left out since a repeat contradicts them. */
  readonly contradicted: readonly { readonly patch: string; readonly lab: Lab; readonly deltaE00: number }[];
  /** Mean ΔE00 of one reading of a patch from its mean; absent where nothing was read twice. */
  readonly noise?: number;
}

/** Stated over true, over the unlike printers of the tests (`foreign-printers.test.ts` holds it). */
const CALIBRATION = { all: 1.08, pictures: 0.78 } as const;
/** As earlier versions kept it: the cross-validated error stood for all, and misfits were left out. */
type EarlierModelError = Omit<ModelError, 'stated' | 'questioned' | 'contradicted'> & {
  readonly misfits: ModelError['contradicted'];
};

/** A model's error as it was kept, by this version or an earlier one. */
export function readModelError(kept: ModelError | EarlierModelError): ModelError {
  if ('stated' in kept) return kept;
  const { misfits, ...rest } = kept;
  const { mean, p95 } = rest.crossValidated;
  const stated = { mean, p95 };
  return { ...rest, stated: { all: stated, pictures: stated }, questioned: [], contradicted: misfits };
}

const WORST = 5;
const FEWEST_OF_REGION = 3;

export function modelError(
  predictions: readonly Prediction[],
  places: Record<'all' | 'pictures', { places: readonly (readonly number[])[]; spreads: readonly number[] }>,
  doubtful: readonly QuestionedPatch[],
): Omit<ModelError, 'contradicted'> {
  const byRegion = new Map<string, Prediction[]>();
  for (const p of predictions) {
    const name = colourWords(p.sample.lab);
    byRegion.set(name, [...(byRegion.get(name) ?? []), p]);
  }
  // A reading's distance from the mean of n is short by √((n−1)/n).
  const repeats = predictions.flatMap(({ sample: { repeats: list } }) =>
    list.map((d) => d * Math.sqrt(list.length / (list.length - 1))),
  );
  const noise = repeats.length > 0 ? repeats.reduce((s, v) => s + v, 0) / repeats.length : undefined;
  const leftOut = predictions.map(({ sample: { device, weight }, deltaE00, spread }) => ({
    device,
    deltaE00,
    spread,
    noise: (noise ?? 0) / Math.sqrt(weight),
  }));
  const stated = (which: 'all' | 'pictures') =>
    statedError(leftOut, places[which].places, places[which].spreads, CALIBRATION[which]);
  return {
    patches: predictions.length,
    stated: { all: stated('all'), pictures: stated('pictures') },
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
    questioned: doubtful.map(({ prediction: { sample, deltaE00 } }) => ({
      patch: sample.id,
      lab: sample.lab,
      deltaE00,
      set: -1,
    })),
    noise,
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
