import {
  cmsFLAGS_NOCACHE,
  cmsInfoDescription,
  instantiate,
  INTENT_ABSOLUTE_COLORIMETRIC,
  INTENT_RELATIVE_COLORIMETRIC,
} from 'lcms-wasm';
import type { Lab } from '@rakuen/core/colour/types';

type Lcms = Awaited<ReturnType<typeof instantiate>>;
let engine: Promise<Lcms> | undefined;
const lcms = (): Promise<Lcms> => (engine ??= instantiate());

/** LittleCMS pixel formats: colour space, channels, bytes a channel, float or not. */
const SPACES = { GRAY: [3, 1], RGB: [4, 3], CMYK: [6, 4], Lab: [10, 3] } as const;
type DeviceSpace = 'GRAY' | 'RGB' | 'CMYK';
const format = (space: keyof typeof SPACES, bytes: 1 | 2 | 4): number =>
  ((bytes === 4 ? 1 : 0) << 22) | (SPACES[space][0] << 16) | (SPACES[space][1] << 3) | bytes;

/** A profile that can't be used; the message says why. */
export class ProfileError extends Error {
  override readonly name = 'ProfileError';
}

/** A profile opened for reading colours through it. Close it when done. */
export interface OpenProfile {
  readonly name: string;
  readonly space: DeviceSpace;
  readonly channels: number;
  /** 'mntr', 'prtr', 'scnr', 'spac'… as the header has it. */
  readonly deviceClass: string;
  /** Lab (D50) of device pixels; 8-bit, 16-bit or 0–1 float channels one after another. */
  toLab(pixels: Uint8Array | Uint16Array | Float32Array): Float32Array;
  /** Device values 0–1 that the profile sends for Lab, one colour after another. @throws ProfileError where it has no way back */
  fromLab(labs: Float32Array): Float32Array;
  close(): void;
}

/** Numbers of the renderings (ICC.1, 7.2.15). */
const INTENTS = {
  relative: INTENT_RELATIVE_COLORIMETRIC,
  uncompensated: INTENT_RELATIVE_COLORIMETRIC,
  absolute: INTENT_ABSOLUTE_COLORIMETRIC,
  perceptual: 0,
  saturation: 2,
} as const;

/** sRGB as LittleCMS builds it. */
export async function srgbProfile(): Promise<OpenProfile> {
  const cms = await lcms();
  return opened(cms, cms.cmsCreate_sRGBProfile(), 'sRGB', 'mntr', INTENT_RELATIVE_COLORIMETRIC);
}

/**
 * Opens an ICC profile, v2 or v4, RGB, CMYK or grey.
 * @param rendering by which of its tables; `true`: as an instrument would read the colours, the paper's white
 * included; else relative to the white
 * @throws ProfileError for bytes that are no profile, or one that gives no colour
 */
export async function openProfile(
  bytes: Uint8Array,
  rendering: boolean | keyof typeof INTENTS = false,
): Promise<OpenProfile> {
  const cms = await lcms();
  if (bytes.length < 132 || String.fromCharCode(...bytes.subarray(36, 40)) !== 'acsp')
    throw new ProfileError('It is not an ICC profile: its signature is missing.');
  const handle = cms.cmsOpenProfileFromMem(bytes, bytes.length);
  if (!handle) throw new ProfileError('The ICC profile is damaged: its header or tag table can’t be read.');
  const deviceClass = String.fromCharCode(...bytes.subarray(12, 16)).trim();
  let name = '';
  try {
    name = cms.cmsGetProfileInfoASCII(handle, cmsInfoDescription, 'en', 'US').split('\0').join('').trim();
  } catch {
    // A profile without a readable name is still a profile.
  }
  return opened(
    cms,
    handle,
    name || 'a profile without a name',
    deviceClass,
    typeof rendering === 'string'
      ? INTENTS[rendering]
      : rendering
        ? INTENT_ABSOLUTE_COLORIMETRIC
        : INTENT_RELATIVE_COLORIMETRIC,
  );
}

function opened(cms: Lcms, handle: number, name: string, deviceClass: string, intent: number): OpenProfile {
  const space = cms.cmsGetColorSpaceASCII(handle) as DeviceSpace | null;
  if (!space || !(space in SPACES) || (space as string) === 'Lab') {
    cms.cmsCloseProfile(handle);
    throw new ProfileError(`The profile is for ${space ?? 'an unknown colour space'}; RGB, CMYK and grey are read.`);
  }
  const lab = cms.cmsCreateLab4Profile();
  const transforms = new Map<number, number>();
  let back: number | undefined;
  const transform = (bytes: 1 | 2 | 4): number => {
    const known = transforms.get(bytes);
    if (known) return known;
    const made = cms.cmsCreateTransform(handle, format(space, bytes), lab, format('Lab', 4), intent, cmsFLAGS_NOCACHE);
    if (!made) throw new ProfileError('The profile is damaged: no colour can be computed through it.');
    transforms.set(bytes, made);
    return made;
  };
  const channels = SPACES[space][1];
  return {
    name,
    space,
    channels,
    deviceClass,
    toLab(pixels) {
      // CMYK floats run 0–100 in LittleCMS, RGB and grey 0–1.
      const scaled = pixels instanceof Float32Array && space === 'CMYK' ? pixels.map((v) => v * 100) : pixels;
      return cms.cmsDoTransform(
        transform(pixels.BYTES_PER_ELEMENT as 1 | 2 | 4),
        scaled,
        pixels.length / channels,
      ) as Float32Array;
    },
    fromLab(labs) {
      back ??= cms.cmsCreateTransform(lab, format('Lab', 4), handle, format(space, 4), intent, cmsFLAGS_NOCACHE);
      if (!back) throw new ProfileError('The profile tells what is printed, but not what to send for a colour.');
      const out = Float32Array.from(cms.cmsDoTransform(back, labs, labs.length / 3));
      return space === 'CMYK' ? out.map((v) => v / 100) : out;
    },
    close() {
      for (const t of transforms.values()) cms.cmsDeleteTransform(t);
      if (back) cms.cmsDeleteTransform(back);
      cms.cmsCloseProfile(lab);
      cms.cmsCloseProfile(handle);
    },
  };
}

/** Lab of a list of device colours, 0–1 a channel. */
export function labsOf(profile: OpenProfile, colours: readonly (readonly number[])[]): Lab[] {
  const flat = profile.toLab(Float32Array.from(colours.flat()));
  return colours.map((_, i) => [flat[i * 3], flat[i * 3 + 1], flat[i * 3 + 2]] as const);
}
