import { gamutOfReading, type ReadingGamut } from './gamut-of-reading.ts';
import { neutralRamp, type RampStep } from './neutral-ramp.ts';
import type { MeasurementCondition, Reading } from './reading.ts';
import { groupPatches, repeatability, type PatchGroup, type Repeatability } from './repeats.ts';
import { differenceOf, whyNotAlike } from './same-print.ts';
import { DEFAULT_THRESHOLDS } from './thresholds.ts';

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
  /**
   * Whether bare paper, and full black, were among what was read: without them the two above are only the lightest and
   * the darkest patch.
   */
  readonly holds: { readonly white: boolean; readonly black: boolean };
  /** White of the same sheet under the other measurement conditions it was read in. */
  readonly others: Partial<Record<MeasurementCondition, OtherWhite>>;
  /** The same with the UV taken out (M2), for the brightener. */
  readonly withoutUv?: OtherWhite;
  /** Why a reading under another measurement condition that is there does not serve this one. */
  readonly unserved: Partial<Record<MeasurementCondition, string>>;
  /** ΔE00 from which the printmaker tells two greys apart, edge to edge. */
  readonly toldFrom: number;
}

/**
 * Gathers the facts of a reading; `companions` are readings of the same sheet, in one pass or on one day, under other
 * measurement conditions.
 */
export function readingFacts(
  reading: Reading,
  companions: readonly (Reading | undefined)[] = [],
  unserved: ReadingFacts['unserved'] = {},
  toldFrom: number = DEFAULT_THRESHOLDS.deltaE.edgeToEdge,
): ReadingFacts {
  const groups = groupPatches(reading);
  const bare = bareOf(reading, groups);
  const white = bare ?? lightest(groups);
  const black = groups.reduce((darkest, g) => (g.lab[0] < darkest.lab[0] ? g : darkest));
  let gamut: ReadingGamut | undefined;
  let gamutFault: string | undefined;
  try {
    gamut = gamutOfReading(reading, groups);
  } catch (error) {
    gamutFault = (error as Error).message;
  }
  const { others, refused } = companionWhites(reading, companions);
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
    holds: { white: bare !== undefined, black: groups.some((g) => isFullBlack(reading, g)) },
    withoutUv: others.M2,
    unserved: { ...refused, ...unserved },
    toldFrom,
  };
}

/** Whites of the same sheet under other measurement conditions; a companion that disagrees with the reading is refused. */
function companionWhites(reading: Reading, companions: readonly (Reading | undefined)[]) {
  const others: Partial<Record<MeasurementCondition, OtherWhite>> = {};
  const refused: Partial<Record<MeasurementCondition, string>> = {};
  for (const other of companions) {
    if (!other?.condition || other.condition === reading.condition) continue;
    const why = whyNoCompanion(reading, other);
    if (why) {
      refused[other.condition] = `The reading in ${other.condition} is not joined: ${why}.`;
      continue;
    }
    const groups = groupPatches(other);
    const white = bareOf(other, groups);
    if (white) others[other.condition] = { reading: other, white, repeatability: repeatability(groups) };
  }
  return { others, refused };
}

/** Polarised light (M3) sees dark patches without the surface: only its white can be compared with another condition's. */
function whyNoCompanion(reading: Reading, other: Reading): string | undefined {
  const difference = differenceOf(reading, other);
  // A white alone may have been read beside a chart without device values: then there is nothing to compare.
  if (!difference) return undefined;
  const polarised = reading.condition === 'M3' || other.condition === 'M3';
  return whyNotAlike(polarised ? { ...difference, mean: 0, p95: 0, black: undefined } : difference);
}

const lightest = (groups: readonly PatchGroup[]) => groups.reduce((light, g) => (g.lab[0] > light.lab[0] ? g : light));

/** Paper is no darker, and no more coloured, than this (our own choice); said of readings without device values. */
const PAPER = { leastL: 70, mostChroma: 25 };

/** The bare paper among the patches: by its device values, or where there are none the lightest patch that can be paper. */
function bareOf(reading: Reading, groups: readonly PatchGroup[]): PatchGroup | undefined {
  if (groups.some((g) => g.device) && reading.deviceSpace) {
    const bare = reading.deviceSpace === 'RGB' ? 1 : 0;
    return groups.find((g) => g.device?.every((v) => v === bare));
  }
  const found = lightest(groups);
  const [L, a, b] = found.lab;
  return L >= PAPER.leastL && Math.hypot(a, b) <= PAPER.mostChroma ? found : undefined;
}

/**
 * Full black is the darkest there is to print, and on a flooded sheet not the darkest that was read. A patch this near
 * to full ink counts: device values, and L* where there are none (our own choice).
 */
const FULL = { rgb: 0.1, blackInk: 0.9, inks: 2.4, L: 50 };

function isFullBlack({ deviceSpace }: Reading, { device, lab }: PatchGroup): boolean {
  if (!device || !deviceSpace) return lab[0] < FULL.L;
  if (deviceSpace === 'RGB') return Math.max(...device) <= FULL.rgb;
  return device[3]! >= FULL.blackInk || device.reduce((sum, v) => sum + v, 0) >= FULL.inks;
}
