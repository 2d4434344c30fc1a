import { LOCAL_SCALES_MM } from '../picture/local-gain.ts';
import { WHOLE, type Part } from './part.ts';
import type { Recipe } from './recipe.ts';

/** Steps of lightness beyond this are edges: they are left, or they would get a halo (our own bound), L*. */
const EDGE_L = 6;

/**
 * What lies under the local contrast of a picture: at each place the base is `slope · L* + offset`, edges kept. Both
 * change slowly, so that a small picture holds them for a large one: slope and offset of the fine scale, then of the
 * broad one, four numbers a pixel.
 */
export interface LocalBase {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly data: Float32Array;
}

/** A lightness, L* row by row. */
export interface LightnessPlane {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lightness: Float32Array;
}

/** Pixels of the longer side that are enough for it: a fine scale of 2 mm is three of them on a print of 40 cm. */
const ENOUGH_PX = 640;

/** @param longSideMm longer side of the print */
export function localBase(plane: LightnessPlane, longSideMm: number): LocalBase {
  const small = reduced(plane, Math.max(1, Math.floor(Math.max(plane.widthPx, plane.heightPx) / ENOUGH_PX)));
  const { widthPx, heightPx } = small;
  const pxPerMm = Math.max(widthPx, heightPx) / longSideMm;
  const data = new Float32Array(widthPx * heightPx * 4);
  Object.values(LOCAL_SCALES_MM).forEach((scaleMm, n) => {
    const { slope, offset } = guided(small, Math.max(1, Math.round((scaleMm * pxPerMm) / 2)));
    for (let i = 0; i < slope.length; i++) {
      data[i * 4 + n * 2] = slope[i]!;
      data[i * 4 + n * 2 + 1] = offset[i]!;
    }
  });
  return { widthPx, heightPx, data };
}

/** Every so many pixels each way as one; what is left over at the far sides goes into the last. */
function reduced(plane: LightnessPlane, every: number): LightnessPlane {
  if (every === 1) return plane;
  const [width, height] = [Math.floor(plane.widthPx / every), Math.floor(plane.heightPx / every)];
  const lightness = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [left, top] = [Math.round((x / width) * plane.widthPx), Math.round((y / height) * plane.heightPx)];
      let sum = 0;
      for (let v = 0; v < every; v++)
        for (let u = 0; u < every; u++) sum += plane.lightness[(top + v) * plane.widthPx + left + u]!;
      lightness[y * width + x] = sum / (every * every);
    }
  return { widthPx: width, heightPx: height, lightness };
}

/** The guided filter of a plane by itself (He, Sun and Tang 2013): it smooths what is small and leaves edges. */
function guided({ widthPx, heightPx, lightness }: LightnessPlane, radiusPx: number) {
  const box = (values: Float32Array) => boxed(values, widthPx, heightPx, radiusPx);
  const squares = new Float32Array(lightness.length);
  for (let i = 0; i < squares.length; i++) squares[i] = lightness[i]! * lightness[i]!;
  const [mean, meanSquare] = [box(lightness), box(squares)];
  const slope = new Float32Array(mean.length);
  const offset = new Float32Array(mean.length);
  for (let i = 0; i < mean.length; i++) {
    const spread = meanSquare[i]! - mean[i]! * mean[i]!;
    const variance = spread > 0 ? spread : 0;
    slope[i] = variance / (variance + EDGE_L * EDGE_L);
    offset[i] = (1 - slope[i]!) * mean[i]!;
  }
  return { slope: box(slope), offset: box(offset) };
}

/** Mean over a square about each pixel, cut at the borders; as long for a large square as for a small one. */
function boxed(values: Float32Array, width: number, height: number, radius: number): Float32Array {
  const rows = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    let from = 0;
    let to = 0;
    for (let x = 0; x < width; x++) {
      while (to < width && to <= x + radius) sum += values[row + to++]!;
      while (from < x - radius) sum -= values[row + from++]!;
      rows[row + x] = sum / (to - from);
    }
  }
  // Down the columns all at once: memory is walked as it lies.
  const out = new Float32Array(values.length);
  const sums = new Float64Array(width);
  let from = 0;
  let to = 0;
  for (let y = 0; y < height; y++) {
    for (; to < height && to <= y + radius; to++) for (let x = 0; x < width; x++) sums[x]! += rows[to * width + x]!;
    for (; from < y - radius; from++) for (let x = 0; x < width; x++) sums[x]! -= rows[from * width + x]!;
    for (let x = 0; x < width; x++) out[y * width + x] = sums[x]! / (to - from);
  }
  return out;
}

export const hasLocal = ({ localFine, localBroad }: Recipe): boolean => localFine !== 0 || localBroad !== 0;

/** L* of a place once its contrast is turned at both scales; black and white stay. @param fine @param broad L* of the bases under it */
export function locallyLit({ localFine, localBroad }: Recipe, l: number, fine: number, broad: number): number {
  if (l <= 0 || l >= 100) return l;
  const t = l / 100;
  const to = l + 4 * t * (1 - t) * (localFine * (l - fine) + localBroad * (l - broad));
  return to < 0 ? 0 : to > 100 ? 100 : to;
}

/** Pixels in a row of a picture, or of a part of it. */
export interface Run {
  /** Pixels in each row, and rows in all. */
  readonly widthPx: number;
  readonly heightPx: number;
  /** Which pixel comes first, counted row by row. */
  readonly first: number;
  /** What of the picture the rows show. */
  readonly part?: Part;
}

/** Turns contrast at both scales, in place: X, Y and Z grow alike. @param labs L*, a*, b* of pixels that follow each other */
export function applyLocal(labs: Float32Array, recipe: Recipe, base: LocalBase, run: Run): void {
  if (!hasLocal(recipe)) return;
  const { part = WHOLE, widthPx } = run;
  const under = new Float32Array(4);
  let column = run.first % widthPx;
  let row = (run.first - column) / widthPx;
  for (let p = 0; p < labs.length; p += 3) {
    const x = part.x + ((column + 0.5) / widthPx) * part.width;
    const y = part.y + ((row + 0.5) / run.heightPx) * part.height;
    if (++column === widthPx) {
      column = 0;
      row++;
    }
    underAt(base, x, y, under);
    const l = labs[p]!;
    const to = locallyLit(recipe, l, under[0]! * l + under[1]!, under[2]! * l + under[3]!);
    // Where X, Y and Z grow alike their cube roots do, and with them a* and b*.
    const by = (to + 16) / (l + 16);
    labs[p] = to;
    labs[p + 1]! *= by;
    labs[p + 2]! *= by;
  }
}

/** Between the pixels of the base, as a graphics processor reads between them. */
function underAt({ widthPx, heightPx, data }: LocalBase, x: number, y: number, out: Float32Array): void {
  const px = within(x * widthPx - 0.5, widthPx - 1);
  const py = within(y * heightPx - 0.5, heightPx - 1);
  const ix = px | 0;
  const iy = py | 0;
  const fx = px - ix;
  const fy = py - iy;
  const a = (iy * widthPx + ix) * 4;
  const b = ix + 1 < widthPx ? a + 4 : a;
  const down = iy + 1 < heightPx ? widthPx * 4 : 0;
  for (let c = 0; c < 4; c++) {
    const above = data[a + c]! + (data[b + c]! - data[a + c]!) * fx;
    const below = data[a + down + c]! + (data[b + down + c]! - data[a + down + c]!) * fx;
    out[c] = above + (below - above) * fy;
  }
}

const within = (v: number, most: number): number => (v < 0 ? 0 : v > most ? most : v);
