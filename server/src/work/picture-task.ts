import type { MessagePort } from 'node:worker_threads';
import sharp from 'sharp';
import { PictureReader } from '@rakuen/core/picture/reader';
import { AS_IT_LIES, type Orientation } from '@rakuen/core/picture/structure';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import { codesOfLight, openPicture, unreadable, type PictureFile } from './open-picture.ts';
import { wordsIn } from './picture-words.ts';
import { pixelRuns } from './pixel-stream.ts';

export interface PictureTask extends PictureFile {
  /** Folder for what is only needed while it is read. */
  readonly scratch: string;
  /** Where progress 0–1 is posted. */
  readonly port?: MessagePort;
}

export interface PictureResult {
  readonly format: 'JPEG' | 'PNG' | 'TIFF';
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bitsPerChannel: 8 | 16 | 32;
  readonly profile: string;
  readonly profileAssumed: boolean;
  readonly notes: string[];
  /** What the file calls itself. */
  readonly title?: string;
  readonly caption?: string;
  readonly figures: PictureFigures;
  /** L*, a*, b*, share of each occupied cell. */
  readonly cells: Float32Array;
  /** JPEG, sRGB, at most 1600 px. */
  readonly preview: Buffer;
}

const PREVIEW_PX = 1600;

/** Decodes a picture, takes it to Lab through its profile, and gathers what it holds. @throws PictureError */
export async function analysePicture(task: PictureTask): Promise<PictureResult> {
  const report = (done: number) => task.port?.postMessage(done);
  const picture = await openPicture(task);
  const { format, meta, channels, bitsPerChannel, notes, labOf } = picture;
  const { width, height } = meta;
  try {
    report(0.03);
    const reader = new PictureReader(
      { widthPx: width, heightPx: height, channels, bits: bitsPerChannel === 8 ? 8 : 16 },
      labOf,
    );
    // Made on the other core while the pixels are counted on this one; its fault is told where it is awaited.
    const made = previewOf(task, picture.profileAssumed);
    made.catch(() => {});
    let read = 0;
    let beyond = false;
    try {
      for await (const { samples, pixels } of pixelRuns(picture.pipeline, task.scratch)) {
        const codes = samples instanceof Float32Array ? codesOfLight(samples) : { samples, beyond: false };
        beyond ||= codes.beyond;
        reader.add(codes.samples);
        read += pixels;
        report(0.2 + (0.65 * read) / (width * height));
      }
    } catch (error) {
      throw unreadable(format, error as Error);
    }
    if (beyond) notes.push('It holds values below black or above white; they were taken as black and white.');
    if (picture.assumedLight) notes.push('Its 32-bit values were taken as light with the primaries of sRGB.');
    const { figures, cells } = reader.finish(uprightFrom(meta.orientation ?? 1));

    const preview = await made.catch((error: Error) => {
      throw unreadable(format, error);
    });
    report(1);
    const upright = meta.autoOrient;
    return {
      format,
      widthPx: upright.width,
      heightPx: upright.height,
      bitsPerChannel,
      profile: picture.profileName,
      profileAssumed: picture.profileAssumed,
      notes,
      ...wordsIn(meta),
      figures,
      cells: cells.data,
      preview,
    };
  } finally {
    picture.close();
  }
}

/**
 * For the eye: turned upright, and taken to sRGB through the profile (or without it, where it was set aside). Made small before it is taken through it,
 * which is slow for every pixel.
 */
async function previewOf({ path, maxPixels }: PictureFile, assumed: boolean): Promise<Buffer> {
  const small = sharp(path, { limitInputPixels: maxPixels, ignoreIcc: true })
    .autoOrient()
    .resize(PREVIEW_PX, PREVIEW_PX, { fit: 'inside', withoutEnlargement: true });
  const bare = await (assumed ? small : small.keepIccProfile()).tiff({ compression: 'none' }).toBuffer();
  return sharp(bare).flatten({ background: '#ffffff' }).toColourspace('srgb').jpeg({ quality: 88 }).toBuffer();
}

/** Where a place of the file lies once the picture is turned as EXIF says (tag 274, 1–8). */
function uprightFrom(orientation: number): Orientation {
  const turns: Record<number, Orientation['upright']> = {
    2: (x, y) => [1 - x, y],
    3: (x, y) => [1 - x, 1 - y],
    4: (x, y) => [x, 1 - y],
    5: (x, y) => [y, x],
    6: (x, y) => [1 - y, x],
    7: (x, y) => [1 - y, 1 - x],
    8: (x, y) => [y, 1 - x],
  };
  return turns[orientation] ? { upright: turns[orientation] } : AS_IT_LIES;
}
