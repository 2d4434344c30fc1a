import { colourWords } from '../colour/hue-names.ts';
import { chroma } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { tileMiddle, type Tiles } from './tiles.ts';

/** Where a print is decided: what a printmaker looks at first. */
export const MARK_KINDS = {
  shadow: 'the deepest shadow that holds detail',
  light: 'the lightest light',
  colour: 'the most endangered colour',
  smooth: 'the smoothest area',
  fine: 'the finest detail',
  skin: 'skin',
  own: 'your own place',
} as const;
export type MarkKind = keyof typeof MARK_KINDS;

/** A place in the picture. */
export interface Mark {
  readonly kind: MarkKind;
  /** 0–1 across and down. */
  readonly x: number;
  readonly y: number;
  /** Mean colour there; of the endangered colour, itself. */
  readonly lab: Lab;
  /** What is drawn there: root mean square of L* about its mean. */
  readonly detailL: number;
  /** The printmaker’s own word for it, which it keeps wherever it is moved. */
  readonly word?: string;
}

/** What a mark is called: by its own word, by what was found there, or by the colour that lies there. */
export const markName = ({ kind, lab, word }: Pick<Mark, 'kind' | 'lab' | 'word'>): string =>
  word ?? (kind === 'own' ? `your own place, ${colourWords(lab)}` : MARK_KINDS[kind]);

/** Shadows and lights are looked for among these, L*. */
const SHADOW_L = 30;
/** Tiles between two marks. */
const APART = 4;
/** Least that can be called detail, L*. */
const DETAIL = 1;

/**
 * Chroma that prints on most sheets at a lightness, roughly: full in the middle, none at the ends (our own; a sheet's
 * own gamut tells exactly).
 */
const usualReach = (L: number) => 78 * Math.sqrt(Math.max(0, 1 - ((L - 55) / 56) ** 2)) + 4;

/** The places at which a picture will be decided, in the order of the list above. */
export function marksOf(
  tiles: Tiles,
  drawn: Float32Array,
  fine: readonly number[],
  { colour, skin }: { colour: string; skin?: (tile: number) => boolean },
): Mark[] {
  const { L, a, b, strongest, columns, rows } = tiles;
  const strong = (i: number): Lab => [strongest[i * 3]!, strongest[i * 3 + 1]!, strongest[i * 3 + 2]!];
  const endangered = (i: number) => {
    const C = chroma(strong(i));
    return C > 25 ? C / usualReach(strongest[i * 3]!) : undefined;
  };
  const count = columns * rows;
  const best = (score: (tile: number) => number | undefined): number | undefined => {
    let [found, most]: [number | undefined, number] = [undefined, -Infinity];
    for (let i = 0; i < count; i++) {
      const v = score(i);
      if (v !== undefined && v > most) [found, most] = [i, v];
    }
    return found;
  };
  /** Mean over a tile and its neighbours: an area, not a speck. */
  const about = (values: ArrayLike<number>, i: number) => {
    const [x, y] = [i % columns, Math.floor(i / columns)];
    let [sum, n] = [0, 0];
    for (let v = Math.max(0, y - 1); v <= Math.min(rows - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(columns - 1, x + 1); u++, n++) sum += values[v * columns + u]!;
    return sum / n;
  };
  const inside = (i: number) => {
    const [x, y] = [i % columns, Math.floor(i / columns)];
    return x > 0 && y > 0 && x < columns - 1 && y < rows - 1;
  };
  const lightest = best((i) => L[i]);
  /** Two marks on one place say the same thing twice. */
  const near = (i: number, other: number | undefined) =>
    other !== undefined &&
    Math.hypot((i % columns) - (other % columns), Math.floor(i / columns) - Math.floor(other / columns)) < APART;
  const found: [MarkKind, number | undefined][] = [
    ['shadow', best((i) => (L[i]! < SHADOW_L && drawn[i]! >= DETAIL ? -L[i]! : undefined))],
    ['light', lightest],
    // A lamp or a berry counts by its own colour, not by its share.
    ['colour', colour === 'colour' ? best(endangered) : undefined],
    [
      'smooth',
      best((i) => (inside(i) && L[i]! > 15 && L[i]! < 96 && about(drawn, i) < 3 ? -about(drawn, i) : undefined)),
    ],
    ['fine', best((i) => (fine[i]! > DETAIL && !near(i, lightest) ? fine[i] : undefined))],
    ['skin', skin && best((i) => (skin(i) ? -about(drawn, i) : undefined))],
  ];
  return found.flatMap(([kind, i]) => {
    if (i === undefined) return [];
    const [x, y] = tileMiddle(tiles, i);
    return [{ kind, x, y, lab: kind === 'colour' ? strong(i) : ([L[i]!, a[i]!, b[i]!] as const), detailL: drawn[i]! }];
  });
}
