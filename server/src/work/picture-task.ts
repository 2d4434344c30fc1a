import { setImmediate } from 'node:timers/promises';
import type { MessagePort } from 'node:worker_threads';
import sharp from 'sharp';
import { gistOf, packGist } from '@rakuen/core/picture/gist';
import { CodeBins } from '@rakuen/core/picture/bins';
import { BlockTally, blocksOf, type Blocks } from '@rakuen/core/picture/blocks';
import type { PixelKind } from '@rakuen/core/picture/pixels';
import { coloursRead, type PictureRead } from '@rakuen/core/picture/reader';
import { AS_IT_LIES, structureOf, type Orientation } from '@rakuen/core/picture/structure';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import { codesOf } from './light-codes.ts';
import { openPicture, unreadable, type OpenPicture, type PictureFile } from './open-picture.ts';
import { wordsIn } from './picture-words.ts';
import { ReadBeside, ThreadLost } from './read-beside.ts';
import { HELD_AT_ONCE_PX, heldRuns, pixelRuns } from './pixel-stream.ts';

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
  /** The same in few colours, packed. */
  readonly gist: Float32Array;
  /** JPEG, sRGB, at most 1600 px. */
  readonly preview: Buffer;
}

const PREVIEW_PX = 1600;

/** Decodes a picture, takes it to Lab through its profile, and gathers what it holds. @throws PictureError */
export async function analysePicture(task: PictureTask): Promise<PictureResult> {
  const report = (done: number) => task.port?.postMessage(done);
  const picture = await openPicture(task);
  const { format, meta, channels, bitsPerChannel, notes } = picture;
  const { width, height } = meta;
  try {
    report(0.03);
    const kind: PixelKind = { widthPx: width, heightPx: height, channels, bits: bitsPerChannel === 8 ? 8 : 16 };
    // Made on the other core while the pixels are counted on this one; its fault is told where it is awaited.
    const made = previewOf(task, picture.profileAssumed, bitsPerChannel === 16 && channels === 3);
    made.catch(() => {});
    const { read, blocks, beyond } = await counted(picture, kind, task.scratch, (done) =>
      report(0.2 + 0.65 * done),
    ).catch((error: Error) => {
      throw error instanceof ThreadLost ? error : unreadable(format, error);
    });
    if (beyond) notes.push('It holds values below black or above white; they were taken as black and white.');
    if (picture.assumedLight) notes.push('Its 32-bit values were taken as light with the primaries of sRGB.');
    const structure = structureOf(blocks, read.figures, uprightFrom(meta.orientation ?? 1));

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
      figures: { ...read.figures, structure },
      cells: read.cells.data,
      gist: packGist(gistOf(read.cells)),
      preview,
    };
  } finally {
    picture.close();
  }
}

/** Smaller pictures are counted before a second thread has begun. */
const ALONE_PX = 3e6;

/** Of so many runs the other thread counts one whole: it has less to do by place than this one by colour. */
const WHOLE_OF = 3;

/** Every pixel counted by its colour and by its place, on two threads. */
async function counted(
  { pipeline, bitsPerChannel, colours, labOf }: OpenPicture,
  kind: PixelKind,
  scratch: string,
  progress: (done: number) => void,
): Promise<{ read: PictureRead; blocks: Blocks; beyond: boolean }> {
  const total = kind.widthPx * kind.heightPx;
  const beside = total > ALONE_PX ? new ReadBeside({ kind, colours }) : undefined;
  const here = beside ? undefined : new BlockTally(kind);
  try {
    const bins = new CodeBins(kind);
    let [done, runs, beyond] = [0, 0, false];
    for await (const run of total <= HELD_AT_ONCE_PX
      ? heldRuns(pipeline, bitsPerChannel)
      : pixelRuns(pipeline, scratch)) {
      const codes = codesOf(run.samples);
      beyond ||= codes.beyond;
      const there = beside !== undefined && ++runs % WHOLE_OF === 0;
      await beside?.add(codes.samples, there);
      here?.add(codes.samples);
      if (!there) bins.add(codes.samples);
      progress((done += run.pixels) / total);
      // What else waits for this thread goes on: the next part of the preview, a word from the helper.
      await setImmediate();
    }
    if (here) return { read: coloursRead([bins.counted()], labOf), blocks: blocksOf(here.tallied, labOf), beyond };
    beside!.finish();
    const read = coloursRead([bins.counted(), await beside!.counted], labOf);
    return { read, blocks: await beside!.blocks, beyond };
  } finally {
    beside?.end();
  }
}

/**
 * For the eye, in 8 bits: turned upright, and taken to sRGB through the profile (or without it, where it was set
 * aside). Made small before it is taken through it, which is slow for every pixel; colours of 16 bits are cut to 8
 * before that, which takes a third of the time.
 */
async function previewOf({ path, maxPixels }: PictureFile, assumed: boolean, cut: boolean): Promise<Buffer> {
  const whole = sharp(path, { limitInputPixels: maxPixels, ignoreIcc: true });
  const small = (cut ? whole.pipelineColourspace('srgb') : whole)
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
