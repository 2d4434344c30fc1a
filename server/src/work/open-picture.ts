import { open } from 'node:fs/promises';
import sharp, { type Metadata, type Sharp } from 'sharp';
import type { LabOfCodes } from '@rakuen/core/picture/pixels';
import { openColours, type PictureColours } from './picture-colours.ts';
import { PictureError } from './picture-error.ts';

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

/** A file from outside, as far as it may go. */
export interface PictureFile {
  readonly path: string;
  readonly assumeSrgb: boolean;
  readonly maxPixels: number;
}

/** A picture opened: what it is, and how its pixels become colours. Close it when done. */
export interface OpenPicture {
  readonly format: 'JPEG' | 'PNG' | 'TIFF';
  readonly meta: Metadata;
  readonly channels: 1 | 3;
  readonly bitsPerChannel: 8 | 16 | 32;
  /** Its bare values, in `channels` of one depth; 32-bit values as light. */
  readonly pipeline: Sharp;
  /** Values are light, and no profile says of which primaries. */
  readonly assumedLight: boolean;
  readonly profileName: string;
  readonly profileAssumed: boolean;
  readonly notes: string[];
  /** What its codes mean; another thread may open them too. */
  readonly colours: PictureColours;
  readonly labOf: LabOfCodes;
  close(): void;
}

/** Opens a JPEG, PNG or TIFF of RGB or greys. @throws PictureError that says what is wrong and what to do */
export async function openPicture(task: PictureFile): Promise<OpenPicture> {
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
  const grey = meta.space === 'b-w' || meta.space === 'grey16' || (meta.depth === 'float' && meta.channels < 3);
  const light = meta.depth === 'float';
  if (!grey && !['srgb', 'rgb16', 'rgb', 'scrgb'].includes(meta.space)) {
    throw new PictureError(
      `The picture is in ${meta.space.toUpperCase()}; RGB and grey pictures are read.`,
      'Save a copy in RGB with its profile embedded.',
      'colour space',
    );
  }
  if (!['uchar', 'ushort', 'float'].includes(meta.depth)) {
    throw new PictureError(
      `The picture has ${meta.depth} values; 8, 16 and 32 bits a channel are read.`,
      'Save a copy with 16 bits a channel.',
      'bits per channel',
    );
  }
  const bitsPerChannel = light ? 32 : meta.depth === 'ushort' ? 16 : 8;
  const notes: string[] = [];
  if (meta.hasAlpha) notes.push('The picture has a transparent layer; it was laid on white.');
  if ((meta.pages ?? 1) > 1) notes.push(`The file holds ${meta.pages} pictures; the first was read.`);

  const colours = { icc: task.assumeSrgb ? undefined : meta.icc, grey, light };
  const { name, assumed, labOf, close } = await openColours(colours);
  const channels = grey ? 1 : 3;
  return {
    format,
    meta,
    channels,
    bitsPerChannel,
    pipeline: decoded(sharp(task.path, input), { grey, bitsPerChannel, hasAlpha: meta.hasAlpha ?? false }),
    assumedLight: light && assumed,
    colours,
    profileName: name,
    profileAssumed: assumed,
    notes,
    labOf,
    close,
  };
}

/** The three formats by their first bytes; the name of a file proves nothing. */
async function formatOf(path: string): Promise<OpenPicture['format']> {
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

/** What libvips and the system say where a disk is full. */
const NO_ROOM = /no space left|ENOSPC|write (error|failed)|unable to write/i;

export function unreadable(format: string, error: Error): PictureError {
  if (error instanceof PictureError) return error;
  if (NO_ROOM.test(error.message))
    return new PictureError(
      'There is no room left on the disk: while a picture is read its pixels lie there.',
      'Make room, some six bytes a pixel, and add it again; nothing is wrong with the file.',
      'disk',
    );
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

/** A picture as its bare values, in one number of channels and one depth. */
function decoded(
  from: Sharp,
  { grey, bitsPerChannel, hasAlpha }: { grey: boolean; bitsPerChannel: number; hasAlpha: boolean },
): Sharp {
  if (bitsPerChannel === 32) return from.removeAlpha().pipelineColourspace('scrgb').toColourspace('scrgb');
  const opaque = hasAlpha ? from.flatten({ background: '#ffffff' }) : from;
  if (grey) return opaque.toColourspace(bitsPerChannel === 16 ? 'grey16' : 'b-w');
  return opaque.toColourspace(bitsPerChannel === 16 ? 'rgb16' : 'srgb');
}
