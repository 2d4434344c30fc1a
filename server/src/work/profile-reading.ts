import { toRgb16, fromRgb16 } from '@rakuen/core/chart/device16';
import { labToXyz } from '@rakuen/core/colour/lab';
import { FormatError } from '@rakuen/core/formats/format-error';
import type { ImportedReading } from '@rakuen/core/formats/imported-reading';
import type { PatchReading } from '@rakuen/core/measurement/reading';
import { labsOf, openProfile, ProfileError } from '../colour-management/lcms.ts';

/** Do the bytes claim to be an ICC profile? */
export function looksLikeProfile(bytes: Uint8Array): boolean {
  return bytes.length >= 40 && String.fromCharCode(...bytes.subarray(36, 40)) === 'acsp';
}

/** Classes of profiles that describe no print (ICC.1), by their signature. */
const NOT_PRINTED: Readonly<Record<string, string>> = {
  mntr: 'a monitor or a working space',
  spac: 'a colour space',
  abst: 'an effect',
  link: 'a conversion',
  nmcl: 'named colours',
  scnr: 'a camera or a scanner',
};

const LEVELS = 9;
const GREYS = 33;

/** Colours that are asked of a profile: the device's surface and its greys. */
function asked(space: 'RGB' | 'CMYK' | 'GRAY'): number[][] {
  const edge = Array.from({ length: LEVELS }, (_, i) => i / (LEVELS - 1));
  const greys = Array.from({ length: GREYS }, (_, i) => i / (GREYS - 1));
  if (space === 'GRAY') return greys.map((v) => [v]);
  const surface: number[][] = [];
  for (const x of edge)
    for (const y of edge) for (const z of edge) if ([x, y, z].some((v) => v === 0 || v === 1)) surface.push([x, y, z]);
  if (space === 'RGB')
    return [...surface, ...greys.map((v) => [v, v, v])].map((rgb) => [
      ...fromRgb16(toRgb16(rgb as [number, number, number])),
    ]);
  return [...surface.flatMap((cmy) => edge.map((k) => [...cmy, k])), ...greys.map((v) => [0, 0, 0, 1 - v])];
}

/**
 * What an ICC profile (v2 or v4; RGB, CMYK or grey) says its device prints, as a reading that says where it comes
 * from: nothing was measured.
 * @throws FormatError when no colour can be computed through it
 */
export async function readingFromProfile(bytes: Uint8Array): Promise<ImportedReading> {
  try {
    const profile = await openProfile(bytes, true);
    try {
      const kind = NOT_PRINTED[profile.deviceClass];
      if (kind)
        throw new FormatError({
          message: `“${profile.name}” is the profile of ${kind}: it tells nothing of a paper.`,
          remedy: 'Bring the profile of a paper in a printer; this one can be set beside the gamuts in Compare.',
        });
      const devices = [...new Map(asked(profile.space).map((d) => [d.map((v) => v.toFixed(5)).join(), d])).values()];
      const labs = labsOf(profile, devices);
      if (labs.some((lab) => lab.some((v) => !Number.isFinite(v))))
        throw new ProfileError('The profile gives no usable colours.');
      // Grey device values are told as RGB, so that a grey profile has a ramp.
      const patches = labs.map((lab, i): PatchReading => ({
        id: `C${i + 1}`,
        device: profile.space === 'GRAY' ? [devices[i][0], devices[i][0], devices[i][0]] : devices[i],
        lab,
        xyz: labToXyz(lab),
      }));
      return {
        reading: {
          patches,
          deviceSpace: profile.space === 'CMYK' ? 'CMYK' : 'RGB',
          colourFrom: 'Lab',
          instrument: undefined,
          description: profile.name,
        },
        recognised: [
          `ICC profile, “${profile.name}”, ${profile.space === 'GRAY' ? 'grey' : profile.space}, class ${profile.deviceClass}`,
          `${patches.length} colours asked of it, absolute colorimetric`,
        ],
        missing: [
          'A measurement: these are the profile’s words, not an instrument’s. They stand in until a reading comes.',
          'Spectra: colour can’t be computed for another light.',
        ],
        columns: [profile.space === 'GRAY' ? 'grey' : profile.space, 'L*a*b*'],
      };
    } finally {
      profile.close();
    }
  } catch (error) {
    if (error instanceof ProfileError)
      throw new FormatError({ message: error.message, remedy: 'Choose another profile, or export it again.' });
    throw error;
  }
}
