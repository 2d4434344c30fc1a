import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import type { MeasurementCondition, PatchReading, Reading } from '../measurement/reading.ts';
import { groupPatches, type PatchGroup } from '../measurement/repeats.ts';
import { sameGrid, whyNotJoined } from '../measurement/same-print.ts';
import { groupSpectrum } from '../measurement/spectra-of-group.ts';

/** One device value with what was read of it, the mean of its repeats. */
export interface PrintSample {
  readonly device: readonly number[];
  /** Name on the chart of the first patch that was driven so. */
  readonly id: string;
  readonly lab: Lab;
  /** Total factor, or the part without luminescence where that is known. */
  readonly reflected?: readonly number[];
  /** What luminescence adds. */
  readonly luminous?: readonly number[];
  /** Repeats make a mean surer, but not without end. */
  readonly weight: number;
  /** Every reading of it. */
  readonly members: readonly PatchReading[];
  /** ΔE00 of each repeat from the mean of them. */
  readonly repeats: readonly number[];
}

/** Precedence of measurement conditions: daylight with its UV, as prints are seen (ISO 13655 M1), first. */
const FIRST: readonly (MeasurementCondition | undefined)[] = ['M1', 'M0', undefined, 'M2', 'M3'];
const MAX_WEIGHT = 4;

/** A reading that was not joined with the primary one, and why. */
export interface LeftOutReading {
  readonly reading: Reading;
  readonly why: string;
}

/** What a model is computed from. */
export interface JoinedSamples {
  readonly samples: readonly PrintSample[];
  readonly reading: Reading;
  readonly joined: readonly Reading[];
  readonly leftOut: readonly LeftOutReading[];
}

/**
 * Readings of one print condition as samples, repeats together. The first reading under the measurement condition with
 * precedence is the primary one. Others under the same condition are joined where their common patches, white and black
 * agree with it within noise and drift; one without UV (M2) separates the luminescence where it agrees likewise.
 */
export function samplesOf(readings: readonly Reading[]): JoinedSamples {
  const condition =
    FIRST.find((c) => readings.some((r) => r.condition === c && r.deviceSpace)) ?? readings[0]?.condition;
  const own = readings.filter((r) => r.condition === condition);
  const primary = own.find((r) => r.deviceSpace) ?? own[0];
  if (!primary) return { samples: [], reading: readings[0]!, joined: [], leftOut: [] };
  const leftOut: LeftOutReading[] = [];
  const joining = (candidates: readonly Reading[]) =>
    candidates.filter((reading) => {
      const why = reading === primary ? undefined : whyNotJoined(primary, reading);
      if (why) leftOut.push({ reading, why });
      return !why;
    });
  const joined = joining([primary, ...own.filter((r) => r !== primary)]);
  const reading = merged(joined);
  const darkOnes = condition === 'M1' ? joining(readings.filter((r) => r.condition === 'M2')) : [];
  const dark = darkOnes.length > 0 ? merged(darkOnes) : undefined;
  const withoutUv = dark && sameGrid(dark.spectralGrid, reading.spectralGrid) ? byDevice(dark) : undefined;
  const all = groupPatches(reading).filter((g) => g.device);
  const dullOf = (g: PatchGroup) => withoutUv?.get(keyOf(g.device!));
  const covered = all.filter(dullOf);
  const apart = withoutUv !== undefined && coversEnough(covered, all);
  const groups = apart ? covered : all;
  if (apart) leftOut.push(...uncovered(joined, withoutUv));
  return {
    reading,
    joined: [...joined, ...(apart ? darkOnes : [])],
    leftOut,
    samples: groups.map((g): PrintSample => {
      const total = groupSpectrum(reading, g)?.values;
      const dull = apart ? dullOf(g) : undefined;
      return {
        device: g.device!,
        id: g.members[0]!.id,
        lab: g.lab,
        reflected: dull ?? total,
        luminous: dull && total!.map((v, b) => v - dull[b]!),
        weight: Math.min(g.count, MAX_WEIGHT),
        members: g.members,
        repeats: g.count > 1 ? g.members.map((m) => deltaE2000(m.lab, g.lab)) : [],
      };
    }),
  };
}

/**
 * Brightener is separated where every patch was read without UV, or so many that the others can be spared: a further
 * chart in M1 alone must not cost what M1 and M2 of one chart show together (our own choice of how many).
 */
const ENOUGH_COVERED = { share: 0.5, patches: 200 } as const;
function coversEnough(covered: readonly PatchGroup[], all: readonly PatchGroup[]): boolean {
  if (covered.length === all.length) return all.length > 0;
  const holdsPaper = covered.some((g) => g.device!.every((v) => v === (g.device!.length === 4 ? 0 : 1)));
  return holdsPaper && covered.length >= Math.max(ENOUGH_COVERED.patches, ENOUGH_COVERED.share * all.length);
}

/** Readings some of whose patches are not used, since they were not read without UV. */
function uncovered(joined: readonly Reading[], withoutUv: ReadonlyMap<string, unknown>): LeftOutReading[] {
  return joined.flatMap((reading) => {
    const own = groupPatches(reading).filter((g) => g.device);
    const missing = own.filter((g) => !withoutUv.has(keyOf(g.device!))).length;
    const why = `${missing} of its ${own.length} different patches were not read without UV (M2), so their brightener can’t be separated`;
    return missing > 0 ? [{ reading, why }] : [];
  });
}

const keyOf = (device: readonly number[]) => device.map((v) => Math.round(v * 10_000)).join();

function byDevice(reading: Reading): Map<string, readonly number[]> {
  return new Map(
    groupPatches(reading).flatMap((g: PatchGroup) => {
      const values = g.device && groupSpectrum(reading, g)?.values;
      return values ? [[keyOf(g.device), values] as const] : [];
    }),
  );
}

/** Readings of one condition as one: spectra stay only where all have them on one grid. */
function merged(readings: readonly Reading[]): Reading {
  const first = readings[0]!;
  if (readings.length < 2) return first;
  const spectral = readings.every((r) => sameGrid(r.spectralGrid, first.spectralGrid));
  const patches = readings.flatMap((r): PatchReading[] =>
    spectral ? [...r.patches] : r.patches.map(({ reflectance: _, ...rest }) => rest),
  );
  return { ...first, patches, spectralGrid: spectral ? first.spectralGrid : undefined };
}
