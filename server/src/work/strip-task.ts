import { writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { BLACK_16, WHITE_16 } from '@rakuen/core/chart/device16';
import { blankRaster, fillBox, pixelAt, type Raster } from '@rakuen/core/chart/raster';
import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { tiffHead } from '@rakuen/core/formats/tiff-head';
import { applyLocal, hasLocal } from '@rakuen/core/proof/local-contrast';
import { applyRecipe } from '@rakuen/core/proof/recipe';
import { MARK_MM, markBoxes } from '@rakuen/core/scan/corner-marks';
import { CAPTION_MM, edgeOf, stripMarks, type SmallSheet, type Strip, type StripCrop } from '@rakuen/core/proof/strips';
import type { Placed } from '@rakuen/core/layout/nest';
import { openProfile, ProfileError, type OpenProfile } from '../colour-management/lcms.ts';
import { drawText } from '../drawing/draw-text.ts';
import { bare } from '../drawing/page.ts';
import { finishedPdf, newPdf } from '../drawing/pdf.ts';
import { aimOf } from './lay-tasks.ts';
import { localTurn, type LocalTurn } from './local-base.ts';
import { codesOf } from './light-codes.ts';
import { openPicture, type PictureFile } from './open-picture.ts';
import { pixelRuns } from './pixel-stream.ts';

/** A small sheet of strips: what lies where on it. */
export interface StripSheet extends PictureFile {
  readonly icc: Uint8Array;
  readonly rendering: RenderingKey;
  readonly placed: readonly (Strip & Placed)[];
  readonly printMm: { readonly width: number; readonly height: number };
  readonly sheet: SmallSheet;
  readonly ppi: number;
  readonly scratch: string;
}

export interface StripTask extends StripSheet {
  /** Stands at the foot of the sheet: paper, setting, day. */
  readonly foot: string;
  /** A TIFF with the profile in it, or a page at true size with the same device values in 8 bits. */
  readonly as: 'tif' | 'pdf';
  readonly out: string;
}

const TEXT_MM = 2.6;

/**
 * Writes a small sheet of strips: crops of a picture at the size of its print, each with its recipe, in device values
 * of the sheet’s profile.
 */
export async function writeStrips(task: StripTask): Promise<void> {
  const { icc, placed, sheet, ppi, foot, as, out } = task;
  const raster = await stripRaster(task);
  for (const strip of placed)
    for (const crop of strip.crops) {
      const { xMm, yMm, heightMm } = cropBox(sheet, strip, crop);
      const text = { xMm: xMm + 0.5, yMm: yMm + heightMm + CAPTION_MM - 2.4, sizeMm: TEXT_MM };
      drawText(raster, { ...text, text: crop.words, face: 'sans' });
    }
  for (const { x, y } of Object.values(stripMarks(sheet)))
    for (const b of markBoxes(x - MARK_MM / 2, y - MARK_MM / 2, true))
      fillBox(raster, b.xMm, b.yMm, b.side, b.side, b.dark ? BLACK_16 : WHITE_16);
  // Beside the mark in the corner, and above what the printer can't reach.
  const edge = edgeOf(sheet);
  const footAt = { xMm: edge + MARK_MM + 2, yMm: sheet.heightMm - edge - 0.8 };
  drawText(raster, { ...footAt, sizeMm: TEXT_MM, text: foot, face: 'sans' });
  if (as === 'pdf') return writeFile(out, await pageOf(raster, sheet));
  const head = tiffHead({ widthPx: raster.widthPx, heightPx: raster.heightPx, colour: 'RGB', ppi, icc });
  await writeFile(out, Buffer.concat([head, Buffer.from(raster.data.buffer, 0, raster.data.byteLength)]));
}

/** Where a crop lies on its sheet, mm. */
export const cropBox = (sheet: SmallSheet, strip: Strip & Placed, { atMm, fromMm }: StripCrop) => ({
  xMm: edgeOf(sheet) + strip.xMm + atMm,
  yMm: edgeOf(sheet) + strip.yMm,
  widthMm: fromMm.width,
  heightMm: fromMm.height,
});

/** A crop as it lies on a raster, before its recipe's tones: what the picture has there. */
export interface LaidCrop {
  readonly crop: StripCrop;
  /** L*, a*, b* of each pixel. */
  readonly labs: Float32Array;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Of the raster, from its top left. */
  readonly leftPx: number;
  readonly topPx: number;
}

/** The crops of a sheet in device values, without its words and marks. @param onCrop is given each crop's own colours */
export async function stripRaster(task: StripSheet, onCrop?: (laid: LaidCrop) => void): Promise<Raster> {
  const { icc, rendering, placed, sheet, ppi } = task;
  const raster = blankRaster(sheet.widthMm, sheet.heightMm, ppi);
  const relative = await openProfile(icc);
  const sender = await openProfile(icc, rendering);
  // One base of the picture serves every step: what is turned over it differs.
  let base: LocalTurn | undefined;
  try {
    if (relative.space !== 'RGB')
      throw new ProfileError(`It is for ${relative.space}; strips are written for printers driven in RGB.`);
    const aim = aimOf(relative, rendering);
    for (const strip of placed) {
      const { labs, widthPx, heightPx, part } = await cropLabs(task, strip.crops[0]);
      for (const crop of strip.crops) {
        const made = Float32Array.from(labs);
        if (hasLocal(crop.recipe)) {
          base ??= await localTurn(task, crop.recipe, Math.max(task.printMm.width, task.printMm.height));
          applyLocal(made, crop.recipe, base!.base, { widthPx, heightPx, first: 0, part });
        }
        const { xMm, yMm } = cropBox(sheet, strip, crop);
        const [leftPx, topPx] = [pixelAt(xMm, ppi), pixelAt(yMm, ppi)];
        onCrop?.({ crop, labs: Float32Array.from(made), widthPx, heightPx, leftPx, topPx });
        applyRecipe(made, crop.recipe);
        for (let p = 0; p < made.length; p += 3) made.set(aim([made[p], made[p + 1], made[p + 2]]), p);
        lay(raster, sent(sender, made), widthPx, heightPx, leftPx, topPx);
      }
    }
  } finally {
    relative.close();
    sender.close();
  }
  return raster;
}

/** A page of true size. Its values are those of the device: without a profile, nobody on the way turns them into others. */
async function pageOf(
  { data, widthPx, heightPx }: Raster,
  { widthMm, heightMm }: StripTask['sheet'],
): Promise<Uint8Array> {
  const bytes = Buffer.from(Uint8Array.from(data, (v) => Math.round(v / 257)));
  const png = await sharp(bytes, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .png()
    .toBuffer();
  const document = newPdf();
  const [width, height] = bare(document, widthMm, heightMm);
  document.image(png, 0, 0, { width, height });
  return finishedPdf(document);
}

const sent = (sender: OpenProfile, labs: Float32Array): Uint16Array =>
  Uint16Array.from(sender.fromLab(labs), (v) => Math.round(Math.min(1, Math.max(0, v)) * 65_535));

/** Colours of a part of the print, as the file has them, at the print’s own size. */
async function cropLabs(task: StripSheet, { fromMm }: StripCrop) {
  const { pipeline, channels, bitsPerChannel, labOf, close } = await openPicture(task);
  try {
    const px = (mm: number) => pixelAt(mm, task.ppi);
    const [width, height] = [px(task.printMm.width), px(task.printMm.height)];
    const [widthPx, heightPx] = [px(fromMm.width), px(fromMm.height)];
    const [left, top] = [Math.min(width - widthPx, px(fromMm.x)), Math.min(height - heightPx, px(fromMm.y))];
    const region = pipeline
      .autoOrient()
      .resize(width, height, { fit: 'fill', kernel: 'lanczos3' })
      .extract({ left, top, width: widthPx, height: heightPx });
    const labs = new Float32Array(widthPx * heightPx * 3);
    const most = bitsPerChannel === 8 ? 255 : 65_535;
    let at = 0;
    for await (const { samples: given, pixels } of pixelRuns(region, task.scratch)) {
      const { samples } = codesOf(given);
      const codes = Float32Array.from({ length: pixels * channels }, (_, i) => samples[i] / most);
      labs.set(labOf(codes), at);
      at += pixels * 3;
    }
    const part = { x: left / width, y: top / height, width: widthPx / width, height: heightPx / height };
    return { labs, widthPx, heightPx, part };
  } finally {
    close();
  }
}

/** Lays a crop’s values on the sheet. */
function lay(raster: Raster, values: Uint16Array, w: number, h: number, x: number, y: number): void {
  const wide = Math.min(w, raster.widthPx - x);
  for (let row = 0; row < Math.min(h, raster.heightPx - y); row++)
    raster.data.set(values.subarray(row * w * 3, (row * w + wide) * 3), ((y + row) * raster.widthPx + x) * 3);
}
