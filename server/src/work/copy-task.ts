import type { Rendering } from '@rakuen/core/characterisation/renderings';
import { readProfile } from '@rakuen/core/formats/icc/profile-read';
import type { Borders } from '@rakuen/core/layout/borders';
import { applyRecipe, type Recipe } from '@rakuen/core/proof/recipe';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import type { Sharp } from 'sharp';
import { frameOf } from './copy-frame.ts';
import { aimOf } from './lay-tasks.ts';
import { openPicture, type PictureFile } from './open-picture.ts';
import { writePrintFile } from './print-file.ts';

const MM_PER_INCH = 25.4;

export interface CopyTask extends PictureFile {
  readonly icc: Uint8Array;
  readonly rendering: Rendering['key'];
  /** The frame it has to fit into; nothing is cut off, nothing stretched. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ppi: number;
  readonly recipe: Recipe;
  /** White around the picture, and what stands in it. */
  readonly frame?: CopyFrame;
  readonly out: string;
  readonly scratch: string;
}

/** What lies around the picture: borders of bare paper, a caption under it, marks to trim by. */
export interface CopyFrame {
  readonly borders: Borders;
  readonly caption: string;
  readonly trimMarks: boolean;
}

export interface WrittenCopy {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly profile: string;
}

/** Writes the print copy of a picture: 16-bit device values of a profile that is embedded, resampled once. @throws PictureError, ProfileError, FormatError */
export async function writeCopy(task: CopyTask): Promise<WrittenCopy> {
  const { icc, rendering, widthMm, heightMm, ppi, recipe, frame, out, scratch } = task;
  readProfile(icc);
  const relative = await openProfile(icc);
  const sender = await openProfile(icc, rendering);
  try {
    if (relative.space !== 'RGB')
      throw new ProfileError(`It is for ${relative.space}; print copies are written for printers driven in RGB.`);
    const aim = aimOf(relative, rendering);
    const { meta, pipeline, channels, bitsPerChannel, labOf, close } = await openPicture(task);
    try {
      const { width, height } = meta.autoOrient;
      const scale = Math.min(widthMm / width, heightMm / height) / MM_PER_INCH;
      const [w, h] = [Math.max(1, Math.round(width * scale * ppi)), Math.max(1, Math.round(height * scale * ppi))];
      await writePrintFile({
        pipeline: sharpened(pipeline.autoOrient().resize(w, h, { fit: 'fill', kernel: 'lanczos3' }), recipe, ppi),
        channels,
        bitsPerChannel,
        labOf,
        written: (labs) => {
          applyRecipe(labs, recipe);
          for (let p = 0; p < labs.length; p += 3) labs.set(aim([labs[p], labs[p + 1], labs[p + 2]]), p);
          return Uint16Array.from(sender.fromLab(labs), (v) => Math.round(Math.min(1, Math.max(0, v)) * 65_535));
        },
        smooth: true,
        frame: frame && frameOf(frame, w, ppi),
        kind: { widthPx: w, heightPx: h, colour: 'RGB', ppi, icc, xmp: meta.xmp, iptc: meta.iptc },
        out,
        scratch,
      });
      return { widthPx: w, heightPx: h, profile: relative.name };
    } finally {
      close();
    }
  } finally {
    relative.close();
    sender.close();
  }
}

/** Sharpened once, at the size of the print: lightness alone, and no haloes beyond a few L* (the library’s own limits). */
function sharpened(pipeline: Sharp, { sharpening, radiusMm }: Recipe, ppi: number): Sharp {
  if (sharpening === 0) return pipeline;
  const sigma = Math.min(10, Math.max(0.3, (radiusMm / MM_PER_INCH) * ppi));
  return pipeline.sharpen({ sigma, m1: 0.5 * sharpening, m2: 2 * sharpening });
}
