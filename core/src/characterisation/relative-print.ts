import { relativeToWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import type { ColourLattice } from './lattice.ts';
import { reachOf } from './reach.ts';
import type { RelativeSheet } from './renderings.ts';

/** A print condition relative to its own white, as profiles and renderings take it. */
export interface RelativePrint extends RelativeSheet {
  readonly lattice: ColourLattice;
  /** The bare sheet, absolute. */
  readonly white: Lab;
}

/** An RGB condition's lattice, absolute Lab, taken relative to its white. */
export function relativePrint(labs: ColourLattice): RelativePrint {
  const { values } = labs;
  const last = values.length - 3;
  const white: Lab = [values[last]!, values[last + 1]!, values[last + 2]!];
  const toRelative = relativeToWhite(white);
  const relative = new Float32Array(values.length);
  for (let n = 0; n < values.length; n += 3) relative.set(toRelative([values[n]!, values[n + 1]!, values[n + 2]!]), n);
  const lattice: ColourLattice = { ...labs, values: relative };
  return { lattice, white, blackL: Math.max(0, relative[0]!), reach: reachOf(lattice) };
}
