import type { LabOfCodes } from '@rakuen/core/picture/pixels';
import { openProfile, ProfileError, srgbProfile, type OpenProfile } from '../colour-management/lcms.ts';
import { lightAsSrgb, lightOf } from './light-codes.ts';
import { PictureError } from './picture-error.ts';

/** What the codes of a picture mean: plain data. */
export interface PictureColours {
  /** Its profile; sRGB where it has none, or where it was set aside. */
  readonly icc?: Uint8Array;
  readonly grey: boolean;
  /** Values are light, and not coded for the eye. */
  readonly light: boolean;
}

export interface OpenColours {
  /** The profile's own name for itself. */
  readonly name: string;
  readonly assumed: boolean;
  /** Lab of codes 0–1; for 32-bit light of the codes of `codesOfLight`. */
  readonly labOf: LabOfCodes;
  close(): void;
}

/** @throws PictureError where the profile can't be used */
export async function openColours({ icc, grey, light }: PictureColours): Promise<OpenColours> {
  const { profile, assumed } = await profileFor(icc, grey ? 'GRAY' : 'RGB');
  const coding = light ? (assumed ? lightAsSrgb : lightOf) : undefined;
  return {
    name: profile.name,
    assumed,
    labOf: (codes) => profile.toLab(valuesFor(profile, codes, grey ? 1 : 3, coding)),
    close: () => profile.close(),
  };
}

async function profileFor(
  icc: Uint8Array | undefined,
  wanted: 'GRAY' | 'RGB',
): Promise<{ profile: OpenProfile; assumed: boolean }> {
  if (!icc) return { profile: await srgbProfile(), assumed: true };
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
