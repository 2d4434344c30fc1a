import type { Lab } from '../colour/types.ts';
import type { ColourLattice } from './lattice.ts';

/** A unit of L*, a* or b* in a packed lattice: finer than any screen or instrument. */
const UNITS = 250;

/** A lattice of Lab as 16-bit whole numbers. */
export const packLab = ({ values }: ColourLattice): Int16Array =>
  Int16Array.from(values, (v) => Math.max(-32_768, Math.min(32_767, Math.round(v * UNITS))));

/** @param nodes along each of the three axes */
export function unpackLab(nodes: number, packed: Int16Array): ColourLattice {
  const values = new Float32Array(packed.length);
  for (let i = 0; i < packed.length; i++) values[i] = packed[i]! / UNITS;
  return { axes: 3, nodes, values };
}

/** A printed sheet as it crosses the wire: its lattice packed, little-endian, in base64. */
export interface PackedSheet {
  readonly nodes: number;
  readonly white: Lab;
  readonly blackL: number;
  readonly lab: string;
}
