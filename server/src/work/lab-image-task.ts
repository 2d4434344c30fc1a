import sharp from 'sharp';
import { WHOLE, type Part } from '@rakuen/core/proof/part';
import { applyLocal, hasLocal, localBase } from '@rakuen/core/proof/local-contrast';
import { applyRecipe, type Recipe } from '@rakuen/core/proof/recipe';
import type { PackedSheet } from '@rakuen/core/characterisation/packed';
import { screenPixels } from '@rakuen/core/colour/screen';
import { seenOn, unpackSheet } from './lay-tasks.ts';
import { codesOfLight } from './light-codes.ts';
import { openPicture, type PictureFile } from './open-picture.ts';

/** A picture as Lab (D50, its white 100), as large as a screen: L*, a*, b* of each pixel in units of 1/250, row by row, upright. */
export interface LabImage {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lab: Int16Array;
}

const LONGER_PX = 1280;
export const LAB_UNITS = 250;

const RUN = 1 << 16;

/** Whole pixels that hold a part, at least one. */
function pixelsOf(part: Part, { widthPx, heightPx }: { widthPx: number; heightPx: number }) {
  const span = (from: number, share: number, all: number) => {
    const first = Math.min(all - 1, Math.floor(from * all));
    return [first, Math.max(1, Math.min(all, Math.ceil((from + share) * all)) - first)];
  };
  const [left, width] = span(part.x, part.width, widthPx);
  const [top, height] = span(part.y, part.height, heightPx);
  return { left, top, width, height };
}

export async function labImageOf({
  longerPx = LONGER_PX,
  part = WHOLE,
  ...file
}: PictureFile & { longerPx?: number; part?: Part }): Promise<LabImage> {
  const { pipeline, meta, labOf, channels, bitsPerChannel, close } = await openPicture(file);
  try {
    const onItsSide = (meta.orientation ?? 1) >= 5;
    const upright = {
      widthPx: onItsSide ? meta.height : meta.width,
      heightPx: onItsSide ? meta.width : meta.height,
    };
    const { data, info } = await pipeline
      .autoOrient()
      .extract(pixelsOf(part, upright))
      .resize(longerPx, longerPx, { fit: 'inside', withoutEnlargement: true })
      .raw({ depth: ({ 8: 'uchar', 16: 'ushort', 32: 'float' } as const)[bitsPerChannel] })
      .toBuffer({ resolveWithObject: true });
    const values =
      bitsPerChannel === 32
        ? codesOfLight(new Float32Array(data.buffer, data.byteOffset, data.length / 4)).samples
        : bitsPerChannel === 16
          ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2)
          : data;
    const top = bitsPerChannel === 8 ? 255 : 65_535;
    const pixels = info.width * info.height;
    const lab = new Int16Array(pixels * 3);
    for (let from = 0; from < pixels; from += RUN) {
      const n = Math.min(RUN, pixels - from);
      const codes = Float32Array.from({ length: n * channels }, (_, i) => values[from * channels + i] / top);
      labOf(codes).forEach((v, i) => (lab[from * 3 + i] = Math.round(Math.max(-131, Math.min(131, v)) * LAB_UNITS)));
    }
    return { widthPx: info.width, heightPx: info.height, lab };
  } finally {
    close();
  }
}

/** A picture as it looks on a sheet: sRGB for a screen, and how much of it the screen can't show. */
export async function drawOnSheet(task: {
  image: LabImage;
  sheet?: PackedSheet;
  /** Done to the picture before it is printed, at the size of its print. */
  recipe?: Recipe;
  longSideMm?: number;
  longerPx: number;
}): Promise<{ jpeg: Buffer; beyondScreen: number }> {
  const { widthPx, heightPx, lab } = task.image;
  const every = Math.max(1, Math.ceil(Math.max(widthPx, heightPx) / task.longerPx));
  const [w, h] = [Math.floor(widthPx / every), Math.floor(heightPx / every)];
  const labs = new Float32Array(w * h * 3);
  // Drawn together block by block: a picture made small by leaving pixels out glitters.
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let v = 0; v < every; v++)
          for (let u = 0; u < every; u++) sum += lab[((y * every + v) * widthPx + x * every + u) * 3 + c];
        labs[(y * w + x) * 3 + c] = sum / (every * every * LAB_UNITS);
      }
  if (task.recipe) byRecipe(labs, task.recipe, { widthPx: w, heightPx: h }, task.longSideMm ?? 0);
  if (task.sheet) seenOn(unpackSheet(task.sheet), labs);
  const { pixels, beyond } = screenPixels(labs);
  const jpeg = await sharp(pixels, { raw: { width: w, height: h, channels: 3 } })
    .jpeg({ quality: 90, chromaSubsampling: '4:4:4' })
    .toBuffer();
  return { jpeg, beyondScreen: beyond / (w * h) };
}

/** In place. Sharpening is finer than a small picture shows. */
function byRecipe(labs: Float32Array, recipe: Recipe, size: { widthPx: number; heightPx: number }, longSideMm: number) {
  if (hasLocal(recipe)) {
    const lightness = Float32Array.from({ length: labs.length / 3 }, (_, i) => labs[i * 3]);
    applyLocal(labs, recipe, localBase({ ...size, lightness }, longSideMm), { ...size, first: 0 });
  }
  applyRecipe(labs, recipe);
}
