import type { Lab } from '../colour/types.ts';

/** Colours at the nodes of a regular lattice over device values 0–1: three numbers a node, the last axis fastest. */
export interface ColourLattice {
  readonly axes: 3 | 4;
  readonly nodes: number;
  readonly values: Float32Array;
}

/**
 * Value between the nodes, by simplices: the axes are walked from the greatest fraction to the least, so that greys are read along the diagonal and
 * nowhere else (the usual tetrahedra of three axes, and their like of four).
 */
export function readLattice({ axes, nodes, values }: ColourLattice, at: ArrayLike<number>, out: Float64Array): void {
  let base = 0;
  let stride = 1;
  for (let x = axes - 1; x >= 0; x--) {
    const v = at[x];
    const place = v <= 0 ? 0 : v >= 1 ? nodes - 1 : v * (nodes - 1);
    const low = Math.min(nodes - 2, Math.floor(place));
    FRACTION[x] = place - low;
    STRIDE[x] = stride * 3;
    ORDER[x] = x;
    base += low * stride;
    stride *= nodes;
  }
  for (let i = 1; i < axes; i++) {
    const x = ORDER[i];
    let j = i - 1;
    for (; j >= 0 && FRACTION[ORDER[j]] < FRACTION[x]; j--) ORDER[j + 1] = ORDER[j];
    ORDER[j + 1] = x;
  }
  let node = base * 3;
  let weight = 1 - FRACTION[ORDER[0]];
  out[0] = weight * values[node];
  out[1] = weight * values[node + 1];
  out[2] = weight * values[node + 2];
  for (let i = 0; i < axes; i++) {
    node += STRIDE[ORDER[i]];
    weight = FRACTION[ORDER[i]] - (i + 1 < axes ? FRACTION[ORDER[i + 1]] : 0);
    out[0] += weight * values[node];
    out[1] += weight * values[node + 1];
    out[2] += weight * values[node + 2];
  }
}
const FRACTION = new Float64Array(4);
const STRIDE = new Int32Array(4);
const ORDER = new Int32Array(4);

/** The same for one place, as Lab. */
export function labAt(lattice: ColourLattice, at: ArrayLike<number>): Lab {
  const out = new Float64Array(3);
  readLattice(lattice, at, out);
  return [out[0], out[1], out[2]];
}

/** Device values of every node, in the lattice's order. */
export function* nodePlaces(axes: number, nodes: number): Generator<number[]> {
  const total = nodes ** axes;
  for (let n = 0; n < total; n++) {
    const at = new Array<number>(axes);
    for (let x = axes - 1, rest = n; x >= 0; x--, rest = Math.floor(rest / nodes)) at[x] = (rest % nodes) / (nodes - 1);
    yield at;
  }
}
