import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab } from '../colour/types.ts';
import type { DeviceSpace, MeasurementCondition, Reading, SpectralGrid } from '../measurement/reading.ts';
import { compose, componentsOf, project, type Components } from './components.ts';
import { evenGreys } from './even-greys.ts';
import type { ColourLattice } from './lattice.ts';
import { modelError, type ModelError, type Prediction } from './model-error.ts';
import { samplesOf, type PrintSample } from './print-samples.ts';
import { fitSmooth, type SmoothFit } from './smooth-fit.ts';
import { atNodes, latticeModes } from './smooth-modes.ts';

/** Spectra at the nodes as sums of a few: linear, so that a light is only a change of weights. */
export interface NodeSpectra {
  /** Components without a mean. */
  readonly basis: Components;
  /** Node · components + component. */
  readonly amounts: Float32Array;
}

/**
 * What comes out of one print condition for every value sent. Plain data: it is kept, sent to a worker, and evaluated anywhere.
 */
export interface PrintModel {
  readonly version: number;
  readonly deviceSpace: DeviceSpace;
  readonly condition?: MeasurementCondition;
  readonly nodes: number;
  /** Lab (D50, 2°) as the instrument would read it. */
  readonly labs: ColourLattice;
  /** Absent where the readings hold no spectra: then no other light can be told. */
  readonly spectra?: {
    readonly grid: SpectralGrid;
    /** Total factor, or where the print was read with and without UV the part without luminescence. */
    readonly reflected: NodeSpectra;
    /** What brightener adds under D50. */
    readonly luminous?: NodeSpectra;
  };
  readonly error: ModelError;
}

/** Rises whenever the same readings would give another model. */
export const MODEL_VERSION = 1;

/** Nodes along an axis, and smooth shapes of the lattice that are fitted. */
const LATTICE = { RGB: { axes: 3, nodes: 33, shapes: 500 }, CMYK: { axes: 4, nodes: 13, shapes: 700 } } as const;

/** Fewest different patches that say anything of a print (a sample pack's two sheets). */
export const FEWEST_PATCHES = 30;

/** A model that can't be made; the message says why. */
export class ModelFault extends Error {
  override readonly name = 'ModelFault';
}

/** Reflectances are fitted as their cube roots, in which equal steps are about equal to the eye. */
const toRoot = (r: number) => Math.cbrt(Math.max(0, r));
const fromRoot = (t: number) => (t > 0 ? t * t * t : 0);

/** Components of the roots that add less than this are noise (our own choice, a tenth of a unit of L*). */
const ROOT_NOISE = 0.0004;
const LIT_NOISE = 0.0008;

/** What is fitted of a print: channels a place, and how they become a spectrum and a colour again. */
interface Response {
  readonly channels: number;
  readonly valuesOf: (sample: PrintSample) => ArrayLike<number>;
  readonly labOf: (channels: ArrayLike<number>, from: number) => Lab;
  readonly reflected?: Components;
  readonly luminous?: Components;
}

function spectralResponse(samples: readonly PrintSample[], grid: SpectralGrid): Response {
  const reflected = componentsOf(
    samples.map((s) => Float64Array.from(s.reflected!, toRoot)),
    { most: 10, leastRms: ROOT_NOISE },
  );
  const lit = samples.every((s) => s.luminous);
  const luminous = lit
    ? componentsOf(
        samples.map((s) => s.luminous!),
        { most: 3, leastRms: LIT_NOISE, centred: false },
      )
    : undefined;
  const dull = reflected.directions.length;
  const white = illuminantWhite();
  return {
    channels: dull + (luminous?.directions.length ?? 0),
    valuesOf: (s) => [
      ...project(reflected, Float64Array.from(s.reflected!, toRoot)),
      ...(luminous ? project(luminous, s.luminous!) : []),
    ],
    labOf: (channels, from) => {
      const values = Array.from(compose(reflected, channels, from), fromRoot);
      if (luminous) compose(luminous, channels, from + dull).forEach((v, i) => (values[i] += v));
      return xyzToLab(spectrumToXyz({ startNm: grid.startNm, stepNm: grid.stepNm, values }), white);
    },
    reflected,
    luminous,
  };
}

const colourResponse: Response = {
  channels: 3,
  valuesOf: (s) => s.lab.map((v) => v / 100),
  labOf: (c, from) => [c[from] * 100, c[from + 1] * 100, c[from + 2] * 100],
};

/**
 * The model of a print condition from its readings.
 * @param readings of one print condition; where one was read without UV (M2) beside one with it, brightener is told apart
 * @throws ModelFault where they hold too little
 */
export function printModel(readings: readonly Reading[]): PrintModel {
  const { samples, reading } = samplesOf(readings);
  const { deviceSpace, spectralGrid: grid } = reading;
  if (!deviceSpace || samples.length === 0)
    throw new ModelFault('The readings hold no device values: what was sent is not known, so no model can be made.');
  if (samples.length < FEWEST_PATCHES)
    throw new ModelFault(
      `The readings hold ${samples.length} different patches; a model needs at least ${FEWEST_PATCHES}.`,
    );
  const bare = deviceSpace === 'RGB' ? 1 : 0;
  if (!samples.some((s) => s.device.every((v) => v === bare)))
    throw new ModelFault('The readings hold no bare paper; read a patch without ink too.');
  const { axes, nodes, shapes } = LATTICE[deviceSpace];
  const spectral = grid !== undefined && samples.every((s) => s.reflected);
  const response = spectral ? spectralResponse(samples, grid) : colourResponse;

  const modes = latticeModes(axes, nodes, shapes);
  const fitted = fitWithoutMisfits(samples, response, modes);
  const channels = atNodes(modes, fitted.fit.amounts, response.channels);
  const model = { version: MODEL_VERSION, deviceSpace, condition: reading.condition, nodes, error: fitted.error };
  if (!spectral) {
    const values = new Float32Array(channels[0].length * 3);
    for (let n = 0; n < channels[0].length; n++) for (let c = 0; c < 3; c++) values[n * 3 + c] = channels[c][n] * 100;
    return { ...model, labs: { axes, nodes, values: evenGreys(values, nodes, axes).labs } };
  }
  const reflected = linearSpectra(channels, response.reflected!);
  const luminous =
    response.luminous && ownAmounts(channels.slice(response.reflected!.directions.length), response.luminous);
  const spectra = { grid, reflected, luminous };
  const { labs, lift } = evenGreys(labsUnderD50(spectra), nodes, axes);
  if (lift)
    for (const part of [reflected, luminous]) {
      const size = part?.basis.directions.length ?? 0;
      for (let n = 0; n < lift.length; n++) for (let c = 0; c < size; c++) part!.amounts[n * size + c] *= lift[n];
    }
  return { ...model, labs: { axes, nodes, values: labs }, spectra };
}

/** Studentised residuals beyond this many robust deviations, and at least so many ΔE00 off, are misreadings (our own choice). */
const MISFIT = { deviations: 8, deltaE00: 3 };
const ROUNDS = 6;
/** A misread patch pulls its neighbours off, within about this distance of device values: only the worst of a neighbourhood is judged at a time. */
const NEIGHBOURHOOD = 0.6;

/** Patches that don't belong are left out, named, and the rest fitted again. */
function fitWithoutMisfits(
  all: readonly PrintSample[],
  response: Response,
  modes: ReturnType<typeof latticeModes>,
): { fit: SmoothFit; error: ModelError } {
  let kept = [...all];
  const misfits: { sample: PrintSample; deltaE00: number }[] = [];
  for (let round = 1; ; round++) {
    const values = new Float64Array(kept.length * response.channels);
    kept.forEach((s, p) => values.set(response.valuesOf(s), p * response.channels));
    const fit = fitSmooth(
      { places: kept.map((s) => s.device), values, channels: response.channels, weights: kept.map((s) => s.weight) },
      modes,
    );
    const predictions = kept.map((sample, p): Prediction => {
      const said = new Float64Array(response.channels);
      let off = 0;
      for (let c = 0; c < said.length; c++) {
        const left = fit.leftOut[p * said.length + c];
        said[c] = values[p * said.length + c] - left;
        off += left * left;
      }
      return {
        sample,
        lab: response.labOf(said, 0),
        deltaE00: deltaE2000(sample.lab, response.labOf(said, 0)),
        // With its own pull given back: a corner that nothing else tells of is not called misread for it.
        studentised: Math.sqrt(off * (1 - Math.min(fit.leverage[p], 0.999))),
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

const distance = (p: readonly number[], q: readonly number[]) => Math.hypot(...p.map((v, i) => v - q[i]));

/** The ends of the inks are where a model leans on single patches; none of them is thrown out. */
const isCorner = (device: readonly number[]) => device.every((v) => v === 0 || v === 1);

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** Node spectra are rebuilt, cubed, and told anew as sums of a few. */
function linearSpectra(channels: readonly Float64Array[], roots: Components): NodeSpectra {
  const count = channels[0].length;
  const { width, mean, directions } = roots;
  const at = (n: number, out: Float64Array) => {
    out.set(mean);
    for (let c = 0; c < directions.length; c++) {
      const amount = channels[c][n];
      const d = directions[c];
      for (let i = 0; i < width; i++) out[i] += amount * d[i];
    }
    for (let i = 0; i < width; i++) out[i] = fromRoot(out[i]);
    return out;
  };
  const scratch = new Float64Array(width);
  // A sample of the nodes finds the directions; dark ones are scaled up, for their spectra matter as much as light ones.
  const sampled: Float64Array[] = [];
  const every = Math.max(1, Math.floor(count / 1500));
  for (let n = 0; n < count; n += every) {
    const row = Float64Array.from(at(n, scratch));
    const level = row.reduce((s, v) => s + v, 0) / width || 1;
    sampled.push(row.map((v) => v / level ** (2 / 3)));
  }
  const basis = componentsOf(sampled, { most: 12, leastRms: 1e-6, centred: false });
  const size = basis.directions.length;
  const amounts = new Float32Array(count * size);
  for (let n = 0; n < count; n++) {
    at(n, scratch);
    for (let c = 0; c < size; c++) {
      const d = basis.directions[c];
      let sum = 0;
      for (let i = 0; i < width; i++) sum += scratch[i] * d[i];
      amounts[n * size + c] = sum;
    }
  }
  return { basis, amounts };
}

function ownAmounts(channels: readonly Float64Array[], basis: Components): NodeSpectra {
  const size = basis.directions.length;
  const amounts = new Float32Array(channels[0].length * size);
  for (let c = 0; c < size; c++) for (let n = 0; n < channels[c].length; n++) amounts[n * size + c] = channels[c][n];
  return { basis, amounts };
}

/** Lab of every node as an instrument reads it: both parts summed under D50. */
function labsUnderD50({ grid, reflected, luminous }: NonNullable<PrintModel['spectra']>): Float32Array {
  const weights = (part: NodeSpectra) =>
    part.basis.directions.map((d) => spectrumToXyz({ ...grid, values: Array.from(d) }));
  const white = illuminantWhite();
  const parts = [reflected, luminous].flatMap((p) => (p ? [{ amounts: p.amounts, weights: weights(p) }] : []));
  const count = reflected.amounts.length / reflected.basis.directions.length;
  const out = new Float32Array(count * 3);
  for (let n = 0; n < count; n++) {
    const xyz: [number, number, number] = [0, 0, 0];
    for (const { amounts, weights: w } of parts)
      for (let c = 0; c < w.length; c++) {
        const amount = amounts[n * w.length + c];
        for (let i = 0; i < 3; i++) xyz[i] += amount * w[c][i];
      }
    out.set(xyzToLab(xyz, white), n * 3);
  }
  return out;
}
