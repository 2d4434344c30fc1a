import type { Placed } from './nest.ts';

/** A cut from edge to edge of the piece that is in hand then, and no further. */
export interface Cut {
  /** `across`: parallel to the short edge at the top of the drawing; `down`: parallel to its side. */
  readonly way: 'across' | 'down';
  /** From the top (across) or the left (down) of the whole sheet, mm. */
  readonly atMm: number;
  /** Where it begins and ends along its own way: from the left (across) or the top (down), mm. */
  readonly fromMm: number;
  readonly toMm: number;
  /** Keys of what lies on each side of it: above and below, or left and right. */
  readonly first: readonly string[];
  readonly second: readonly string[];
}

/** A rectangle, mm from the top left. */
interface Rect {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}
interface Box extends Rect {
  readonly key: string;
}

const NEAR = 1e-6;

/**
 * The cuts in the order in which they are made, each right through the piece in hand: the first halves the sheet, the
 * next each half. Between two things the knife goes through the middle of the gap; trimming to the picture's edge comes
 * last and is not listed.
 * @param sheet the whole of it, in the coordinates of what is placed
 * @returns undefined where no knife parts them so
 */
export function orderOfCuts(placed: readonly Placed[], sheet: Rect): Cut[] | undefined {
  const boxes = placed.map((p): Box => {
    const [w, h] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
    return { key: p.key, x0: p.xMm, y0: p.yMm, x1: p.xMm + w, y1: p.yMm + h };
  });
  return part(boxes, sheet);
}

function part(boxes: readonly Box[], piece: Rect): Cut[] | undefined {
  if (boxes.length < 2) return [];
  for (const way of ['across', 'down'] as const) {
    const [from, to] = way === 'across' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
    const sorted = [...boxes].sort((a, b) => a[from] - b[from]);
    let reach = sorted[0]![to];
    for (let i = 1; i < sorted.length; i++) {
      if (sorted[i]![from] >= reach - NEAR) {
        const atMm = (reach + sorted[i]![from]) / 2;
        const sides = [sorted.slice(0, i), sorted.slice(i)] as const;
        const [first, second] = [part(sides[0], { ...piece, [to]: atMm }), part(sides[1], { ...piece, [from]: atMm })];
        if (!first || !second) return undefined;
        const along = way === 'across' ? { fromMm: piece.x0, toMm: piece.x1 } : { fromMm: piece.y0, toMm: piece.y1 };
        const [above, below] = [sides[0].map((b) => b.key), sides[1].map((b) => b.key)];
        return [{ way, atMm, ...along, first: above, second: below }, ...first, ...second];
      }
      reach = Math.max(reach, sorted[i]![to]);
    }
  }
  return undefined;
}

/** Names that are written out; of more their number is said. */
const MAX_NAMES = 3;

/** What lies on one side of a cut: "Salt, 5 × Card"; of many "7 pieces". */
export function sideWords(keys: readonly string[], nameOf: (key: string) => string): string {
  const counts = new Map<string, number>();
  for (const key of keys) counts.set(nameOf(key), (counts.get(nameOf(key)) ?? 0) + 1);
  if (counts.size > MAX_NAMES) return `${keys.length} pieces`;
  return [...counts].map(([name, n]) => (n > 1 ? `${n} × ${name}` : name)).join(', ');
}
