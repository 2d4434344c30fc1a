import { colourWords } from '../colour/hue-names.ts';
import { cellMiddle, commonLength, stretchesBeyond, type Columns } from './columns.ts';

/** What two solids have in common, and what each has of the other. Volumes in cubic CIELAB units, shares 0–1. */
export interface Coverage {
  readonly intersection: number;
  /** Share of the second's volume that lies inside the first. */
  readonly firstCoversSecond: number;
  readonly secondCoversFirst: number;
}

/** Intersection and coverage each way, from columns cut at the same step. @throws RangeError when they were not */
export function coverage(first: Columns, second: Columns): Coverage {
  const [p, q] = sameStep(first, second);
  const [fewer, more] = p.cells.size <= q.cells.size ? [p, q] : [q, p];
  let length = 0;
  for (const [key, stretches] of fewer.cells) {
    const other = more.cells.get(key);
    if (other) length += commonLength(stretches, other);
  }
  const intersection = length * first.step * first.step;
  return {
    intersection,
    firstCoversSecond: second.volume === 0 ? 0 : intersection / second.volume,
    secondCoversFirst: first.volume === 0 ? 0 : intersection / first.volume,
  };
}

/** Colours one solid has and another has not, gathered under a printmaker's word. */
export interface Beyond {
  /** "deep blues", "light yellows". */
  readonly words: string;
  /** Cubic CIELAB units. */
  readonly volume: number;
  readonly lowL: number;
  readonly highL: number;
}

/** L* is looked at in pieces this long, so that a tall column falls into deep, middle and light. */
const PIECE_L = 4;

/** Where the first solid reaches beyond the second, the most first. @throws RangeError when they were cut at different steps */
export function reachesBeyond(first: Columns, second: Columns): Beyond[] {
  sameStep(first, second);
  const found = new Map<string, { volume: number; lowL: number; highL: number }>();
  for (const [key, stretches] of first.cells) {
    const [a, b] = cellMiddle(key, first.step);
    const beyond = stretchesBeyond(stretches, second.cells.get(key) ?? []);
    for (let i = 0; i < beyond.length; i += 2) {
      for (let from = beyond[i]!; from < beyond[i + 1]!; from += PIECE_L) {
        const to = Math.min(from + PIECE_L, beyond[i + 1]!);
        const words = colourWords([(from + to) / 2, a, b]);
        const known = found.get(words);
        const volume = (to - from) * first.step * first.step;
        if (known) {
          known.volume += volume;
          known.lowL = Math.min(known.lowL, from);
          known.highL = Math.max(known.highL, to);
        } else found.set(words, { volume, lowL: from, highL: to });
      }
    }
  }
  return [...found].map(([words, f]) => ({ words, ...f })).sort((p, q) => q.volume - p.volume);
}

function sameStep(first: Columns, second: Columns): [Columns, Columns] {
  if (first.step !== second.step) throw new RangeError('columns of one step are compared');
  return [first, second];
}
