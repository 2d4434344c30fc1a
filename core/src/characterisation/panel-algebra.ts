import { PANEL, type PanelRoom, type Panels } from './panels.ts';

/** Symmetric matrices of a few hundred rows, their lower triangles in panels: the same as in linear-algebra, sixteen sums at a time. */

/** Rows of a matrix with those that fill up its last panel. */
export const padded = (size: number) => Math.ceil(size / PANEL) * PANEL;

/** Columns of a list of rows, as panels; each place times what it counts. @param counts 1 each where absent */
export function columnsOf(room: PanelRoom, rows: readonly Float64Array[], counts?: (row: number) => number): Panels {
  const columns = room.take(rows[0]!.length, rows.length);
  fillColumns(columns, rows, counts);
  return columns;
}

/** Copies lists into panels on their side: list k is entry k of every row. */
export function fillColumns(
  { values, width }: Panels,
  lists: readonly ArrayLike<number>[],
  counts?: (list: number) => number,
): void {
  lists.forEach((list, k) => {
    const count = counts?.(k) ?? 1;
    for (let i = 0; i < list.length; i++) values[((i >> 2) * width + k) * PANEL + (i & 3)] = count * list[i]!;
  });
}

/** Each row of one panel of `a` times every row of `b`: entries of the rows of a panel of `to`. */
export function panelTimes(room: PanelRoom, a: Panels, panel: number, b: Panels, to: Panels, toPanel = panel): void {
  for (let j = 0; j < b.count; j++) intoBlock(to, toPanel, j, room.products(b, j, a, panel, a.width));
}

/** The same of all of its panels. */
export function times(room: PanelRoom, a: Panels, b: Panels, to: Panels): void {
  for (let i = 0; i < a.count; i++) panelTimes(room, a, i, b, to);
}

function intoBlock({ values, width }: Panels, panel: number, block: number, sums: Float64Array): void {
  const at = (panel * width + block * PANEL) * PANEL;
  for (let k = 0; k < PANEL * PANEL; k++) values[at + k] = sums[k]!;
}

/** The lower triangle of Σ a·bᵀ, a symmetric matrix; rows that fill up the last panel are the identity's. @param size rows of a and b */
export function gram(room: PanelRoom, size: number, a: Panels, b: Panels): Panels {
  const to = room.take(size, padded(size));
  for (let i = 0; i < to.count; i++)
    for (let j = 0; j <= i; j++) intoBlock(to, i, j, room.products(b, j, a, i, a.width));
  for (let i = size; i < to.width; i++) addToDiagonal(to, i, 1);
  return to;
}

export const addToDiagonal = ({ values, width }: Panels, i: number, by: number): void => {
  values[((i >> 2) * width + i) * PANEL + (i & 3)]! += by;
};

/**
 * Lower triangle L of a symmetric positive definite matrix, A = L·Lᵀ, in place.
 * @throws RangeError where the matrix is not positive definite
 */
export function factor(room: PanelRoom, matrix: Panels): void {
  const { count, width, values } = matrix;
  for (let i = 0; i < count; i++) {
    for (let j = 0; j < i; j++) throughBlock(room, matrix, j, matrix, i);
    const at = (i * width + i * PANEL) * PANEL;
    const sums = room.products(matrix, i, matrix, i, i * PANEL);
    for (let r = 0; r < PANEL; r++)
      for (let c = 0; c <= r; c++) {
        let sum = values[at + c * PANEL + r]! - sums[r * PANEL + c]!;
        for (let k = 0; k < c; k++) sum -= values[at + k * PANEL + r]! * values[at + k * PANEL + c]!;
        if (c < r) values[at + c * PANEL + r] = sum / values[at + c * PANEL + c]!;
        else {
          if (!(sum > 0)) throw new RangeError('The matrix is not positive definite.');
          values[at + c * PANEL + r] = Math.sqrt(sum);
        }
      }
  }
}

/** Four entries of four rows of x in x·Lᵀ = b, once those before them are known; in place. */
function throughBlock(room: PanelRoom, lower: Panels, block: number, to: Panels, panel: number): void {
  const sums = room.products(to, panel, lower, block, block * PANEL);
  const own = (block * lower.width + block * PANEL) * PANEL;
  const at = (panel * to.width + block * PANEL) * PANEL;
  for (let c = 0; c < PANEL; c++) {
    const by = 1 / lower.values[own + c * PANEL + c]!;
    for (let r = 0; r < PANEL; r++) {
      let sum = to.values[at + c * PANEL + r]! - sums[r * PANEL + c]!;
      for (let k = 0; k < c; k++) sum -= to.values[at + k * PANEL + r]! * lower.values[own + k * PANEL + c]!;
      to.values[at + c * PANEL + r] = sum * by;
    }
  }
}

/** L⁻¹·b of four right sides, one panel of them, in place. */
export function solveLowerPanel(room: PanelRoom, lower: Panels, sides: Panels, panel = 0): void {
  for (let j = 0; j < lower.count; j++) throughBlock(room, lower, j, sides, panel);
}

/** L⁻ᵀ·y of four right sides, one panel of them, in place. */
export function solveUpperPanel({ count, width, values }: Panels, sides: Panels, panel = 0): void {
  const y = sides.values;
  const from = panel * sides.width * PANEL;
  for (let i = count * PANEL - 1; i >= 0; i--) {
    const row = (i >> 2) * width * PANEL + (i & 3);
    const at = from + i * PANEL;
    const by = 1 / values[row + i * PANEL]!;
    const y0 = (y[at]! *= by);
    const y1 = (y[at + 1]! *= by);
    const y2 = (y[at + 2]! *= by);
    const y3 = (y[at + 3]! *= by);
    for (let k = 0; k < i; k++) {
      const l = values[row + k * PANEL]!;
      const to = from + k * PANEL;
      y[to]! -= l * y0;
      y[to + 1]! -= l * y1;
      y[to + 2]! -= l * y2;
      y[to + 3]! -= l * y3;
    }
  }
}

/** Copies a list of rows of numbers into panels of right sides. */
export function fillPanels({ values, width }: Panels, rows: readonly ArrayLike<number>[]): void {
  rows.forEach((row, r) => {
    const from = (r >> 2) * width * PANEL + (r & 3);
    for (let k = 0; k < row.length; k++) values[from + k * PANEL] = row[k]!;
  });
}

/** A row, taken out of its panel. */
export const rowOf = ({ values, width }: Panels, row: number): Float64Array =>
  Float64Array.from({ length: width }, (_, k) => values[((row >> 2) * width + k) * PANEL + (row & 3)]!);

/** |x|² of each of four rows of a panel. */
export function lengthsOf({ values, width }: Panels, panel = 0): [number, number, number, number] {
  const lengths: [number, number, number, number] = [0, 0, 0, 0];
  const from = panel * width * PANEL;
  for (let at = from; at < from + width * PANEL; at += PANEL)
    for (let r = 0; r < PANEL; r++) lengths[r]! += values[at + r]! * values[at + r]!;
  return lengths;
}
