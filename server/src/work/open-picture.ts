import { open } from 'node:fs/promises';
import sharp, { type Metadata, type Sharp } from 'sharp';
import type { LabOfCodes } from '@rakuen/core/picture/blocks';
import { openProfile, ProfileError, srgbProfile, type OpenProfile } from '../colour-management/lcms.ts';
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
  /** Lab of codes 0–1; for 32-bit light of the codes of {@link codesOfLight}. */
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
  if (!['uchar', 'ushort', 'float'].includes(meta.depth as string)) {
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

  const { profile, assumed } = await profileFor(meta.icc, grey ? 'GRAY' : 'RGB', task.assumeSrgb);
  const channels = grey ? 1 : 3;
  const coding = light ? (assumed ? lightAsSrgb : lightOf) : undefined;
  return {
    format,
    meta,
    channels,
    bitsPerChannel,
    pipeline: decoded(sharp(task.path, input), { grey, bitsPerChannel, hasAlpha: meta.hasAlpha ?? false }),
    assumedLight: light && assumed,
    profileName: profile.name,
    profileAssumed: assumed,
    notes,
    labOf: (codes) => profile.toLab(valuesFor(profile, codes, channels, coding)),
    close: () => profile.close(),
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

/** 32-bit light is counted by the codes of an even lightness, or the darks would fall together. */
const CODE_GAMMA = 2.4;
const lightOf = (code: number): number => code ** CODE_GAMMA;
/** sRGB's own value of a code (IEC 61966-2-1): what is without a profile is taken to have its primaries. */
const lightAsSrgb = (code: number): number => {
  const v = lightOf(code);
  return v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055;
};

/** Light as 16-bit codes; what is not a number is black. */
export function codesOfLight(light: Float32Array): { samples: Uint16Array; beyond: boolean } {
  const samples = new Uint16Array(light.length);
  let beyond = false;
  for (let i = 0; i < light.length; i++) {
    const v = light[i];
    if (v < -1e-4 || v > 1 + 1e-4) beyond = true;
    samples[i] = v > 0 ? (v < 1 ? Math.round(v ** (1 / CODE_GAMMA) * 65_535) : 65_535) : 0;
  }
  return { samples, beyond };
}

/** Codes as the profile takes them; a grey picture read through an RGB profile has R = G = B. */
function valuesFor(
  profile: OpenProfile,
  codes: Float32Array,
  channels: 1 | 3,
  coding: (code: number) => number = (code) => code,
): Float32Array {
  const colours = codes.length / channels;
  const out = new Float32Array(colours * profile.channels);
  for (let i = 0; i < colours; i++)
    for (let c = 0; c < profile.channels; c++)
      out[i * profile.channels + c] = coding(codes[i * channels + Math.min(c, channels - 1)]);
  return out;
}
