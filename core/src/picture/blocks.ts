import type { LabOfCodes, PixelKind } from './pixels.ts';

/** A picture drawn together into blocks of equal size: what its structure is told from. */
export interface Blocks {
  readonly columns: number;
  readonly rows: number;
  /** Pixels along an edge of a block. */
  readonly sizePx: number;
  /** Mean L*, a*, b* of each block, row by row. */
  readonly L: Float32Array;
  readonly a: Float32Array;
  readonly b: Float32Array;
  /** Blocks along an edge of a tile. */
  readonly perTile: number;
  /** L*, a*, b* of the strongest colour of each tile: a small lamp is not lost in the mean. */
  readonly strongest: Float32Array;
  /** Mean square step of L* from a pixel to the next, across and down: the finest detail, and the noise. */
  readonly steps: Float32Array;
  /** Variance of L* within each block; 0 where a block is one pixel. */
  readonly within: Float32Array;
}

/** The longer side has no more blocks than this: finer structure is not seen in a print held in the hand. */
const MOST_BLOCKS = 512;
/** Blocks along an edge of a tile, some sixty of which lie along the longer side. */
const TILES_ALONG = 64;
/**
 * Rows of a block that are looked at: its structure, unlike its colours, shows in some of them. Two lie together, so that
 * steps down are seen as well as steps across and a turned picture is the same picture.
 */
const THIRD_ROW = 0.6;
/**
 * Sums a block keeps: pixels, tone, tone squared, steps across squared (all in sixteenths of a code), red, green, blue,
 * steps down squared, and how many of those.
 */
const SUMS = 9;
/** Shares of the channels in the tone by which structure is told, in sixteenths: about those of light. */
const TONE = [4, 10, 2] as const;
const SIXTEENTHS = 16;

/** Blocks as they were tallied, in the file's own codes: plain data, which one thread may hand to another. */
export interface TalliedBlocks {
  readonly kind: PixelKind;
  readonly columns: number;
  readonly rows: number;
  readonly sizePx: number;
  /** SUMS numbers of each block. */
  readonly sums: Float64Array;
  /** Codes of each block's strongest colour, and how far apart its channels are. */
  readonly strongest: Uint16Array;
}

/** A stretch of one row of a picture. */
export interface Stretch {
  /** Its first pixel among the samples that hold it. */
  readonly first: number;
  readonly y: number;
  readonly fromX: number;
  /** The pixel after its last. */
  readonly toX: number;
}

const sizeOf = ({ widthPx, heightPx }: PixelKind): number =>
  Math.max(1, Math.ceil(Math.max(widthPx, heightPx) / MOST_BLOCKS));

/**
 * What is looked at of the pixels of a file, by place. @param at the first of them, counted from the top left @param
 * count how many they are
 */
export function stretchesOf(kind: PixelKind, at: number, count: number): Stretch[] {
  const { widthPx } = kind;
  const sizePx = sizeOf(kind);
  const third = Math.max(2, Math.floor(sizePx * THIRD_ROW));
  const found: Stretch[] = [];
  for (let first = 0; first < count;) {
    const y = Math.floor((at + first) / widthPx);
    const fromX = at + first - y * widthPx;
    const toX = Math.min(widthPx, fromX + count - first);
    const row = y % sizePx;
    if (row < 2 || row === third) found.push({ first, y, fromX, toX });
    first += toX - fromX;
  }
  return found;
}

/** Gathers blocks a run of pixels at a time, row after row, in the file's own codes. */
export class BlockTally {
  readonly tallied: TalliedBlocks;
  private at = 0;
  /** Tone last seen in each column, and the row it was seen in. */
  private readonly above: Float64Array;
  private readonly aboveY: Int32Array;

  constructor(private readonly kind: PixelKind) {
    this.above = new Float64Array(kind.widthPx);
    this.aboveY = new Int32Array(kind.widthPx).fill(-2);
    const sizePx = sizeOf(kind);
    const columns = Math.ceil(kind.widthPx / sizePx);
    const rows = Math.ceil(kind.heightPx / sizePx);
    const sums = new Float64Array(columns * rows * SUMS);
    this.tallied = { kind, columns, rows, sizePx, sums, strongest: new Uint16Array(columns * rows * 4) };
  }

  /** Adds the next pixels of the picture, in the order of the file. */
  add(samples: Uint8Array | Uint16Array): void {
    const count = samples.length / this.kind.channels;
    for (const stretch of stretchesOf(this.kind, this.at, count)) this.addStretch(samples, stretch);
    this.at += count;
  }

  /** @param samples that hold it, whatever else they hold */
  addStretch(samples: Uint8Array | Uint16Array, { first, y, fromX, toX }: Stretch): void {
    const { columns, sizePx, sums, strongest } = this.tallied;
    const { above, aboveY } = this;
    const { channels } = this.kind;
    const blocks = Math.floor(y / sizePx) * columns;
    const [g, b] = channels === 3 ? [1, 2] : [0, 0];
    let i = first * channels;
    let left = -1;
    for (let x = fromX; x < toX;) {
      const column = Math.floor(x / sizePx);
      const block = blocks + column;
      const to = Math.min(toX, (column + 1) * sizePx);
      let [n, T1, T2, D, R, G, B, V, steps] = [to - x, 0, 0, 0, 0, 0, 0, 0, 0];
      const own = block * 4;
      const before = strongest[own + 3]!;
      let [top, topRed, topGreen, topBlue]: [number, number, number, number] = [before, 0, 0, 0];
      for (; x < to; x++, i += channels) {
        const red = samples[i]!;
        const green = samples[i + g]!;
        const blue = samples[i + b]!;
        const tone = red * TONE[0] + green * TONE[1] + blue * TONE[2];
        if (aboveY[x] === y - 1) {
          const down = tone - above[x]!;
          V += down * down;
          steps++;
        }
        above[x] = tone;
        aboveY[x] = y;
        const step = left < 0 ? 0 : tone - left;
        left = tone;
        T1 += tone;
        T2 += tone * tone;
        D += step * step;
        R += red;
        G += green;
        B += blue;
        const most = red > green ? (red > blue ? red : blue) : green > blue ? green : blue;
        const least = red < green ? (red < blue ? red : blue) : green < blue ? green : blue;
        if (most - least > top) {
          top = most - least;
          topRed = red;
          topGreen = green;
          topBlue = blue;
        }
      }
      if (top > before) {
        strongest[own] = topRed;
        strongest[own + 1] = topGreen;
        strongest[own + 2] = topBlue;
        strongest[own + 3] = top;
      }
      const s = block * SUMS;
      n += sums[s]!;
      sums[s] = n;
      sums[s + 1]! += T1;
      sums[s + 2]! += T2;
      sums[s + 3]! += D;
      sums[s + 4]! += R;
      sums[s + 5]! += G;
      sums[s + 6]! += B;
      sums[s + 7]! += V;
      sums[s + 8]! += steps;
    }
  }
}

/** The blocks of a picture in Lab. */
export function blocksOf(tallied: TalliedBlocks, labOf: LabOfCodes): Blocks {
  const { columns, rows, sizePx, sums } = tallied;
  const { channels, bits } = tallied.kind;
  const count = columns * rows;
  const top = 2 ** bits - 1;
  const means = new Float32Array(count * channels);
  for (let block = 0; block < count; block++)
    for (let c = 0; c < channels; c++)
      means[block * channels + c] = sums[block * SUMS + 4 + c]! / sums[block * SUMS]! / top;
  const labs = labOf(means);
  const perTile = Math.max(1, Math.round(Math.max(columns, rows) / TILES_ALONG));
  const slope = lightnessSlope(labOf, channels);
  const plane = () => new Float32Array(count);
  const [L, a, b, steps, within] = [plane(), plane(), plane(), plane(), plane()];
  for (let block = 0, s = 0; block < count; block++, s += SUMS) {
    const n = sums[s]!;
    const tone = sums[s + 1]! / n;
    const perTone = slope(tone / SIXTEENTHS / top) / SIXTEENTHS / top;
    L[block] = labs[block * 3]!;
    a[block] = labs[block * 3 + 1]!;
    b[block] = labs[block * 3 + 2]!;
    const across = sums[s + 3]! / n;
    const down = sums[s + 8]! > 0 ? sums[s + 7]! / sums[s + 8]! : across;
    steps[block] = ((across + down) / 2) * perTone ** 2;
    within[block] = Math.max(0, sums[s + 2]! / n - tone ** 2) * perTone ** 2;
  }
  return { columns, rows, sizePx, perTile, L, a, b, strongest: strongestOf(tallied, labOf, perTile), steps, within };
}

function strongestOf(tallied: TalliedBlocks, labOf: LabOfCodes, perTile: number): Float32Array {
  const { columns, rows, strongest } = tallied;
  const { channels, bits } = tallied.kind;
  const tops = 2 ** bits - 1;
  const codes: number[] = [];
  for (let y = 0; y < rows; y += perTile)
    for (let x = 0; x < columns; x += perTile) {
      let most = y * columns + x;
      for (let v = y; v < Math.min(rows, y + perTile); v++)
        for (let u = x; u < Math.min(columns, x + perTile); u++)
          if (strongest[(v * columns + u) * 4 + 3]! > strongest[most * 4 + 3]!) most = v * columns + u;
      for (let c = 0; c < channels; c++) codes.push(strongest[most * 4 + c]! / tops);
    }
  return labOf(Float32Array.from(codes));
}

const SLOPE_STEPS = 64;

/** How much L* a whole channel of tone is worth at a tone 0–1: the slope of the greys. */
function lightnessSlope(labOf: LabOfCodes, channels: number): (tone: number) => number {
  const greys = Float32Array.from(
    { length: (SLOPE_STEPS + 1) * channels },
    (_, i) => Math.floor(i / channels) / SLOPE_STEPS,
  );
  const labs = labOf(greys);
  const slopes = Array.from({ length: SLOPE_STEPS }, (_, i) => (labs[(i + 1) * 3]! - labs[i * 3]!) * SLOPE_STEPS);
  return (tone) => slopes[Math.min(SLOPE_STEPS - 1, Math.floor(tone * SLOPE_STEPS))]!;
}
