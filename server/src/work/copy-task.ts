import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { applyRecipe, type Recipe } from '@rakuen/core/proof/recipe';
import { surroundOf } from '@rakuen/core/proof/surround';
import type { Sharp } from 'sharp';
import { localTurn } from './local-base.ts';
import { frameOf } from './copy-frame.ts';
import { openTarget, type CopyTarget } from './copy-target.ts';
import { PictureError } from './picture-error.ts';
import { openPicture, type PictureFile } from './open-picture.ts';
import { writePrintFile } from './print-file.ts';

const MM_PER_INCH = 25.4;

export type CopyKind = 'tif' | 'jpeg';
/** A side of a JPEG, its border and caption included (ISO 10918-1: 16 bits). */
const MOST_JPEG_PX = 60_000;
/** Nothing of the colours is halved, and little else is lost. */
const JPEG = { quality: 97, chromaSubsampling: '4:4:4' } as const;

export interface CopyTask extends PictureFile {
  readonly target: CopyTarget;
  /** A TIFF of 16 bits, or a JPEG of 8, which loses a little of everything. */
  readonly as: CopyKind;
  /** The frame it has to fit into; nothing is cut off, nothing stretched. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ppi: number;
  /** What is done to it, and what lies around it. */
  readonly recipe: Recipe;
  readonly out: string;
  readonly scratch: string;
}

export interface WrittenCopy {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly profile: string;
}

/**
 * Writes the print file of a picture: 16-bit values of its target, whose profile is embedded, resampled once. @throws
 * PictureError, ProfileError, FormatError
 */
export async function writeCopy(task: CopyTask): Promise<WrittenCopy> {
  const { widthMm, heightMm, ppi, recipe, as, out, scratch } = task;
  const frame = surroundOf(recipe);
  const target = await openTarget(task.target);
  const tiff = as === 'tif' ? out : `${out}.tif`;
  try {
    const { meta, pipeline, channels, bitsPerChannel, labOf, close } = await openPicture(task);
    try {
      const { width, height } = meta.autoOrient;
      const scale = Math.min(widthMm / width, heightMm / height) / MM_PER_INCH;
      const [w, h] = [Math.max(1, Math.round(width * scale * ppi)), Math.max(1, Math.round(height * scale * ppi))];
      if (as === 'jpeg' && Math.max(w, h) > MOST_JPEG_PX)
        throw new PictureError(
          `A JPEG of ${w} × ${h} pixels is more than the format holds.`,
          'Write a TIFF, or at a lower resolution.',
        );
      await writePrintFile({
        pipeline: sharpened(pipeline.autoOrient().resize(w, h, { fit: 'fill', kernel: 'lanczos3' }), recipe, ppi),
        channels,
        bitsPerChannel,
        labOf,
        local: await localTurn(task, recipe, (Math.max(w, h) / ppi) * MM_PER_INCH),
        written: (labs) => {
          applyRecipe(labs, recipe);
          return target.written(labs);
        },
        smooth: true,
        frame: frame && frameOf(frame, w, ppi),
        kind: { widthPx: w, heightPx: h, colour: 'RGB', ppi, icc: target.icc, xmp: meta.xmp, iptc: meta.iptc },
        out: tiff,
        scratch,
      });
      if (as === 'jpeg') await asJpeg(tiff, out);
      return { widthPx: w, heightPx: h, profile: target.name };
    } finally {
      close();
    }
  } finally {
    target.close();
    if (tiff !== out) await rm(tiff, { force: true });
  }
}

/** The same values in 8 bits, with profile and words as they are. */
async function asJpeg(tiff: string, out: string): Promise<void> {
  await sharp(tiff, { limitInputPixels: false, unlimited: true }).keepMetadata().jpeg(JPEG).toFile(out);
}

/** Sharpened once, at the size of the print: lightness alone, and no haloes beyond a few L* (the library’s own limits). */
function sharpened(pipeline: Sharp, { sharpening, radiusMm }: Recipe, ppi: number): Sharp {
  if (sharpening === 0) return pipeline;
  const sigma = Math.min(10, Math.max(0.3, (radiusMm / MM_PER_INCH) * ppi));
  return pipeline.sharpen({ sigma, m1: 0.5 * sharpening, m2: 2 * sharpening });
}
