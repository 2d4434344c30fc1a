import { gamutOfReading, type ReadingGamut } from './gamut-of-reading.ts';
import { neutralRamp, type RampStep } from './neutral-ramp.ts';
import type { Reading } from './reading.ts';
import { groupPatches, repeatability, type PatchGroup, type Repeatability } from './repeats.ts';

/** What the measures of a print condition are computed from. */
export interface ReadingFacts {
  readonly reading: Reading;
  readonly groups: readonly PatchGroup[];
  readonly repeatability: Repeatability;
  /** The bare paper: its device values where they are known, else the lightest patch. */
  readonly white: PatchGroup;
  /** The darkest patch. */
  readonly black: PatchGroup;
  readonly ramp?: readonly RampStep[];
  /** Undefined where the colours enclose no gamut; the reason is in `gamutFault`. */
  readonly gamut?: ReadingGamut;
  readonly gamutFault?: string;
  /** The same paper and settings with the UV taken out (M2), for the brightener. */
  readonly withoutUv?: { readonly reading: Reading; readonly white: PatchGroup; readonly repeatability: Repeatability };
}

/** Gathers the facts of a reading; `m2` is the reading of the same sheet without UV, if there is one. */
export function readingFacts(reading: Reading, m2?: Reading): ReadingFacts {
  const groups = groupPatches(reading);
  const white = whiteOf(reading, groups);
  const black = groups.reduce((darkest, g) => (g.lab[0] < darkest.lab[0] ? g : darkest));
  let gamut: ReadingGamut | undefined;
  let gamutFault: string | undefined;
  try {
    gamut = gamutOfReading(reading, groups);
  } catch (error) {
    gamutFault = (error as Error).message;
  }
  const m2Groups = m2 && groupPatches(m2);
  return {
    reading,
    groups,
    repeatability: repeatability(groups),
    white,
    black,
    ramp: neutralRamp(reading, groups, white.lab, black.lab),
    gamut,
    gamutFault,
    withoutUv: m2Groups && { reading: m2, white: whiteOf(m2, m2Groups), repeatability: repeatability(m2Groups) },
  };
}

function whiteOf(reading: Reading, groups: readonly PatchGroup[]): PatchGroup {
  const bare = reading.deviceSpace === 'RGB' ? 1 : 0;
  const found = reading.deviceSpace && groups.find((g) => g.device?.every((v) => v === bare));
  return found || groups.reduce((lightest, g) => (g.lab[0] > lightest.lab[0] ? g : lightest));
}
