import { labRoot } from '../colour/lab.ts';
import { estimateBrightener, glowBetween, glowOf } from '../light/estimated-brightener.ts';
import { lighting, litLabs, litXyz, type Lighting, type SheetSpectra } from '../light/lit-sheet.ts';
import type { Glass } from '../light/glass.ts';
import type { Spectrum } from '../colour/types.ts';
import type { ColourLattice } from './lattice.ts';
import { compose } from './components.ts';
import { ModelFault, type NodeSpectra, type PrintModel } from './print-model.ts';

/**
 * The same print under another light and behind a glass: new weights for the components of its spectra, and no new fit.
 * Where it was not read both with and without UV, its brightener is the one its white lets be told.
 * @returns Lab for an eye adapted to the light, corresponding colours under D50
 * @throws ModelFault where the model was made from colours without spectra
 */
export function litModel(model: PrintModel, light: Spectrum, glass: Glass): ColourLattice {
  const { labs, spectra } = model;
  if (!spectra)
    throw new ModelFault('The readings hold no spectra; how the print looks under another light is not known.');
  const { grid, reflected, luminous } = spectra;
  const under = lighting(light, glass, { ...grid, bands: grid.count });
  const estimated = luminous ? undefined : estimatedSpectra(model);
  if (!estimated) return { ...labs, values: litNodes(reflected, luminous, under) };
  return { ...labs, values: Float32Array.from(litLabs(litXyz(estimated, under), under).flat()) };
}

const known = new WeakMap<PrintModel, SheetSpectra | undefined>();

/**
 * Spectra at a model's nodes, the white last, with the brightener as it is estimated; undefined where it was read, or
 * can't be estimated.
 */
export function estimatedSpectra(model: PrintModel): SheetSpectra | undefined {
  if (!known.has(model)) known.set(model, estimate(model));
  return known.get(model);
}

function estimate({ spectra, condition, deviceSpace }: PrintModel): SheetSpectra | undefined {
  if (!spectra || spectra.luminous || deviceSpace !== 'RGB') return undefined;
  const { grid, reflected } = spectra;
  const { basis, amounts } = reflected;
  const size = basis.directions.length;
  const nodes = amounts.length / size;
  const spectrumOf = (node: number) => compose(basis, amounts.subarray(node * size, (node + 1) * size));
  const white = spectrumOf(nodes - 1);
  const found = estimateBrightener(grid, Array.from(white), condition);
  if (!found) return undefined;
  const bands = grid.count;
  const [dull, luminous] = [new Float32Array(nodes * bands), new Float32Array(nodes * bands)];
  for (let n = 0; n < nodes; n++) {
    const total = spectrumOf(n);
    const glow = glowOf(total, white, found);
    luminous.set(glow, n * bands);
    for (let i = 0; i < bands; i++) dull[n * bands + i] = total[i]! - glow[i]!;
  }
  return {
    startNm: grid.startNm,
    stepNm: grid.stepNm,
    bands,
    reflected: dull,
    luminous,
    estimated: glowBetween(found),
  };
}

function litNodes(reflected: NodeSpectra, luminous: NodeSpectra | undefined, under: Lighting): Float32Array {
  // All of it is linear up to the roots: components, veil and adaptation are brought together beforehand.
  const own = adapted(weightsOf(reflected, under.reflected), under.toD50);
  const glow = luminous && adapted(weightsOf(luminous, under.luminous), under.toD50);
  const veil = adapted(Float64Array.from(under.veil), under.toD50);
  const size = own.length / 3;
  const glowSize = glow ? glow.length / 3 : 0;
  const [veilX, veilY, veilZ] = veil;
  const { amounts } = reflected;
  const count = amounts.length / size;
  const out = new Float32Array(count * 3);
  for (let n = 0, at = 0, lit = 0; n < count; n++) {
    let X = veilX;
    let Y = veilY;
    let Z = veilZ;
    for (let c = 0; c < own.length; c += 3, at++) {
      const amount = amounts[at]!;
      X! += amount * own[c]!;
      Y! += amount * own[c + 1]!;
      Z! += amount * own[c + 2]!;
    }
    for (let c = 0; c < glowSize; c++, lit++) {
      const amount = luminous!.amounts[lit]!;
      X! += amount * glow![c * 3]!;
      Y! += amount * glow![c * 3 + 1]!;
      Z! += amount * glow![c * 3 + 2]!;
    }
    const fy = labRoot(Y!);
    out[n * 3] = 116 * fy - 16;
    out[n * 3 + 1] = 500 * (labRoot(X!) - fy);
    out[n * 3 + 2] = 200 * (fy - labRoot(Z!));
  }
  return out;
}

/** Triples of XYZ through a matrix, row by row. */
function adapted(xyzs: Float64Array, m: ArrayLike<number>): Float64Array {
  const out = new Float64Array(xyzs.length);
  for (let at = 0; at < xyzs.length; at += 3)
    for (let i = 0; i < 3; i++)
      out[at + i] = m[i * 3]! * xyzs[at]! + m[i * 3 + 1]! * xyzs[at + 1]! + m[i * 3 + 2]! * xyzs[at + 2]!;
  return out;
}

/** XYZ of each component: component · 3 + channel. */
function weightsOf({ basis }: NodeSpectra, bars: readonly Float64Array[]): Float64Array {
  return Float64Array.from(
    basis.directions.flatMap((d) => bars.map((bar) => bar.reduce((sum, v, i) => sum + v * d[i]!, 0))),
  );
}
