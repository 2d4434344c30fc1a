import { open } from 'node:fs/promises';
import type { MessagePort } from 'node:worker_threads';
import sharp from 'sharp';
import { PictureTally, type PictureFigures } from '@rakuen/core/picture/tally';
import { openProfile, ProfileError, srgbProfile, type OpenProfile } from '../colour-management/lcms.ts';
import { PictureError } from './picture-error.ts';

export interface PictureTask {
  readonly path: string;
  readonly assumeSrgb: boolean;
  readonly maxPixels: number;
  /** Where progress 0–1 is posted. */
  readonly port?: MessagePort;
}

export interface PictureResult {
  readonly format: 'JPEG' | 'PNG' | 'TIFF';
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bitsPerChannel: 8 | 16;
  readonly profile: string;
  readonly profileAssumed: boolean;
  readonly notes: string[];
  readonly figures: PictureFigures;
  /** L*, a*, b*, share of each occupied cell. */
  readonly cells: Float32Array;
  /** JPEG, sRGB, at most 1600 px. */
  readonly preview: Buffer;
}

// Files from outside are hostile until parsed: of all the decoders only these three are let near them.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: [
    'VipsForeignLoadJpegFile',
    'VipsForeignLoadPngFile',
    'VipsForeignLoadTiffFile',
    'VipsForeignLoadJpegBuffer',
    'VipsForeignLoadPngBuffer',
    'VipsForeignLoadTiffBuffer',
  ],
});
sharp.cache(false);
sharp.concurrency(1);

/** More pixels than this add nothing to the figures; larger pictures are read at every n-th pixel. */
const PIXELS_ENOUGH = 12_000_000;
const RUN = 1 << 16;
const PREVIEW_PX = 1600;

/** Decodes a picture, takes it to Lab through its profile, and gathers what it holds. @throws PictureError */
export async function analysePicture(task: PictureTask): Promise<PictureResult> {
  const report = (done: number) => task.port?.postMessage(done);
  const format = await formatOf(task.path);
  const input = { limitInputPixels: task.maxPixels, ignoreIcc: true, failOn: 'truncated' as const };

  const meta = await sharp(task.path, { ...input, limitInputPixels: false })
    .metadata()
    .catch((error: Error) => {
      throw unreadable(format, error);
    });
  const { width, height } = meta;
  if (width * height > task.maxPixels) {
    throw new PictureError(
      `The picture claims ${width} × ${height} pixels, ${((width * height) / 1e6).toFixed(0)} megapixels; ${(task.maxPixels / 1e6).toFixed(0)} is the most.`,
      'Make it smaller, or raise the limit in the settings.',
      'width, height',
    );
  }
  const grey = meta.space === 'b-w' || meta.space === 'grey16';
  if (!grey && meta.space !== 'srgb' && meta.space !== 'rgb16' && meta.space !== 'rgb') {
    throw new PictureError(
      `The picture is in ${meta.space.toUpperCase()}; RGB and grey pictures are read.`,
      'Save a copy in RGB with its profile embedded.',
      'colour space',
    );
  }
  if (meta.depth !== 'uchar' && meta.depth !== 'ushort') {
    throw new PictureError(
      `The picture has ${meta.depth} values; 8 and 16 bits a channel are read.`,
      'Save a copy with 16 bits a channel.',
      'bits per channel',
    );
  }
  const bitsPerChannel = meta.depth === 'ushort' ? 16 : 8;
  const notes: string[] = [];
  if (meta.hasAlpha) notes.push('The picture has a transparent layer; it was left out.');
  if ((meta.pages ?? 1) > 1) notes.push(`The file holds ${meta.pages} pictures; the first was read.`);

  const { profile, assumed } = await profileFor(meta.icc, grey ? 'GRAY' : 'RGB', task.assumeSrgb);
  try {
    report(0.05);
    const every = Math.ceil(Math.sqrt((width * height) / PIXELS_ENOUGH));
    let pipeline = sharp(task.path, input).removeAlpha();
    if (every > 1) {
      pipeline = pipeline.resize(Math.floor(width / every), Math.floor(height / every), {
        fit: 'fill',
        kernel: 'nearest',
        fastShrinkOnLoad: false,
      });
      notes.push(`Figures are from every ${every}th pixel in each direction.`);
    }
    pipeline = grey
      ? pipeline.toColourspace(bitsPerChannel === 16 ? 'grey16' : 'b-w')
      : pipeline.toColourspace(bitsPerChannel === 16 ? 'rgb16' : 'srgb');
    const { data, info } = await pipeline
      .raw({ depth: bitsPerChannel === 16 ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true })
      .catch((error: Error) => {
        throw unreadable(format, error);
      });
    report(0.35);

    const samples = bitsPerChannel === 16 ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
    const pixels = info.width * info.height;
    const tally = new PictureTally(pixels);
    for (let from = 0; from < pixels; from += RUN) {
      const to = Math.min(pixels, from + RUN);
      tally.add(profile.toLab(channelsFor(profile, samples, info.channels, from, to)));
      report(0.35 + (0.5 * to) / pixels);
    }
    const { figures, cells } = tally.finish();

    // The preview is for the eye: turned upright, and taken to sRGB through the profile (or without it, where it was set aside).
    const preview = await sharp(task.path, { limitInputPixels: task.maxPixels, ignoreIcc: assumed })
      .autoOrient()
      .removeAlpha()
      .resize(PREVIEW_PX, PREVIEW_PX, { fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .jpeg({ quality: 88 })
      .toBuffer()
      .catch((error: Error) => {
        throw unreadable(format, error);
      });
    report(1);
    const upright = meta.autoOrient;
    return {
      format,
      widthPx: upright.width,
      heightPx: upright.height,
      bitsPerChannel,
      profile: profile.name,
      profileAssumed: assumed,
      notes,
      figures,
      cells: cells.data,
      preview,
    };
  } finally {
    profile.close();
  }
}

/** The three formats by their first bytes; the name of a file proves nothing. */
async function formatOf(path: string): Promise<PictureResult['format']> {
  const file = await open(path);
  const head = new Uint8Array(16);
  const { bytesRead } = await file.read(head, 0, 16, 0);
  await file.close();
  if (bytesRead === 0) throw new PictureError('The file is empty.', 'Choose the picture again.');
  const begins = (...bytes: number[]) => bytes.every((b, i) => head[i] === b);
  if (begins(0xff, 0xd8, 0xff)) return 'JPEG';
  if (begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'PNG';
  if (begins(0x49, 0x49, 42, 0) || begins(0x4d, 0x4d, 0, 42) || begins(0x49, 0x49, 43, 0) || begins(0x4d, 0x4d, 0, 43))
    return 'TIFF';
  throw new PictureError(
    'The file is not a JPEG, PNG or TIFF picture, whatever its name says.',
    'Save the picture as TIFF, PNG or JPEG and add that.',
    'file type',
  );
}

function unreadable(format: string, error: Error): PictureError {
  // libvips puts one fault a line; the first says it.
  const detail = error.message
    .split('\n')[0]
    .replace(/^.*?:\s*/, '')
    .slice(0, 160);
  return new PictureError(
    `The ${format} file is damaged or cut short (${detail}).`,
    'Copy it again from its source, or save it anew.',
    'image data',
  );
}

async function profileFor(
  icc: Uint8Array | undefined,
  wanted: 'GRAY' | 'RGB',
  assumeSrgb: boolean,
): Promise<{ profile: OpenProfile; assumed: boolean }> {
  if (!icc || assumeSrgb) return { profile: await srgbProfile(), assumed: true };
  const setAside = 'Embed a sound profile and add it again, or add it with “set the profile aside and assume sRGB”.';
  let profile: OpenProfile;
  try {
    profile = await openProfile(icc);
    profile.toLab(new Uint8Array(profile.channels));
  } catch (error) {
    if (error instanceof ProfileError)
      throw new PictureError(`The embedded profile can’t be used. ${error.message}`, setAside, 'embedded profile');
    throw error;
  }
  if (profile.space !== wanted && !(wanted === 'GRAY' && profile.space === 'RGB')) {
    const { space } = profile;
    profile.close();
    throw new PictureError(
      `The embedded profile is for ${space}, the picture is ${wanted === 'GRAY' ? 'grey' : 'RGB'}.`,
      setAside,
      'embedded profile',
    );
  }
  return { profile, assumed: false };
}

/** Pixels from–to with as many channels as the profile takes; a grey picture read through an RGB profile has R = G = B. */
function channelsFor(
  profile: OpenProfile,
  samples: Uint8Array | Uint16Array,
  channels: number,
  from: number,
  to: number,
): Uint8Array | Uint16Array {
  if (channels === profile.channels) return samples.slice(from * channels, to * channels);
  const out =
    samples instanceof Uint16Array
      ? new Uint16Array((to - from) * profile.channels)
      : new Uint8Array((to - from) * profile.channels);
  for (let p = from; p < to; p++)
    for (let c = 0; c < profile.channels; c++)
      out[(p - from) * profile.channels + c] = samples[p * channels + Math.min(c, channels - 1)];
  return out;
}
