import { createHash } from 'node:crypto';

/** Bytes of the header that do not count: flags, rendering intent, and the number itself (ICC.1:2010, 7.2.18). */
const LEFT_OUT = [
  [44, 48],
  [64, 68],
  [84, 100],
] as const;
const AT = 84;

/** The number a profile is known by: MD5 of it. @param profile an ICC profile of version 4 */
export function profileId(profile: Uint8Array): Uint8Array {
  const counted = Uint8Array.from(profile);
  for (const [from, to] of LEFT_OUT) counted.fill(0, from, to);
  return createHash('md5').update(counted).digest();
}

/** A profile with its number in its header; versions before 4 know none, and are left as they are. */
export function withProfileId(profile: Uint8Array): Uint8Array {
  if (profile[8] < 4) return profile;
  const out = Uint8Array.from(profile);
  out.set(profileId(profile), AT);
  return out;
}
