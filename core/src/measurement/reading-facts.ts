import { gamutOfReading, type ReadingGamut } from './gamut-of-reading.ts';
import { neutralRamp, type RampStep } from './neutral-ramp.ts';
import type { MeasurementCondition, Reading } from './reading.ts';
import { groupPatches, repeatability, type PatchGroup, type Repeatability } from './repeats.ts';

/** A white as another reading of the same sheet has it. */
export interface OtherWhite {
  readonly reading: Reading;
  readonly white: PatchGroup;
  readonly repeatability: Repeatability;
}

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
  /** White of the same sheet under the other measurement conditions it was read in. */
  readonly others: Partial<Record<MeasurementCondition, OtherWhite>>;
  /** The same with the UV taken out (M2), for the brightener. */
  readonly withoutUv?: OtherWhite;
}

/** Gathers the facts of a reading; `companions` are readings of the same sheet under other measurement conditions. */
export function readingFacts(reading: Reading, ...companions: (Reading | undefined)[]): ReadingFacts {
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
  const others = Object.fromEntries(
    companions.flatMap((other) => {
      if (!other?.condition || other.condition === reading.condition) return [];
      const its = groupPatches(other);
      return [[other.condition, { reading: other, white: whiteOf(other, its), repeatability: repeatability(its) }]];
    }),
  ) as ReadingFacts['others'];
  return {
    reading,
    groups,
    repeatability: repeatability(groups),
    white,
    black,
    ramp: neutralRamp(reading, groups, white.lab),
    gamut,
    gamutFault,
    others,
    withoutUv: others.M2,
  };
}

function whiteOf(reading: Reading, groups: readonly PatchGroup[]): PatchGroup {
  const bare = reading.deviceSpace === 'RGB' ? 1 : 0;
  const found = reading.deviceSpace && groups.find((g) => g.device?.every((v) => v === bare));
  return found || groups.reduce((lightest, g) => (g.lab[0] > lightest.lab[0] ? g : lightest));
}
