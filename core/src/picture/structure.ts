import type { Lab } from '../colour/types.ts';
import type { Blocks } from './blocks.ts';
import { hintsOf, type HintFound } from './hints.ts';
import { groundOf } from './ground.ts';
import { marksOf, type Mark } from './marks.ts';
import { keyOf, type Key, type PictureFigures } from './tally.ts';
import { tilesOf, type Tiles } from './tiles.ts';

/** Contrast of a picture at one scale. */
export interface ContrastScale {
  /** As a share of the longer side. */
  readonly size: number;
  /** Standard deviation of L* between this size and half of it. */
  readonly sdL: number;
  /** Which tones it lives in: shares of its variance between the bounds of `TONE_BOUNDS_L`; they add up to 1. */
  readonly byTone?: readonly number[];
}

/** L* that part the tones of which a contrast is reported; narrow in the shadows, where sheets differ. */
export const TONE_BOUNDS_L: readonly number[] = [0, 5, 10, 15, 20, 25, 35, 50, 70, 100];
export const TONES = TONE_BOUNDS_L.length - 1;
/** Which of the tones an L* lies in. */
export function toneAt(L: number): number {
  let tone = TONES - 1;
  while (tone > 0 && L < TONE_BOUNDS_L[tone]!) tone--;
  return tone;
}

/** What a picture is made of besides its tones and colours. Shares are 0–1 of it; positions 0–1 across and down, as it is looked at. */
export interface PictureStructure {
  /** The plain ground it lies on, where there is one; and the key of what lies on it. */
  readonly ground?: { readonly lab: Lab; readonly share: number };
  readonly subject: { readonly medianL: number; readonly key: Key };
  /** Contrast by scale, the finest first. */
  readonly scales: readonly ContrastScale[];
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

/** Sums variance by the tone it lies in. */
class VarianceByTone {
  private readonly sums = new Float64Array(TONES);
  private count = 0;

  /** @param squared deviation of L*, squared, about a place whose L* is half way between it and its surroundings */
  add(L: number, squared: number): void {
    this.sums[toneAt(L)]! += squared;
  }

  /** Counts a place, whatever varies there. */
  step(places = 1): void {
    this.count += places;
  }

  scale(size: number): ContrastScale {
    const whole = this.sums.reduce((s, v) => s + v, 0);
    const share = (v: number) => Math.round((v / whole) * 10_000) / 10_000;
    return {
      size,
      sdL: Math.sqrt(whole / Math.max(1, this.count)),
      ...(whole > 0 && { byTone: Array.from(this.sums, share) }),
    };
  }
}

/** Variance of L* between blocks of one size and of twice the size (Haar): the contrast that lives at that scale. */
function scalesOf(blocks: Blocks): PictureStructure['scales'] {
  const longer = Math.max(blocks.columns, blocks.rows);
  const scales: ContrastScale[] = [];
  if (blocks.sizePx > 1) {
    const inside = new VarianceByTone();
    blocks.within.forEach((variance, i) => inside.add(blocks.L[i]!, variance));
    inside.step(blocks.within.length);
    scales.push(inside.scale(1 / longer));
  }
  let level = { columns: blocks.columns, rows: blocks.rows, L: Float64Array.from(blocks.L) };
  for (let size = 1; Math.min(level.columns, level.rows) >= 4; size *= 2) {
    const half = { columns: level.columns >> 1, rows: level.rows >> 1 };
    const L = new Float64Array(half.columns * half.rows);
    const between = new VarianceByTone();
    for (let y = 0; y < half.rows; y++)
      for (let x = 0; x < half.columns; x++) {
        const at = 2 * y * level.columns + 2 * x;
        const four = [level.L[at]!, level.L[at + 1]!, level.L[at + level.columns]!, level.L[at + level.columns + 1]!];
        const mean = (four[0]! + four[1]! + four[2]! + four[3]!) / 4;
        for (const v of four) between.add((v + mean) / 2, (v - mean) ** 2 / 4);
        between.step();
        L[y * half.columns + x] = mean;
      }
    scales.push(between.scale((2 * size) / longer));
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
