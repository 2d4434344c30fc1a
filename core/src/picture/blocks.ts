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
  /** Mean square step of L* from a pixel to the next: the finest detail, and the noise. */
  readonly steps: Float32Array;
  /** Variance of L* within each block; 0 where a block is one pixel. */
  readonly within: Float32Array;
}

/** The longer side has no more blocks than this: finer structure is not seen in a print held in the hand. */
const MOST_BLOCKS = 640;
/** Blocks along an edge of a tile, some sixty of which lie along the longer side. */
const TILES_ALONG = 64;
/** Rows of a block that are looked at, at least: its structure, unlike its colours, is told by some of them. */
const ROWS_ENOUGH = 4;
/** Sums a block keeps: pixels, tone, tone squared, steps squared (all in sixteenths of a code), red, green, blue. */
const SUMS = 7;
/** Shares of the channels in the tone by which structure is told, in sixteenths: about those of light. */
const TONE = [4, 10, 2] as const;
const SIXTEENTHS = 16;

/** Lab of codes 0–1, `channels` after one another. */
export type LabOfCodes = (codes: Float32Array) => Float32Array;

/** Gathers blocks a run of pixels at a time, row after row, in the file's own codes. */
export class BlockTally {
  readonly columns: number;
  readonly rows: number;
  readonly sizePx: number;
  private readonly sums: Float64Array;
  /** Codes of each block's strongest colour, and how far apart its channels are. */
  private readonly strongest: Uint16Array;
  private readonly every: number;
  private at = 0;

  constructor(
    readonly widthPx: number,
    readonly heightPx: number,
    private readonly channels: 1 | 3,
    private readonly bits: 8 | 16,
  ) {
    this.sizePx = Math.max(1, Math.ceil(Math.max(widthPx, heightPx) / MOST_BLOCKS));
    this.columns = Math.ceil(widthPx / this.sizePx);
    this.rows = Math.ceil(heightPx / this.sizePx);
    this.every = Math.max(1, Math.floor(this.sizePx / ROWS_ENOUGH));
    this.sums = new Float64Array(this.columns * this.rows * SUMS);
    this.strongest = new Uint16Array(this.columns * this.rows * 4);
  }

  /** Adds the next pixels of the picture, in the order of the file. */
  add(samples: Uint8Array | Uint16Array): void {
    const { sizePx, columns, widthPx, channels, every } = this;
    const count = samples.length / channels;
    let y = Math.floor(this.at / widthPx);
    let x = this.at - y * widthPx;
    for (let p = 0; p < count;) {
      const end = Math.min(widthPx, x + count - p);
      if ((y % sizePx) % every === 0) this.addRow(samples, p, x, end, Math.floor(y / sizePx) * columns);
      p += end - x;
      if (end === widthPx) [x, y] = [0, y + 1];
    }
    this.at += count;
  }

  /** Part of one row. @param p the first pixel in `samples` @param blocks the first block of the row */
  private addRow(samples: Uint8Array | Uint16Array, p: number, from: number, end: number, blocks: number): void {
    const { sizePx, channels, sums, strongest } = this;
    const [g, b] = channels === 3 ? [1, 2] : [0, 0];
    let i = p * channels;
    let left = -1;
    for (let x = from; x < end;) {
      const column = Math.floor(x / sizePx);
      const block = blocks + column;
      const to = Math.min(end, (column + 1) * sizePx);
      let [n, T1, T2, D, R, G, B] = [to - x, 0, 0, 0, 0, 0, 0];
      const own = block * 4;
      const before = strongest[own + 3];
      let [top, topRed, topGreen, topBlue] = [before, 0, 0, 0];
      for (; x < to; x++, i += channels) {
        const red = samples[i];
        const green = samples[i + g];
        const blue = samples[i + b];
        const tone = red * TONE[0] + green * TONE[1] + blue * TONE[2];
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
      n += sums[s];
      sums[s] = n;
      sums[s + 1] += T1;
      sums[s + 2] += T2;
      sums[s + 3] += D;
      sums[s + 4] += R;
      sums[s + 5] += G;
      sums[s + 6] += B;
    }
  }

  finish(labOf: LabOfCodes): Blocks {
    const { columns, rows, sizePx, sums, channels } = this;
    const count = columns * rows;
    const top = 2 ** this.bits - 1;
    const means = new Float32Array(count * channels);
    for (let block = 0; block < count; block++)
      for (let c = 0; c < channels; c++)
        means[block * channels + c] = sums[block * SUMS + 4 + c] / sums[block * SUMS] / top;
    const labs = labOf(means);
    const perTile = Math.max(1, Math.round(Math.max(columns, rows) / TILES_ALONG));
    const slope = lightnessSlope(labOf, channels);
    const [L, a, b, steps, within] = Array.from({ length: 5 }, () => new Float32Array(count));
    for (let block = 0, s = 0; block < count; block++, s += SUMS) {
      const n = sums[s];
      const tone = sums[s + 1] / n;
      const perTone = slope(tone / SIXTEENTHS / top) / SIXTEENTHS / top;
      L[block] = labs[block * 3];
      a[block] = labs[block * 3 + 1];
      b[block] = labs[block * 3 + 2];
      steps[block] = (sums[s + 3] / n) * perTone ** 2;
      within[block] = Math.max(0, sums[s + 2] / n - tone ** 2) * perTone ** 2;
    }
    return { columns, rows, sizePx, perTile, L, a, b, strongest: this.strongestOf(labOf, perTile), steps, within };
  }

  private strongestOf(labOf: LabOfCodes, perTile: number): Float32Array {
    const { columns, rows, strongest, channels } = this;
    const tops = 2 ** this.bits - 1;
    const codes: number[] = [];
    for (let y = 0; y < rows; y += perTile)
      for (let x = 0; x < columns; x += perTile) {
        let most = y * columns + x;
        for (let v = y; v < Math.min(rows, y + perTile); v++)
          for (let u = x; u < Math.min(columns, x + perTile); u++)
            if (strongest[(v * columns + u) * 4 + 3] > strongest[most * 4 + 3]) most = v * columns + u;
        for (let c = 0; c < channels; c++) codes.push(strongest[most * 4 + c] / tops);
      }
    return labOf(Float32Array.from(codes));
  }
}

const SLOPE_STEPS = 64;

/** How much L* a whole channel of tone is worth at a tone 0–1: the slope of the greys. */
function lightnessSlope(labOf: LabOfCodes, channels: number): (tone: number) => number {
  const greys = Float32Array.from(
    { length: (SLOPE_STEPS + 1) * channels },
    (_, i) => Math.floor(i / channels) / SLOPE_STEPS,
  );
  const labs = labOf(greys);
  const slopes = Array.from({ length: SLOPE_STEPS }, (_, i) => (labs[(i + 1) * 3] - labs[i * 3]) * SLOPE_STEPS);
  return (tone) => slopes[Math.min(SLOPE_STEPS - 1, Math.floor(tone * SLOPE_STEPS))];
}
