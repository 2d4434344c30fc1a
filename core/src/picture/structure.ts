import type { Lab } from '../colour/types.ts';
import type { Blocks } from './blocks.ts';
import { hintsOf, type HintFound } from './hints.ts';
import { groundOf } from './ground.ts';
import { marksOf, type Mark } from './marks.ts';
import { keyOf, type Key, type PictureFigures } from './tally.ts';
import { tilesOf, type Tiles } from './tiles.ts';

/** What a picture is made of besides its tones and colours. Shares are 0–1 of it; positions 0–1 across and down, as it is looked at. */
export interface PictureStructure {
  /** The plain ground it lies on, where there is one; and the key of what lies on it. */
  readonly ground?: { readonly lab: Lab; readonly share: number };
  readonly subject: { readonly medianL: number; readonly key: Key };
  /** Contrast by scale: standard deviation of L* between one size and its double; `size` as a share of the longer side. */
  readonly scales: readonly { readonly size: number; readonly sdL: number }[];
  /** Plain areas in which a sheet's texture or a step of tone would be seen. */
  readonly smoothShare: number;
  /** Busy areas in which a texture is lost. */
  readonly busyShare: number;
  /** Grain or noise: standard deviation of L* from pixel to pixel where nothing is drawn. */
  readonly noiseL: number;
  /** Finest detail: the ninth tenth of the steps from pixel to pixel, L*, noise taken out. */
  readonly fineL: number;
  /** Sharp in a small part, smooth in the most of the rest. */
  readonly shallowFocus: boolean;
  /** Large areas below L* 20. */
  readonly darkAreaShare: number;
  /** Of those with L* below 20 and above 92: how much of them holds detail, as a share of the picture. */
  readonly shadowDetailShare: number;
  readonly lightDetailShare: number;
  readonly skinShare: number;
  readonly marks: readonly Mark[];
  readonly hints: readonly HintFound[];
  /** Tiles across and down, and a digit each: 0 plain to 9 busy. */
  readonly map: { readonly columns: number; readonly rows: number; readonly busy: string };
}

/** L* about a tile's own slope: below it an area is smooth, above it busy (our own bounds, from looking at pictures). */
export const SMOOTH_L = 1.6;
export const BUSY_L = 6;
const DARK_L = 20;
const NEAR_WHITE_L = 92;

export interface Orientation {
  /** Takes a place in the file to the place as it is looked at, both 0–1. */
  readonly upright: (x: number, y: number) => readonly [number, number];
}
export const AS_IT_LIES: Orientation = { upright: (x, y) => [x, y] };

export function structureOf(
  blocks: Blocks,
  figures: Pick<PictureFigures, 'medianL' | 'nearBlackShare' | 'colour'>,
  orientation: Orientation = AS_IT_LIES,
): PictureStructure {
  const tiles = tilesOf(blocks);
  const noiseL = noiseOf(tiles);
  const drawn = tiles.busy.map((v) => Math.sqrt(Math.max(0, v * v - noiseL * noiseL)));
  const found = groundOf(blocks);
  const subjectL = found ? medianOf(blocks.L, (i) => found.blocks[i] === 0) : figures.medianL;
  const share = (holds: (tile: number) => boolean) => {
    let n = 0;
    for (let i = 0; i < drawn.length; i++) if (holds(i)) n++;
    return n / drawn.length;
  };
  const { L } = tiles;
  const smoothShare = share((i) => drawn[i]! < SMOOTH_L && L[i]! > 12 && L[i]! < 97);
  const skin = (i: number) => skinLike(tiles, i) && drawn[i]! < 2.5 * SMOOTH_L;
  const skinShare = figures.colour === 'colour' ? share(skin) : 0;
  const fine = Array.from(tiles.fine, (v) => Math.sqrt(Math.max(0, v * v - 2 * noiseL * noiseL)));
  const sortedFine = [...fine].sort((p, q) => p - q);
  const fineL = sortedFine[Math.floor(sortedFine.length * 0.9)]!;
  const energy = fine.reduce((s, v) => s + v * v, 0);
  const sharpest = sortedFine.slice(Math.floor(fine.length * 0.8)).reduce((s, v) => s + v * v, 0);
  const structure = {
    ground: found && { lab: found.lab, share: found.share },
    subject: { medianL: subjectL, key: keyOf(subjectL) },
    scales: scalesOf(blocks),
    smoothShare,
    busyShare: share((i) => drawn[i]! > BUSY_L),
    noiseL,
    fineL,
    shallowFocus: !found && smoothShare > 0.4 && energy > 0 && sharpest > 0.85 * energy && fineL > 1,
    darkAreaShare: share((i) => L[i]! < DARK_L),
    shadowDetailShare: share((i) => L[i]! < DARK_L && drawn[i]! > 1),
    lightDetailShare: share((i) => L[i]! > NEAR_WHITE_L && drawn[i]! > 0.7),
    skinShare,
  };
  return {
    ...structure,
    marks: marksOf(tiles, drawn, fine, { colour: figures.colour, skin: skinShare > 0.01 ? skin : undefined }).map(
      (m) => {
        const [x, y] = orientation.upright(m.x, m.y);
        return { ...m, x, y };
      },
    ),
    hints: hintsOf(tiles, drawn, structure, figures),
    map: mapOf(tiles, drawn, orientation),
  };
}

/** Hue, chroma and lightness that skin of every kind keeps within (our own bounds). */
function skinLike({ L, a, b }: Tiles, i: number): boolean {
  const C = Math.hypot(a[i]!, b[i]!);
  const h = (Math.atan2(b[i]!, a[i]!) * 180) / Math.PI;
  return L[i]! > 25 && L[i]! < 90 && C > 9 && C < 34 && h > 25 && h < 78 && a[i]! > 4;
}

/** The steps from pixel to pixel that are left in the plainest tenth of the picture: /√2 for each is of two pixels. */
function noiseOf({ fine, L }: Tiles): number {
  const plain = Array.from(fine)
    .filter((_, i) => L[i]! > 8 && L[i]! < 97)
    .sort((p, q) => p - q);
  return plain.length === 0 ? 0 : plain[Math.floor(plain.length * 0.1)]! / Math.SQRT2;
}

function medianOf(values: Float32Array, holds: (i: number) => boolean): number {
  const kept = Float32Array.from(values.filter((_, i) => holds(i))).sort();
  return kept.length === 0 ? 0 : kept[kept.length >> 1]!;
}

/** Variance of L* between blocks of one size and of twice the size (Haar): the contrast that lives at that scale. */
function scalesOf(blocks: Blocks): PictureStructure['scales'] {
  const longer = Math.max(blocks.columns, blocks.rows);
  const scales: { size: number; sdL: number }[] = [];
  const inside = blocks.within.reduce((s, v) => s + v, 0) / blocks.within.length;
  if (blocks.sizePx > 1) scales.push({ size: 1 / longer, sdL: Math.sqrt(inside) });
  let level = { columns: blocks.columns, rows: blocks.rows, L: Float64Array.from(blocks.L) };
  for (let size = 1; Math.min(level.columns, level.rows) >= 4; size *= 2) {
    const half = { columns: level.columns >> 1, rows: level.rows >> 1 };
    const L = new Float64Array(half.columns * half.rows);
    let within = 0;
    for (let y = 0; y < half.rows; y++)
      for (let x = 0; x < half.columns; x++) {
        const at = 2 * y * level.columns + 2 * x;
        const p = level.L[at]!;
        const q = level.L[at + 1]!;
        const r = level.L[at + level.columns]!;
        const s = level.L[at + level.columns + 1]!;
        const mean = (p + q + r + s) / 4;
        within += ((p - mean) ** 2 + (q - mean) ** 2 + (r - mean) ** 2 + (s - mean) ** 2) / 4;
        L[y * half.columns + x] = mean;
      }
    scales.push({ size: (2 * size) / longer, sdL: Math.sqrt(within / L.length) });
    level = { ...half, L };
  }
  return scales;
}

function mapOf(tiles: Tiles, drawn: Float32Array, { upright }: Orientation): PictureStructure['map'] {
  const turned = upright(0, 0)[0] === upright(1, 0)[0];
  const [columns, rows] = turned ? [tiles.rows, tiles.columns] : [tiles.columns, tiles.rows];
  const digits = new Array<string>(columns * rows).fill('0');
  drawn.forEach((v, i) => {
    const [x, y] = upright(
      ((i % tiles.columns) + 0.5) / tiles.columns,
      (Math.floor(i / tiles.columns) + 0.5) / tiles.rows,
    );
    digits[Math.floor(y * rows) * columns + Math.floor(x * columns)] = String(Math.min(9, Math.floor(v)));
  });
  return { columns, rows, busy: digits.join('') };
}
