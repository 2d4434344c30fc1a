import type { Lab } from '../colour/types.ts';
import type { ColourLattice } from './lattice.ts';

/** b* of a white as it is seen, where its brightener is estimated: nine times in ten it lies between these. */
export interface EstimatedWhite {
  readonly between: readonly [low: number, high: number];
  /** The spectra begin too late to see where the brightener's band rises, and the interval is wider for it. */
  readonly startsLate: boolean;
}

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
  readonly estimatedWhite?: EstimatedWhite;
  readonly lab: string;
}
