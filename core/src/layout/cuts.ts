import type { Placed } from './nest.ts';

/** A cut from edge to edge of the piece in hand. */
export interface Cut {
  /** `across`: parallel to the short edge at the top of the drawing; `down`: parallel to its side. */
  readonly way: 'across' | 'down';
  /** From the top (across) or the left (down) of the whole sheet, mm. */
  readonly atMm: number;
  /** The piece in hand, by what lies on it. */
  readonly parts: readonly string[];
}

interface Box {
  readonly key: string;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

const NEAR = 1e-6;

/**
 * The cuts in the order in which they are made, each right through the piece in hand: the first halves the sheet, the
 * next each half. Between two things the knife goes through the middle of the gap; trimming to the picture's edge comes
 * last and is not told.
 * @returns undefined where no knife parts them so
 */
export function orderOfCuts(placed: readonly Placed[]): Cut[] | undefined {
  const boxes = placed.map((p): Box => {
    const [w, h] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
    return { key: p.key, x0: p.xMm, y0: p.yMm, x1: p.xMm + w, y1: p.yMm + h };
  });
  return part(boxes);
}

function part(boxes: readonly Box[]): Cut[] | undefined {
  if (boxes.length < 2) return [];
  for (const way of ['across', 'down'] as const) {
    const [from, to] = way === 'across' ? (['y0', 'y1'] as const) : (['x0', 'x1'] as const);
    const sorted = [...boxes].sort((a, b) => a[from] - b[from]);
    let reach = sorted[0]![to];
    for (let i = 1; i < sorted.length; i++) {
      if (sorted[i]![from] >= reach - NEAR) {
        const [first, second] = [part(sorted.slice(0, i)), part(sorted.slice(i))];
        if (!first || !second) return undefined;
        const atMm = (reach + sorted[i]![from]) / 2;
        return [{ way, atMm, parts: boxes.map((b) => b.key) }, ...first, ...second];
      }
      reach = Math.max(reach, sorted[i]![to]);
    }
  }
  return undefined;
}
