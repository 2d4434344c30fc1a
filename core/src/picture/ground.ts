import type { Lab } from '../colour/types.ts';
import type { Blocks } from './blocks.ts';

/** The plain ground a subject lies on: a sheet under a plant, a wall behind a head. */
export interface Ground {
  readonly lab: Lab;
  /** Share of the picture, 0–1. */
  readonly share: number;
  /** Which blocks belong to it. */
  readonly blocks: Uint8Array;
}

/** A ground keeps within this of its own colour, ΔE*ab (our own bounds, from looking at pictures). */
const EVEN = 9;
/** So much of the picture's edge must be ground, and so much of the whole. */
const EDGE_SHARE = 0.55;
const LEAST_SHARE = 0.25;
/** Ground is plain: its blocks step less than this from one to the next, L*. */
const PLAIN_STEP = 6;
/** Root mean square step from a block of the ground to the next, L*: paper and walls, not land. */
const PLAIN_WHOLE = 1.5;

const middle = (values: number[]): number => values.sort((p, q) => p - q)[values.length >> 1]!;

/** The ground, where there is one: even in colour, plain, and all about the edge of the picture. */
export function groundOf(blocks: Blocks): Ground | undefined {
  const { columns, rows, L, a, b, within } = blocks;
  const edge: number[] = [];
  for (let x = 0; x < columns; x++) edge.push(x, (rows - 1) * columns + x);
  for (let y = 1; y < rows - 1; y++) edge.push(y * columns, y * columns + columns - 1);
  const lab: Lab = [middle(edge.map((i) => L[i]!)), middle(edge.map((i) => a[i]!)), middle(edge.map((i) => b[i]!))];
  const even = (i: number) =>
    Math.hypot(L[i]! - lab[0], a[i]! - lab[1], b[i]! - lab[2]) < EVEN && within[i]! < PLAIN_STEP * PLAIN_STEP;
  const begins = edge.filter(even);
  if (begins.length < EDGE_SHARE * edge.length) return undefined;
  const ground = new Uint8Array(columns * rows);
  const todo = begins.slice();
  begins.forEach((i) => (ground[i] = 1));
  let count = begins.length;
  while (todo.length > 0) {
    const i = todo.pop()!;
    const x = i % columns;
    for (const [next, there] of [
      [i - 1, x > 0],
      [i + 1, x < columns - 1],
      [i - columns, i >= columns],
      [i + columns, i + columns < ground.length],
    ] as const) {
      if (!there || ground[next] || !even(next)) continue;
      ground[next] = 1;
      count++;
      todo.push(next);
    }
  }
  const share = count / ground.length;
  return share < LEAST_SHARE || share > 0.98 || stepsIn(blocks, ground) > PLAIN_WHOLE
    ? undefined
    : { lab, share, blocks: ground };
}

/** Root mean square step of L* between neighbours that both belong to the ground. */
function stepsIn({ columns, L }: Blocks, ground: Uint8Array): number {
  let [sum, n] = [0, 0];
  for (let i = 1; i < ground.length; i++) {
    if (!ground[i] || !ground[i - 1] || i % columns === 0) continue;
    sum += (L[i]! - L[i - 1]!) ** 2;
    n++;
  }
  return n === 0 ? 0 : Math.sqrt(sum / n);
}
