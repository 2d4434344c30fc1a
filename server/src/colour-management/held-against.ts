import { checkProfile, type ProfileCheck } from '@rakuen/core/characterisation/profile-check';
import { FormatError } from '@rakuen/core/formats/format-error';
import type { Reading } from '@rakuen/core/measurement/reading';
import { labsOf, type OpenProfile } from './lcms.ts';

/**
 * Readings of a strip held against what the profile they were printed through promises.
 * @param profile opened for absolute colours
 * @throws FormatError where the readings don't say what was sent, or are of another device
 */
export function heldAgainst(profile: OpenProfile, reading: Reading): ProfileCheck {
  const patches = reading.patches.filter((p) => p.device);
  if (patches.length === 0)
    throw new FormatError({
      message: 'The readings hold no device values: what was sent to the printer is not known.',
      remedy: 'Bring readings with the values the profile gave.',
    });
  if (profile.channels !== patches[0].device!.length)
    throw new FormatError({
      message: `The profile is for ${profile.space}, the readings are of ${reading.deviceSpace} values.`,
      remedy: 'Bring the readings that were printed through this profile.',
    });
  const promised = labsOf(
    profile,
    patches.map((p) => p.device!),
  );
  const bare = Array.from({ length: profile.channels }, () => (profile.space === 'CMYK' ? 0 : 1));
  const [white] = labsOf(profile, [bare]);
  return checkProfile(
    patches.map((p, i) => ({ patch: p.id, promised: promised[i], read: p.lab })),
    white,
  );
}
