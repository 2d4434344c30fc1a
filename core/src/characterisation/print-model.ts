import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { DeviceSpace, MeasurementCondition, Reading, SpectralGrid } from '../measurement/reading.ts';
import { componentsOf, compose, project, type Components } from './components.ts';
import { evenGreys, noDarkerThan } from './even-greys.ts';
import { fitPrint, LATTICE, waves, type FittedPrint } from './fitted-print.ts';
import { kinPrinter } from './kinship.ts';
import { nodePlaces, type ColourLattice } from './lattice.ts';
import { addLocal } from './local-fit.ts';
import type { ModelError } from './model-error.ts';
import { fillColumns, fillPanels, padded, panelTimes } from './panel-algebra.ts';
import { PANEL, panelRoom } from './panels.ts';
import { fromRoot, toRoot } from './response.ts';
import { atNodes, latticeModes } from './smooth-modes.ts';
import { spectraOf } from './spectra-of-model.ts';

export { FEWEST_PATCHES, MODEL_VERSION, ModelFault } from './fitted-print.ts';

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

/** The model of a print condition from its readings alone; see {@link fitPrint}. @throws ModelFault */
export const printModel = (readings: readonly Reading[]): PrintModel => expandPrint(fitPrint(readings));

/** Opens what was learned into lattices: a fraction of the cost of learning it. */
export function expandPrint(fitted: FittedPrint): PrintModel {
  const { deviceSpace, spectral } = fitted;
  const { axes, nodes } = LATTICE[deviceSpace];
  const shapes = fitted.amounts.length / fitted.channels - fitted.hinges;
  const modes = latticeModes(axes, nodes, shapes, fitted.hinges);
  const channels = atNodes(modes, Float64Array.from(fitted.amounts), fitted.channels);
  if (fitted.local) addLocal(channels, axes, nodes, fitted.local);
  const model = { version: fitted.version, deviceSpace, condition: fitted.condition, nodes, error: fitted.error };
  if (!spectral) {
    const values = new Float32Array(channels[0]!.length * 3);
    for (let n = 0; n < channels[0]!.length; n++)
      for (let c = 0; c < 3; c++) values[n * 3 + c] = channels[c]![n]! * 100;
    noDarkerThan(values, fitted.darkestL);
    return { ...model, labs: { axes, nodes, values: evenGreys(values, nodes, axes).labs } };
  }
  if (fitted.like) addLike(channels, fitted);
  const reflected = linearSpectra(channels, spectral.reflected);
  const luminous =
    spectral.luminous && ownAmounts(channels.slice(spectral.reflected.directions.length), spectral.luminous);
  const spectra = { grid: spectral.grid, reflected, luminous };
  const unbent = labsUnderD50(spectra);
  const raised = noDarkerThan(unbent, fitted.darkestL);
  const { labs, lift: evened } = evenGreys(unbent, nodes, axes);
  for (const lift of [raised, evened]) {
    if (!lift) continue;
    for (const part of [reflected, luminous]) {
      const size = part?.basis.directions.length ?? 0;
      for (let n = 0; n < lift.length; n++) for (let c = 0; c < size; c++) part!.amounts[n * size + c]! *= lift[n]!;
    }
  }
  return { ...model, labs: { axes, nodes, values: labs }, spectra };
}

/** Adds what the like prints, taken over by the kinship, to every node. */
function addLike(channels: readonly Float64Array[], { deviceSpace, spectral, like }: FittedPrint): void {
  const { grid, reflected } = spectral!;
  const { axes, nodes } = LATTICE[deviceSpace];
  const { print } = kinPrinter({ ...spectraOf(expandPrint(like!.fitted), grid), bands: waves(grid) }, like!.white);
  let n = 0;
  for (const device of nodePlaces(axes, nodes)) {
    project(reflected, Float64Array.from(print(like!.kinship, device), toRoot)).forEach(
      (v, c) => (channels[c]![n]! += v),
    );
    n++;
  }
}

/** Node spectra are rebuilt, cubed, and told anew as sums of a few. */
function linearSpectra(channels: readonly Float64Array[], roots: Components): NodeSpectra {
  const count = channels[0]!.length;
  const { width, mean, directions } = roots;
  // A sample of the nodes finds the directions; dark ones are scaled up, for their spectra matter as much as light ones.
  const sampled: Float64Array[] = [];
  const every = Math.max(1, Math.floor(count / 1500));
  for (let n = 0; n < count; n += every) {
    const row = compose(
      roots,
      directions.map((_, c) => channels[c]![n]!),
    ).map(fromRoot);
    const level = row.reduce((s, v) => s + v, 0) / width || 1;
    sampled.push(row.map((v) => v / level ** (2 / 3)));
  }
  const basis = componentsOf(sampled, { most: 12, leastRms: 1e-6, centred: false });
  const size = basis.directions.length;

  const terms = directions.length + 1;
  const room = panelRoom([
    [count, terms],
    [width, terms],
    [size, padded(width)],
    [PANEL, padded(width)],
    [PANEL, padded(size)],
  ]);
  // The mean is a term of which every node holds one.
  const nodes = room.take(count, terms);
  fillColumns(nodes, [...channels.slice(0, directions.length), new Float64Array(count).fill(1)]);
  const bands = room.take(width, terms);
  fillColumns(bands, [...directions, mean]);
  const own = room.take(size, padded(width));
  fillPanels(own, basis.directions);
  const spectra = room.take(PANEL, padded(width));
  const found = room.take(PANEL, padded(size));
  const amounts = new Float32Array(count * size);
  for (let panel = 0; panel < nodes.count; panel++) {
    panelTimes(room, nodes, panel, bands, spectra, 0);
    for (let i = 0; i < spectra.values.length; i++) spectra.values[i] = fromRoot(spectra.values[i]!);
    panelTimes(room, spectra, 0, own, found);
    const here = Math.min(PANEL, count - panel * PANEL);
    for (let r = 0; r < here; r++)
      for (let c = 0; c < size; c++) amounts[(panel * PANEL + r) * size + c] = found.values[c * PANEL + r]!;
  }
  return { basis, amounts };
}

function ownAmounts(channels: readonly Float64Array[], basis: Components): NodeSpectra {
  const size = basis.directions.length;
  const amounts = new Float32Array(channels[0]!.length * size);
  for (let c = 0; c < size; c++) for (let n = 0; n < channels[c]!.length; n++) amounts[n * size + c] = channels[c]![n]!;
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
        const amount = amounts[n * w.length + c]!;
        for (let i = 0; i < 3; i++) xyz[i]! += amount * w[c]![i]!;
      }
    out.set(xyzToLab(xyz, white), n * 3);
  }
  return out;
}
