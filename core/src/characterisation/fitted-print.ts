import { deltaE2000 } from '../colour/difference.ts';
import type { DeviceSpace, MeasurementCondition, Reading } from '../measurement/reading.ts';
import { project } from './components.ts';
import { kinPrinter, kinshipOf, type Kinship, type Like } from './kinship.ts';
import { modelError, type ModelError, type Prediction } from './model-error.ts';
import type { PrintModel } from './print-model.ts';
import { samplesOf, type PrintSample } from './print-samples.ts';
import {
  channelsOf,
  colourResponse,
  spectralResponse,
  toRoot,
  type Response,
  type SpectralChannels,
} from './response.ts';
import { fitSmooth, type SmoothFit } from './smooth-fit.ts';
import { latticeModes, type LatticeModes } from './smooth-modes.ts';
import { spectraOf } from './spectra-of-model.ts';

/** What was learned from the readings of a print condition, small enough to be kept beside them. Plain data, JSON as it stands. */
export interface FittedPrint {
  readonly version: number;
  readonly deviceSpace: DeviceSpace;
  readonly condition?: MeasurementCondition;
  /** Absent where the readings hold no spectra: then Lab was fitted. */
  readonly spectral?: SpectralChannels;
  readonly channels: number;
  /** Channel · shapes + shape of the lattice. */
  readonly amounts: readonly number[];
  readonly smoothness: number;
  /** Where few patches were read: the like they were added to. */
  readonly like?: { readonly fitted: FittedPrint; readonly kinship: Kinship; readonly white: readonly number[] };
  readonly error: ModelError;
}

/** Rises whenever the same readings would give another model. */
export const MODEL_VERSION = 1;

/** Nodes along an axis, and the most smooth shapes of the lattice that are fitted. */
export const LATTICE = {
  RGB: { axes: 3, nodes: 33, shapes: 500 },
  CMYK: { axes: 4, nodes: 13, shapes: 700 },
} as const;

/** How many shapes: finer ones than the patches can tell would only follow the penalty. */
const shapesFor = (deviceSpace: DeviceSpace, patches: number) =>
  Math.min(LATTICE[deviceSpace].shapes, 140 + 2 * patches);

/** Fewest different patches that say anything of a print: thirty of a sample pack's two sheets, repeats among them. */
export const FEWEST_PATCHES = 24;
/** From so many on a print is told by its own patches alone (our own choice). */
export const ENOUGH_PATCHES = 200;

/** A model that can't be made; the message says why. */
export class ModelFault extends Error {
  override readonly name = 'ModelFault';
}

/**
 * Learns a print condition from its readings.
 * @param readings of one print condition; where one was read without UV (M2) beside one with it, brightener is told apart
 * @param like a known print of the same printer and inks, or of the same kind, to begin from where the patches are few
 * @param progress told 0–1
 * @throws ModelFault where they hold too little
 */
export function fitPrint(
  readings: readonly Reading[],
  like?: { readonly fitted: FittedPrint; readonly model: PrintModel },
  progress: (share: number) => void = () => {},
): FittedPrint {
  const { samples, reading } = samplesOf(readings);
  const { deviceSpace, spectralGrid: grid } = reading;
  if (!deviceSpace || samples.length === 0)
    throw new ModelFault('The readings hold no device values: what was sent is not known, so no model can be made.');
  if (samples.length < FEWEST_PATCHES)
    throw new ModelFault(
      `The readings hold ${samples.length} different patches; a model needs at least ${FEWEST_PATCHES}.`,
    );
  const bare = deviceSpace === 'RGB' ? 1 : 0;
  const paper = samples.find((s) => s.device.every((v) => v === bare));
  if (!paper) throw new ModelFault('The readings hold no bare paper; read a patch without ink too.');
  const { axes, nodes } = LATTICE[deviceSpace];
  const modes = latticeModes(axes, nodes, shapesFor(deviceSpace, samples.length));
  const known = { version: MODEL_VERSION, deviceSpace, condition: reading.condition };
  if (!grid || !samples.every((s) => s.reflected)) {
    const { fit, error } = fitWithoutMisfits(samples, colourResponse, modes, progress);
    return { ...known, ...plain(fit, colourResponse), error };
  }
  if (like?.model.spectra && samples.length < ENOUGH_PATCHES && deviceSpace === 'RGB') {
    // Few patches don't tell the luminescence apart at every colour: the total is taken as it was read.
    const total = samples.map((s) => ({ ...s, reflected: totalOf(s), luminous: undefined }));
    const bands = { ...spectraOf(like.model, grid), bands: waves(grid) } satisfies Like & object;
    const white = totalOf(paper);
    const kinship = kinshipOf(
      bands,
      total,
      total.map((s) => s.reflected),
      white,
    );
    const { print } = kinPrinter(bands, white);
    const rooted = (device: readonly number[]) => Float64Array.from(print(kinship, device), toRoot);
    const spectral = channelsOf(total, grid, SPREAD.map(rooted));
    const response = spectralResponse(spectral);
    const base = (device: readonly number[]) => project(spectral.reflected, rooted(device));
    const { fit, error } = fitWithoutMisfits(total, response, modes, progress, base);
    return {
      ...known,
      spectral,
      ...plain(fit, response),
      like: { fitted: like.fitted, kinship, white: [...white] },
      error,
    };
  }
  const spectral = channelsOf(samples, grid);
  const response = spectralResponse(spectral);
  const { fit, error } = fitWithoutMisfits(samples, response, modes, progress);
  return { ...known, spectral, ...plain(fit, response), error };
}

const plain = (fit: SmoothFit, { channels }: Response) => ({
  channels,
  // Six digits hold more than any instrument.
  amounts: Array.from(fit.amounts, (v) => Number(v.toPrecision(6))),
  smoothness: fit.smoothness,
});

const totalOf = (s: PrintSample) => (s.luminous ? s.reflected!.map((v, i) => v + s.luminous![i]!) : s.reflected!);

/** Where each band of a grid lies among the visible waves, 0–1. */
export const waves = ({ startNm, stepNm, count }: { startNm: number; stepNm: number; count: number }): Float64Array =>
  Float64Array.from({ length: count }, (_, i) => Math.min(1, Math.max(0, (startNm + i * stepNm - 400) / 300)));

/** Device values spread over the cube, from which a like's channels are found. */
const SPREAD = Array.from({ length: 216 }, (_, i) => [
  Math.floor(i / 36) / 5,
  (Math.floor(i / 6) % 6) / 5,
  (i % 6) / 5,
]);

/** Studentised residuals beyond this many robust deviations, and at least so many ΔE00 off, are misreadings (our own choice). */
const MISFIT = { deviations: 8, deltaE00: 3 };
const ROUNDS = 6;
/**
 * A misread patch pulls its neighbours off, within about this distance of device values: only the worst of a
 * neighbourhood is judged at a time.
 */
const NEIGHBOURHOOD = 0.6;

/** Patches that don't belong are left out, named, and the rest fitted again. */
function fitWithoutMisfits(
  all: readonly PrintSample[],
  response: Response,
  modes: LatticeModes,
  progress: (share: number) => void,
  base?: (device: readonly number[]) => ArrayLike<number>,
): { fit: SmoothFit; error: ModelError } {
  let kept = [...all];
  const misfits: { sample: PrintSample; deltaE00: number }[] = [];
  for (let round = 1; ; round++) {
    const values = new Float64Array(kept.length * response.channels);
    const bases = base && kept.map((s) => base(s.device));
    kept.forEach((s, p) => {
      const own = response.valuesOf(s);
      for (let c = 0; c < response.channels; c++) values[p * response.channels + c] = own[c]! - (bases?.[p]?.[c] ?? 0);
    });
    const fit = fitSmooth(
      { places: kept.map((s) => s.device), values, channels: response.channels, weights: kept.map(weightOf) },
      modes,
      // How many rounds there will be is not known: each takes half of what was left.
      (share) => progress(1 - (1 - share / 2) / 2 ** (round - 1)),
    );
    const predictions = kept.map((sample, p): Prediction => {
      const said = new Float64Array(response.channels);
      let off = 0;
      for (let c = 0; c < said.length; c++) {
        const left = fit.leftOut[p * said.length + c]!;
        said[c] = values[p * said.length + c]! - left + (bases?.[p]?.[c] ?? 0);
        off += left * left;
      }
      return {
        sample,
        room: fit.rooms[p]!,
        lab: response.labOf(said),
        deltaE00: deltaE2000(sample.lab, response.labOf(said)),
        // With its own pull given back: a corner that nothing else tells of is not called misread for it.
        studentised: Math.sqrt(off * (1 - Math.min(fit.leverage[p]!, 0.999))),
      };
    });
    const typical = median(predictions.map((p) => p.studentised)) * 1.4826;
    const suspects = predictions
      .filter(
        (p) =>
          p.studentised > MISFIT.deviations * typical && p.deltaE00 > MISFIT.deltaE00 && !isCorner(p.sample.device),
      )
      .sort((p, q) => q.studentised - p.studentised);
    const off = suspects.filter(
      (p, i) => !suspects.slice(0, i).some((q) => distance(p.sample.device, q.sample.device) < NEIGHBOURHOOD),
    );
    if (off.length === 0 || misfits.length + off.length > all.length / 10 || round === ROUNDS)
      return { fit, error: modelError(predictions, misfits) };
    misfits.push(...off.map(({ sample, deltaE00 }) => ({ sample, deltaE00 })));
    const gone = new Set(off.map((p) => p.sample));
    kept = kept.filter((s) => !gone.has(s));
  }
}

const distance = (p: readonly number[], q: readonly number[]) => Math.hypot(...p.map((v, i) => v - q[i]!));

/** Greys count more: an eye sees there what it forgives elsewhere (our own choice). */
const GREY_WEIGHT = 4;
const isGrey = (device: readonly number[]) => device.length === 3 && Math.max(...device) - Math.min(...device) < 0.02;
const weightOf = ({ device, weight }: PrintSample) => weight * (isGrey(device) ? GREY_WEIGHT : 1);

/** The ends of the inks are where a model leans on single patches; none of them is thrown out. */
const isCorner = (device: readonly number[]) => device.every((v) => v === 0 || v === 1);

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
