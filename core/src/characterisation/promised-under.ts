import { FormatError } from '../formats/format-error.ts';
import { readProfile } from '../formats/icc/profile-read.ts';
import { readingsFromFile } from '../formats/reading-formats.ts';
import type { MeasurementCondition } from '../measurement/reading.ts';

/** Under what a profile promises its colours, as far as the file itself tells. */
export interface PromisedUnder {
  readonly name: string;
  /** Made for another light than D50: its colours were adapted. */
  readonly anotherLight: boolean;
  /** Measurement conditions of the readings it carries; none where it carries none, or they do not say. */
  readonly conditions: readonly MeasurementCondition[];
}

/** A file of readings begins after the type of its tag. */
const TEXT_FROM = 8;
/**
 * Entries of an adaptation that is none differ by no more than their rounding, and an instrument's own D50 (our own
 * choice); D50 without its UV lies 0.019 off.
 */
const ADAPTED = 0.01;

/**
 * What a printer's profile says of how it was made, by its tags ‘chad’ and ‘targ’ (ICC.1:2010, 9.2.8 and 9.2.13).
 * @throws FormatError for a damaged profile
 */
export function promisedUnder(bytes: Uint8Array): PromisedUnder {
  const { header, description: name, tags } = readProfile(bytes);
  return {
    name,
    anotherLight: header.deviceClass === 'prtr' && isAdapted(tags.get('chad')),
    conditions: conditionsOf(tags.get('targ')),
  };
}

function isAdapted(chad: Uint8Array | undefined): boolean {
  if (!chad) return false;
  const view = new DataView(chad.buffer, chad.byteOffset, chad.byteLength);
  return Array.from({ length: 9 }, (_, i) => view.getInt32(TEXT_FROM + i * 4) / 65536).some(
    (v, i) => Math.abs(v - (i % 4 === 0 ? 1 : 0)) > ADAPTED,
  );
}

function conditionsOf(targ: Uint8Array | undefined): MeasurementCondition[] {
  if (!targ) return [];
  const end = targ.indexOf(0, TEXT_FROM);
  try {
    const readings = readingsFromFile(targ.subarray(TEXT_FROM, end < 0 ? undefined : end));
    return readings.flatMap(({ reading }) => reading.condition ?? []);
  } catch (error) {
    // The tag may hold the name of a standard print, or what another program writes of its own: then nothing is known.
    if (error instanceof FormatError) return [];
    throw error;
  }
}

/**
 * Why readings can't be held against a profile: what was read is held against what was promised only under the light
 * and the measurement condition it was promised for.
 * @param read measurement condition of the readings; absent where they do not say
 */
export function whyNotHeld(
  { name, anotherLight, conditions }: PromisedUnder,
  read: MeasurementCondition | undefined,
): { readonly message: string; readonly remedy: string } | undefined {
  if (anotherLight)
    return {
      message: `${name} was made for another light than D50, and readings are told under D50.`,
      remedy: 'Check a profile made for D50 from the same readings.',
    };
  if (read && conditions.length > 0 && !conditions.includes(read))
    return {
      message: `${name} was built from ${conditions.join(' and ')}; these readings are ${read}.`,
      remedy: `Choose readings in ${conditions.join(' or ')}.`,
    };
  return undefined;
}

/** What is taken for granted where the profile or the readings do not say their measurement condition. */
export function takenForGranted({ name, conditions }: PromisedUnder, read: MeasurementCondition | undefined): string[] {
  if (read && conditions.length > 0) return [];
  const readings = read ? `these are ${read}` : 'the readings do not say their measurement condition';
  const built =
    conditions.length > 0
      ? `${name} was built from ${conditions.join(' and ')}`
      : `${name} does not say ${read ? 'what it was built from' : 'its own'}`;
  return [`${readings}, and ${built}: on a brightened sheet that alone may part them`];
}
