import type { Prediction } from './model-error.ts';
import { nearest, placeList } from './nearest.ts';

/** A patch that disagrees with what all the others say of it: it stays in the model, and is asked to be read again. */
export interface QuestionedPatch {
  readonly prediction: Prediction;
  /** How many times further off than a patch there usually is. */
  readonly times: number;
}

/**
 * A patch is questioned from so many ΔE00, and so many times what its surroundings are off, each by the uncertainty of
 * its prediction: where a print is steep, or its chart coarse, all of them are off (our own choice; the rates are held
 * by `foreign-printers.test.ts`).
 */
const QUESTIONED = { deltaE00: 2.6, times: 2.2 } as const;
/** Nearest patches that say how far off one is there. */
const NEAREST = 14;
/** Share of them that are off by less than what counts as usual. */
const USUAL = 0.6;
/** A misread patch pulls its neighbours off within about this distance of device values: one is questioned at a time. */
const NEIGHBOURHOOD = 0.3;
/** Repeats that agree within so many ΔE00 have answered the question. */
const CONFIRMED = 1;

/** Patches to read again, the most doubtful first. */
export function questioned(predictions: readonly Prediction[]): QuestionedPatch[] {
  const multiple = ({ deltaE00, spread }: Prediction) => deltaE00 / Math.max(spread, 1e-6);
  const places = placeList(predictions.map((p) => p.sample.device));
  const timesUsual = (prediction: Prediction, i: number) => {
    const near = nearest(places, prediction.sample.device, NEAREST, i)
      .map((j) => multiple(predictions[j]!))
      .sort((p, q) => p - q);
    return multiple(prediction) / Math.max(near[Math.floor(near.length * USUAL)] ?? Infinity, 1e-9);
  };
  const found = predictions
    .flatMap((prediction, i) =>
      prediction.deltaE00 > QUESTIONED.deltaE00 && !isConfirmed(prediction)
        ? [{ prediction, times: timesUsual(prediction, i) }]
        : [],
    )
    .filter(({ times }) => times > QUESTIONED.times)
    .sort((p, q) => q.times - p.times);
  return found.filter(
    (p, i) =>
      p.times > 2 * QUESTIONED.times ||
      !found.slice(0, i).some((q) => distance(p.prediction.sample.device, q.prediction.sample.device) < NEIGHBOURHOOD),
  );
}

const isConfirmed = ({ sample: { repeats } }: Prediction) => repeats.length > 1 && Math.max(...repeats) < CONFIRMED;

const distance = (p: readonly number[], q: readonly number[]) => Math.hypot(...p.map((v, i) => v - q[i]!));
