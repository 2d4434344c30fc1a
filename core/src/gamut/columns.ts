import type { GamutMesh } from './mesh.ts';

/**
 * A solid cut into upright columns over the a*b* plane: for each cell of a lattice the stretches of L* that lie inside.
 * Two solids cut at the same step share their cells, so that what they have in common is a matter of stretches.
 */
export interface Columns {
  /** Side of a cell, CIELAB units. */
  readonly step: number;
  /** Stretches by cell, each [from, to] after one another, ascending. */
  readonly cells: ReadonlyMap<number, readonly number[]>;
  /** Cubic CIELAB units. */
  readonly volume: number;
}

/** Cells a side on the lattice's key; a* and b* of any surface colour lie well within. */
const SIDE = 4096;
/** Cell middles lie off the round numbers on which nets and greys like to lie. */
const OFFSET = 0.4142;
const STEP = 1;

export const cellMiddle = (key: number, step: number): readonly [a: number, b: number] => [
  (Math.floor(key / SIDE) - SIDE / 2 + OFFSET) * step,
  ((key % SIDE) - SIDE / 2 + OFFSET) * step,
];

/**
 * Cuts a closed mesh into columns. Where a surface folds over itself, whatever it encloses once or more is inside.
 * @param step side of a cell, CIELAB units
 */
export function columnsOf(mesh: GamutMesh, step = STEP): Columns {
  const crossings = new Map<number, number[]>();
  const first = (v: number) => Math.ceil(v / step - OFFSET);
  for (const [i, j, k] of mesh.triangles) {
    const [p, q, r] = [mesh.vertices[i]!, mesh.vertices[j]!, mesh.vertices[k]!];
    const area = (q[1] - p[1]) * (r[2] - p[2]) - (r[1] - p[1]) * (q[2] - p[2]);
    // A wall seen from above has no area and is crossed by no column.
    if (area === 0) continue;
    const upwards = area > 0 ? 1 : -1;
    const [a0, a1] = [first(Math.min(p[1], q[1], r[1])), Math.max(p[1], q[1], r[1]) / step - OFFSET];
    const [b0, b1] = [first(Math.min(p[2], q[2], r[2])), Math.max(p[2], q[2], r[2]) / step - OFFSET];
    for (let ia = a0; ia <= a1; ia++) {
      const a = (ia + OFFSET) * step;
      for (let ib = b0; ib <= b1; ib++) {
        const b = (ib + OFFSET) * step;
        const u = ((q[1] - a) * (r[2] - b) - (r[1] - a) * (q[2] - b)) / area;
        const v = ((r[1] - a) * (p[2] - b) - (p[1] - a) * (r[2] - b)) / area;
        const w = 1 - u - v;
        if (u < 0 || v < 0 || w < 0) continue;
        const key = (ia + SIDE / 2) * SIDE + ib + SIDE / 2;
        const list = crossings.get(key);
        const L = u * p[0] + v * q[0] + w * r[0];
        if (list) list.push(L, upwards);
        else crossings.set(key, [L, upwards]);
      }
    }
  }
  const cells = new Map<number, number[]>();
  let length = 0;
  for (const [key, list] of crossings) {
    const stretches = inside(list);
    if (stretches.length === 0) continue;
    cells.set(key, stretches);
    for (let i = 0; i < stretches.length; i += 2) length += stretches[i + 1]! - stretches[i]!;
  }
  return { step, cells, volume: length * step * step };
}

/** Stretches of L* whose winding number is not 0, from crossings [L*, direction] in any order. */
function inside(list: readonly number[]): number[] {
  const order = Array.from({ length: list.length / 2 }, (_, i) => i * 2).sort((x, y) => list[x]! - list[y]!);
  const out: number[] = [];
  let winding = 0;
  let from = 0;
  for (const i of order) {
    const before = winding;
    winding += list[i + 1]!;
    if (before === 0) from = list[i]!;
    else if (winding === 0) {
      const last = out.length - 1;
      if (last > 0 && from - out[last]! < 1e-9) out[last] = list[i]!;
      else out.push(from, list[i]!);
    }
  }
  return out;
}

/** Length that two lists of stretches have in common. */
export function commonLength(p: readonly number[], q: readonly number[]): number {
  let length = 0;
  for (let i = 0, j = 0; i < p.length && j < q.length;) {
    length += Math.max(0, Math.min(p[i + 1]!, q[j + 1]!) - Math.max(p[i]!, q[j]!));
    if (p[i + 1]! < q[j + 1]!) i += 2;
    else j += 2;
  }
  return length;
}

/** Stretches of the first list that no stretch of the second covers. */
export function stretchesBeyond(p: readonly number[], q: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < p.length; i += 2) {
    let from = p[i]!;
    for (let j = 0; j < q.length && q[j]! < p[i + 1]!; j += 2) {
      if (q[j]! > from) out.push(from, q[j]!);
      from = Math.max(from, q[j + 1]!);
    }
    if (from < p[i + 1]!) out.push(from, p[i + 1]!);
  }
  return out;
}
