import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import {
  fitLocal,
  localAt,
  localCandidates,
  type LocalCandidate,
  type LocalFit,
  type LocalSettings,
} from './local-fit.ts';
import { modelError, type ModelError, type Prediction } from './model-error.ts';
import type { PrintSample } from './print-samples.ts';
import { questioned, type QuestionedPatch } from './questioned.ts';
import type { Response } from './response.ts';
import { fitSmooth, type SmoothFit } from './smooth-fit.ts';
import { modesAt, type LatticeModes } from './smooth-modes.ts';
import { statedPlaces } from './stated-error.ts';

/** A print condition as smooth shapes, what neighbours agree on beyond them, and what both know of their error. */
export interface SamplesFit {
  readonly smooth: SmoothFit;
  readonly local?: LocalFit;
  readonly error: Omit<ModelError, 'contradicted'>;
}

/** What is fitted, and in what. */
export interface FitTask {
  readonly response: Response;
  readonly modes: LatticeModes;
  /** Channels that are known beforehand at a device value: the fit adds to them. */
  readonly base?: (device: readonly number[]) => ArrayLike<number>;
}

/** Rounds in which patches are set aside to see whether the others deny them. */
const MAX_ROUNDS = 4;

/**
 * Fits every sample; none is left out. Those that the others contradict are questioned: each is judged by a fit from
 * which all doubtful ones were left out, so that two misread neighbours can't vouch for each other.
 * @param progress share 0–1
 */
export function fitSamples(
  samples: readonly PrintSample[],
  task: FitTask,
  progress: (share: number) => void = () => {},
): SamplesFit {
  const stated = statedPlaces(task.modes.axes);
  const asked = [...stated.all, ...stated.pictures];
  const whole = fitOnce(samples, task, { asked, progress });
  let doubtful: readonly QuestionedPatch[] = questioned(whole.predictions);
  const { smoothness } = whole.smooth;
  for (let round = 0, last = ''; round < MAX_ROUNDS && doubtful.length > 0; round++) {
    const aside = new Set(doubtful.map((q) => q.prediction.sample));
    const names = [...aside].map((s) => s.id).join();
    if (names === last) break;
    last = names;
    const rest = samples.filter((s) => !aside.has(s));
    const without = fitOnce(rest, task, { asked: [...aside].map((s) => s.device), smoothness, how: whole.local });
    const judged = [...aside].map((sample, i): Prediction => {
      const lab = task.response.labOf(without.at(sample.device));
      const spread = Math.sqrt(without.smooth.variances[i]!);
      return { sample, room: 0, lab, deltaE00: deltaE2000(sample.lab, lab), spread };
    });
    doubtful = questioned([...without.predictions, ...judged]);
  }
  const spreads = Array.from(whole.smooth.variances, Math.sqrt);
  return {
    smooth: whole.smooth,
    local: whole.local,
    error: modelError(
      whole.predictions,
      {
        all: { places: stated.all, spreads: spreads.slice(0, stated.all.length) },
        pictures: { places: stated.pictures, spreads: spreads.slice(stated.all.length) },
      },
      doubtful,
    ),
  };
}

/** What a fit of samples says of device values. */
export function predictor(samples: readonly PrintSample[], task: FitTask): (device: readonly number[]) => Lab {
  const { at } = fitOnce(samples, task, { asked: [] });
  return (device) => task.response.labOf(at(device));
}

interface Settings {
  readonly asked: readonly (readonly number[])[];
  readonly progress?: (share: number) => void;
  /** Known from a fit of nearly the same samples. */
  readonly smoothness?: number;
  readonly how?: LocalSettings;
}

function fitOnce(samples: readonly PrintSample[], { response, modes, base }: FitTask, settings: Settings) {
  const { channels } = response;
  const places = samples.map((s) => s.device);
  const bases = base && samples.map((s) => base(s.device));
  const values = new Float64Array(samples.length * channels);
  samples.forEach((s, p) => {
    const own = response.valuesOf(s);
    for (let c = 0; c < channels; c++) values[p * channels + c] = own[c]! - (bases?.[p]?.[c] ?? 0);
  });
  const { asked, progress, smoothness } = settings;
  const smooth = fitSmooth(
    { places, values, channels, weights: samples.map(weightOf), asked, smoothness },
    modes,
    progress,
  );
  const { left, local } = refine(places, smooth, channels, settings);
  const predictions = samples.map((sample, p): Prediction => {
    const said = new Float64Array(channels);
    for (let c = 0; c < channels; c++)
      said[c] = values[p * channels + c]! - left[p * channels + c]! + (bases?.[p]?.[c] ?? 0);
    const lab = response.labOf(said);
    return {
      sample,
      room: smooth.rooms[p]!,
      lab,
      deltaE00: deltaE2000(sample.lab, lab),
      spread: Math.sqrt(smooth.ownVariances[p]!),
    };
  });
  /** Channels at any device value. */
  const at = (device: readonly number[]) => {
    const shapes = modesAt(modes, device);
    const said = Float64Array.from({ length: channels }, (_, c) =>
      shapes.reduce((sum, v, m) => sum + v * smooth.amounts[c * modes.count + m]!, base?.(device)[c] ?? 0),
    );
    if (local) localAt(local, device).forEach((v, c) => (said[c]! += v));
    return said;
  };
  return { smooth, local, predictions, at };
}

/**
 * Follows what a smooth fit leaves over where neighbours predict it: kinks where an ink sets in, the first steps from
 * white. Of several radii, and none, the one is taken that predicts left-out patches best, greys counting half.
 * @returns residuals with each place left out
 */
function refine(
  places: readonly (readonly number[])[],
  { leftOut, leverage, rooms, smoothness }: SmoothFit,
  channels: number,
  settings: Settings,
) {
  const own = leftOut.map((v, i) => v * (1 - Math.min(leverage[Math.floor(i / channels)]!, 1)));
  const greys = places.map(isGrey);
  const greyCount = greys.filter(Boolean).length;
  const cost = (left: Float64Array) =>
    places.reduce((sum, _, p) => {
      let square = 0;
      for (let c = 0; c < channels; c++) square += left[p * channels + c]! ** 2;
      return sum + (rooms[p]! + (greys[p] ? 1 / greyCount : 0)) * Math.sqrt(square);
    }, 0);
  const reuse = settings.smoothness === smoothness;
  let best: { left: Float64Array; least: number; how?: LocalCandidate } = {
    left: leftOut,
    least: reuse && settings.how ? Infinity : cost(leftOut),
  };
  if (!reuse || settings.how)
    for (const how of localCandidates(places, own, channels, reuse ? settings.how : undefined)) {
      const left = leftOut.map((v, i) => v - how.fromOthers[i]!);
      const here = cost(left);
      if (here < best.least) best = { left, least: here, how };
    }
  return { left: best.left, local: best.how && fitLocal(places, own, channels, best.how) };
}

/** Greys count more: an eye sees there what it forgives elsewhere (our own choice). */
const GREY_WEIGHT = 4;
const isGrey = (device: readonly number[]) => device.length === 3 && Math.max(...device) - Math.min(...device) < 0.02;
const weightOf = ({ device, weight }: PrintSample) => weight * (isGrey(device) ? GREY_WEIGHT : 1);
