import { labRoot } from '../colour/lab.ts';
import { lighting, type Lighting } from '../light/lit-sheet.ts';
import type { Glass } from '../light/glass.ts';
import type { Spectrum } from '../colour/types.ts';
import type { ColourLattice } from './lattice.ts';
import { ModelFault, type NodeSpectra, type PrintModel } from './print-model.ts';

/**
 * The same print under another light and behind a glass: new weights for the components of its spectra, and no new fit.
 * @returns Lab for an eye adapted to the light, corresponding colours under D50
 * @throws ModelFault where the model was made from colours without spectra
 */
export function litModel({ labs, spectra }: PrintModel, light: Spectrum, glass: Glass): ColourLattice {
  if (!spectra)
    throw new ModelFault('The readings hold no spectra; how the print looks under another light is not known.');
  const { grid, reflected, luminous } = spectra;
  const under = lighting(light, glass, { ...grid, bands: grid.count });
  return { ...labs, values: litNodes(reflected, luminous, under) };
}

function litNodes(reflected: NodeSpectra, luminous: NodeSpectra | undefined, under: Lighting): Float32Array {
  const own = weightsOf(reflected, under.reflected);
  const glow = luminous && weightsOf(luminous, under.luminous);
  const size = reflected.basis.directions.length;
  const count = reflected.amounts.length / size;
  const glowSize = luminous?.basis.directions.length ?? 0;
  const m = under.toD50;
  const out = new Float32Array(count * 3);
  for (let n = 0, at = 0, lit = 0; n < count; n++) {
    let [X, Y, Z] = under.veil;
    for (let c = 0; c < size; c++, at++) {
      const amount = reflected.amounts[at];
      X += amount * own[c * 3];
      Y += amount * own[c * 3 + 1];
      Z += amount * own[c * 3 + 2];
    }
    for (let c = 0; c < glowSize; c++, lit++) {
      const amount = luminous!.amounts[lit];
      X += amount * glow![c * 3];
      Y += amount * glow![c * 3 + 1];
      Z += amount * glow![c * 3 + 2];
    }
    const fx = labRoot(m[0] * X + m[1] * Y + m[2] * Z);
    const fy = labRoot(m[3] * X + m[4] * Y + m[5] * Z);
    const fz = labRoot(m[6] * X + m[7] * Y + m[8] * Z);
    out[n * 3] = 116 * fy - 16;
    out[n * 3 + 1] = 500 * (fx - fy);
    out[n * 3 + 2] = 200 * (fy - fz);
  }
  return out;
}

/** XYZ of each component: component · 3 + channel. */
function weightsOf({ basis }: NodeSpectra, bars: readonly Float64Array[]): Float64Array {
  return Float64Array.from(
    basis.directions.flatMap((d) => bars.map((bar) => bar.reduce((sum, v, i) => sum + v * d[i], 0))),
  );
}
