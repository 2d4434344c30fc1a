import type { Lab } from '../colour/types.ts';
import type { DeviceSpace, MeasurementCondition, Reading, SpectralGrid } from '../measurement/reading.ts';
import { groupPatches, noiseAt, repeatability } from '../measurement/repeats.ts';
import { project } from './components.ts';
import { kinPrinter, kinshipOf, type Kinship, type Like } from './kinship.ts';
import { contradicted, inDispute, withoutPatches, type Contradicted } from './contradicted.ts';
import { fitSamples, predictor, type FitTask } from './fit-samples.ts';
import type { LocalFit } from './local-fit.ts';
import type { ModelError } from './model-error.ts';
import type { PrintModel } from './print-model.ts';
import { samplesOf, type JoinedSamples, type PrintSample } from './print-samples.ts';
import { channelsOf, colourResponse, spectralResponse, toRoot, type SpectralChannels } from './response.ts';
import { latticeModes } from './smooth-modes.ts';
import { spectraOf } from './spectra-of-model.ts';

/** What was learned from the readings of a print condition, small enough to be kept beside them. Plain data, JSON as it stands. */
export interface FittedPrint {
  readonly version: number;
  readonly deviceSpace: DeviceSpace;
  readonly condition?: MeasurementCondition;
  /** Absent where the readings hold no spectra: then Lab was fitted. */
  readonly spectral?: SpectralChannels;
  /** Readings that were not joined with the primary one. */
  readonly leftOut: readonly LeftOutSet[];
  /** L* below which nothing was read, the uncertainty of the darkest reading taken off. */
  readonly darkestL: number;
  readonly channels: number;
  /** How many of the shapes are hinges; see {@link LatticeModes}. */
  readonly hinges: number;
  /** Channel · shapes + shape of the lattice. */
  readonly amounts: readonly number[];
  /** What neighbours agree on beyond the smooth shapes. */
  readonly local?: LocalFit;
  readonly smoothness: number;
  /** Where few patches were read: the like they were added to. */
  readonly like?: { readonly fitted: FittedPrint; readonly kinship: Kinship; readonly white: readonly number[] };
  /** Where few patches were read: which relatives were tried, by the ids they were given, the best first, each with its error. */
  readonly relatives?: readonly { readonly id: string; readonly deltaE00: number }[];
  readonly error: ModelError;
}

/** Rises whenever the same readings would give another model. */
export const MODEL_VERSION = 2;

/** Nodes along an axis, and the most smooth shapes of the lattice that are fitted. */
export const LATTICE = {
  RGB: { axes: 3, nodes: 33, shapes: 500 },
  CMYK: { axes: 4, nodes: 13, shapes: 700 },
} as const;

/** Hinges about full ink: inks that are driven one by one have no black of their own to set in. */
const HINGES = { RGB: 20, CMYK: 0 } as const;

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

/** A reading that was not used, by its place in the list that was given, and why. */
export interface LeftOutSet {
  readonly index: number;
  readonly why: string;
}

/** A known print to begin from where the patches are few. */
export interface KnownRelative {
  readonly fitted: FittedPrint;
  readonly model: PrintModel;
}

/**
 * Computes a model of a print condition from its readings.
 * @param readings of one print condition, the primary one first; sets that disagree with it are left out. Where one was
 *   read without UV (M2) beside one with it, brightener is separated
 * @param like a known print of the same printer and inks, or of the same kind, to begin from where the patches are few
 * @param progress share 0–1
 * @throws ModelFault where they hold too little
 */
export function fitPrint(
  readings: readonly Reading[],
  like?: KnownRelative,
  progress: (share: number) => void = () => {},
): FittedPrint {
  const asRead = samplesOf(readings);
  const disputed = inDispute(asRead.samples);
  const contradictions = disputed.length === 0 ? [] : settle(asRead, disputed, like);
  const kept = contradictions.length === 0 ? asRead : samplesOf(withoutPatches(readings, contradictions));
  const { samples, reading } = kept;
  const { spectral, ...task } = taskOf(kept, like);
  const { smooth, local, error } = fitSamples(samples, task, progress);
  return {
    version: MODEL_VERSION,
    deviceSpace: reading.deviceSpace!,
    condition: reading.condition,
    leftOut: asRead.leftOut.map((l) => ({ index: readings.indexOf(l.reading), why: l.why })),
    darkestL: darkestOf(reading, samples),
    spectral,
    channels: task.response.channels,
    hinges: smooth.modes.hinges,
    // Six digits hold more than any instrument.
    amounts: Array.from(smooth.amounts, (v) => Number(v.toPrecision(6))),
    local,
    smoothness: smooth.smoothness,
    like: task.like,
    error: {
      ...error,
      questioned: error.questioned.map((q) => ({ ...q, set: setOf(readings, q) })),
      contradicted: contradictions.map(({ reading: { id, lab }, deltaE00 }) => ({ patch: id, lab, deltaE00 })),
    },
  };
}

/** Which of the readings holds a patch as it was read: two charts may call unlike patches alike. */
const setOf = (readings: readonly Reading[], { patch, lab }: { readonly patch: string; readonly lab: Lab }): number =>
  readings.findIndex((r) => r.patches.some((p) => p.id === patch && p.lab.every((v, i) => v === lab[i])));

/** Decides which readings of disputed patches are left out, by what all other patches say. */
function settle(asRead: JoinedSamples, disputed: readonly PrintSample[], like?: KnownRelative): Contradicted[] {
  const gone = new Set(disputed);
  const samples = asRead.samples.filter((s) => !gone.has(s));
  // A disputed paper or too few others: each keeps the company it has.
  const others = samples.length >= FEWEST_PATCHES && samples.some(isBare) ? { ...asRead, samples } : asRead;
  const expected = predictor(others.samples, taskOf(others, like));
  return disputed.flatMap((sample) => contradicted(sample, expected(sample.device)));
}

const isBare = ({ device }: PrintSample) => device.every((v) => v === (device.length === 4 ? 0 : 1));

/** In what a print is fitted. @throws ModelFault */
function taskOf(
  { samples, reading: { deviceSpace, spectralGrid: grid } }: JoinedSamples,
  like?: KnownRelative,
): FitTask & Pick<FittedPrint, 'spectral' | 'like'> {
  if (!deviceSpace || samples.length === 0)
    throw new ModelFault('The readings hold no device values: what was sent is not known, so no model can be made.');
  if (samples.length < FEWEST_PATCHES)
    throw new ModelFault(
      `The readings hold ${samples.length} different patches; a model needs at least ${FEWEST_PATCHES}.`,
    );
  const paper = samples.find(isBare);
  if (!paper) throw new ModelFault('The readings hold no bare paper; read a patch without ink too.');
  const { axes, nodes } = LATTICE[deviceSpace];
  const modes = latticeModes(axes, nodes, shapesFor(deviceSpace, samples.length), HINGES[deviceSpace]);
  if (!grid || !samples.every((s) => s.reflected)) return { response: colourResponse, modes };
  if (like?.model.spectra && samples.length < ENOUGH_PATCHES && deviceSpace === 'RGB')
    return { modes, ...relativeTask(samples, grid, totalOf(paper), like) };
  const spectral = channelsOf(samples, grid);
  return { modes, spectral, response: spectralResponse(spectral) };
}

/** Few patches are fitted as what they differ by from a known print, once its inks and surface are brought to theirs. */
function relativeTask(
  samples: readonly PrintSample[],
  grid: SpectralGrid,
  white: readonly number[],
  { fitted, model }: KnownRelative,
) {
  // Few patches can't separate the luminescence at every colour: the total is taken as it was read.
  const total = samples.map((s) => ({ ...s, reflected: totalOf(s), luminous: undefined }));
  const bands = { ...spectraOf(model, grid), bands: waves(grid) } satisfies Like & object;
  const kinship = kinshipOf(
    bands,
    total,
    total.map((s) => s.reflected),
    white,
  );
  const { print } = kinPrinter(bands, white);
  const rooted = (device: readonly number[]) => Float64Array.from(print(kinship, device), toRoot);
  const spectral = channelsOf(total, grid, SPREAD.map(rooted));
  const own = spectralResponse(spectral);
  return {
    spectral,
    response: {
      ...own,
      valuesOf: (s: PrintSample) => own.valuesOf({ ...s, reflected: totalOf(s), luminous: undefined }),
    },
    base: (device: readonly number[]) => project(spectral.reflected, rooted(device)),
    like: { fitted, kinship, white: [...white] },
  };
}

/** Two standard deviations of its mean below the darkest patch. */
function darkestOf(reading: Reading, samples: readonly PrintSample[]): number {
  const { lab, weight } = samples.reduce((least, s) => (s.lab[0] < least.lab[0] ? s : least));
  return lab[0] - (2 * noiseAt(repeatability(groupPatches(reading)), lab[0])[0]) / Math.sqrt(weight);
}

/** What was read of a patch, luminescence included. */
export const totalOf = (s: PrintSample) =>
  s.luminous ? s.reflected!.map((v, i) => v + s.luminous![i]!) : s.reflected!;

/** Where each band of a grid lies among the visible waves, 0–1. */
export const waves = ({ startNm, stepNm, count }: { startNm: number; stepNm: number; count: number }): Float64Array =>
  Float64Array.from({ length: count }, (_, i) => Math.min(1, Math.max(0, (startNm + i * stepNm - 400) / 300)));

/** Device values spread over the cube, from which a like's channels are found. */
const SPREAD = Array.from({ length: 216 }, (_, i) => [
  Math.floor(i / 36) / 5,
  (Math.floor(i / 6) % 6) / 5,
  (i % 6) / 5,
]);
