import type { Lab } from '../colour/types.ts';

/** Colours at the nodes of a regular lattice over device values 0–1: three numbers a node, the last axis fastest. */
export interface ColourLattice {
  readonly axes: 3 | 4;
  readonly nodes: number;
  readonly values: Float32Array;
}

/**
 * Value between the nodes, by simplices: the axes are walked from the greatest fraction to the least, so that greys are
 * read along the diagonal and nowhere else (the usual tetrahedra of three axes, and their like of four).
 */
export function readLattice(lattice: ColourLattice, at: ArrayLike<number>, out: Float64Array): void {
  if (lattice.axes === 3) readCube(lattice.nodes, lattice.values, at[0]!, at[1]!, at[2]!, out, 0);
  else readAnyAxes(lattice, at, out);
}

/** Three axes, written out: profiles and proofs ask it a million times. */
export function readCube(
  nodes: number,
  values: Float32Array,
  x: number,
  y: number,
  z: number,
  out: Float64Array | Float32Array,
  to: number,
): void {
  const last = nodes - 1;
  const px = x <= 0 ? 0 : x >= 1 ? last : x * last;
  const py = y <= 0 ? 0 : y >= 1 ? last : y * last;
  const pz = z <= 0 ? 0 : z >= 1 ? last : z * last;
  let ix = px | 0;
  let iy = py | 0;
  let iz = pz | 0;
  if (ix === last) ix--;
  if (iy === last) iy--;
  if (iz === last) iz--;
  const fx = px - ix;
  const fy = py - iy;
  const fz = pz - iz;
  const sx = nodes * nodes * 3;
  const sy = nodes * 3;
  const n0 = ix * sx + iy * sy + iz * 3;
  const n3 = n0 + sx + sy + 3;
  let n1: number;
  let n2: number;
  let high: number;
  let middle: number;
  let low: number;
  if (fx >= fy) {
    if (fy >= fz) {
      n1 = n0 + sx;
      n2 = n1 + sy;
      high = fx;
      middle = fy;
      low = fz;
    } else if (fx >= fz) {
      n1 = n0 + sx;
      n2 = n1 + 3;
      high = fx;
      middle = fz;
      low = fy;
    } else {
      n1 = n0 + 3;
      n2 = n1 + sx;
      high = fz;
      middle = fx;
      low = fy;
    }
  } else if (fx >= fz) {
    n1 = n0 + sy;
    n2 = n1 + sx;
    high = fy;
    middle = fx;
    low = fz;
  } else if (fy >= fz) {
    n1 = n0 + sy;
    n2 = n1 + 3;
    high = fy;
    middle = fz;
    low = fx;
  } else {
    n1 = n0 + 3;
    n2 = n1 + sy;
    high = fz;
    middle = fy;
    low = fx;
  }
  const w0 = 1 - high;
  const w1 = high - middle;
  const w2 = middle - low;
  out[to] = w0 * values[n0]! + w1 * values[n1]! + w2 * values[n2]! + low * values[n3]!;
  out[to + 1] = w0 * values[n0 + 1]! + w1 * values[n1 + 1]! + w2 * values[n2 + 1]! + low * values[n3 + 1]!;
  out[to + 2] = w0 * values[n0 + 2]! + w1 * values[n1 + 2]! + w2 * values[n2 + 2]! + low * values[n3 + 2]!;
}

/**
 * Slopes of the three values along the three axes, over the cell a place lies in and not over one simplex of it, so
 * that the creases between simplices don't mislead who follows them.
 * @param out value · 3 + axis, per unit of device value
 */
export function cubeSlopes(nodes: number, values: Float32Array, at: ArrayLike<number>, out: Float64Array): void {
  const last = nodes - 1;
  const px = Math.min(1, Math.max(0, at[0]!)) * last;
  const py = Math.min(1, Math.max(0, at[1]!)) * last;
  const pz = Math.min(1, Math.max(0, at[2]!)) * last;
  const ix = Math.min(last - 1, px | 0);
  const iy = Math.min(last - 1, py | 0);
  const iz = Math.min(last - 1, pz | 0);
  const fx = px - ix;
  const fy = py - iy;
  const fz = pz - iz;
  const gx = 1 - fx;
  const gy = 1 - fy;
  const gz = 1 - fz;
  const sx = nodes * nodes * 3;
  const sy = nodes * 3;
  const n = ix * sx + iy * sy + iz * 3;
  for (let c = 0; c < 3; c++) {
    const v000 = values[n + c]!;
    const v001 = values[n + 3 + c]!;
    const v010 = values[n + sy + c]!;
    const v011 = values[n + sy + 3 + c]!;
    const v100 = values[n + sx + c]!;
    const v101 = values[n + sx + 3 + c]!;
    const v110 = values[n + sx + sy + c]!;
    const v111 = values[n + sx + sy + 3 + c]!;
    out[c * 3] =
      last * (gy * gz * (v100 - v000) + gy * fz * (v101 - v001) + fy * gz * (v110 - v010) + fy * fz * (v111 - v011));
    out[c * 3 + 1] =
      last * (gx * gz * (v010 - v000) + gx * fz * (v011 - v001) + fx * gz * (v110 - v100) + fx * fz * (v111 - v101));
    out[c * 3 + 2] =
      last * (gx * gy * (v001 - v000) + gx * fy * (v011 - v010) + fx * gy * (v101 - v100) + fx * fy * (v111 - v110));
  }
}

function readAnyAxes({ axes, nodes, values }: ColourLattice, at: ArrayLike<number>, out: Float64Array): void {
  simplexOf(axes, nodes, at, CORNER, WEIGHT, 0);
  out[0] = out[1] = out[2] = 0;
  for (let i = 0; i <= axes; i++) {
    const node = CORNER[i]! * 3;
    out[0] += WEIGHT[i]! * values[node]!;
    out[1] += WEIGHT[i]! * values[node + 1]!;
    out[2] += WEIGHT[i]! * values[node + 2]!;
  }
}
const CORNER = new Int32Array(5);
const WEIGHT = new Float64Array(5);

/**
 * The nodes about a place and what each counts there: found once, where many lattices of the same size are read at the same places.
 * @param corners numbers of `axes` + 1 nodes, from `to` on
 * @param weights of each; they sum to 1
 */
export function simplexOf(
  axes: number,
  nodes: number,
  at: ArrayLike<number>,
  corners: Int32Array,
  weights: Float32Array | Float64Array,
  to: number,
): void {
  let base = 0;
  let stride = 1;
  for (let x = axes - 1; x >= 0; x--) {
    const v = at[x]!;
    const place = v <= 0 ? 0 : v >= 1 ? nodes - 1 : v * (nodes - 1);
    const low = Math.min(nodes - 2, Math.floor(place));
    FRACTION[x] = place - low;
    STRIDE[x] = stride;
    ORDER[x] = x;
    base += low * stride;
    stride *= nodes;
  }
  for (let i = 1; i < axes; i++) {
    const x = ORDER[i]!;
    let j = i - 1;
    for (; j >= 0 && FRACTION[ORDER[j]!]! < FRACTION[x]!; j--) ORDER[j + 1] = ORDER[j]!;
    ORDER[j + 1] = x;
  }
  corners[to] = base;
  weights[to] = 1 - FRACTION[ORDER[0]!]!;
  for (let i = 0; i < axes; i++) {
    corners[to + i + 1] = base += STRIDE[ORDER[i]!]!;
    weights[to + i + 1] = FRACTION[ORDER[i]!]! - (i + 1 < axes ? FRACTION[ORDER[i + 1]!]! : 0);
  }
}
const FRACTION = new Float64Array(4);
const STRIDE = new Int32Array(4);
const ORDER = new Int32Array(4);

/** The same for one place, as Lab. */
export function labAt(lattice: ColourLattice, at: ArrayLike<number>): Lab {
  const out = new Float64Array(3);
  readLattice(lattice, at, out);
  return [out[0]!, out[1]!, out[2]!];
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
