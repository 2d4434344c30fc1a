import type { Lab, Xyz } from '../colour/types.ts';
import type { PatchReading, Reading } from './reading.ts';

/** Patches that were driven by the same device values, averaged. */
export interface PatchGroup {
  readonly device?: readonly number[];
  readonly lab: Lab;
  readonly xyz: Xyz;
  /** How many readings stand behind the mean; a copied row is no second reading. */
  readonly count: number;
  readonly members: readonly PatchReading[];
}

/** Noise of one reading of one patch at about one lightness. */
export interface NoiseBand {
  /** L* up to which it speaks. */
  readonly toL: number;
  /** Standard deviation of L*, a*, b*. */
  readonly lab: Lab;
}

/**
 * Standard deviation of one reading of one patch, from repeated patches, by lightness: an instrument is not as sure of
 * a black as of a white.
 */
export interface Repeatability {
  /** From dark to light; the last speaks to the top. */
  readonly bands: readonly NoiseBand[];
  /** Repeated readings less groups; undefined where too little was repeated and an assumption stands in. */
  readonly degreesOfFreedom?: number;
}

/**
 * What stands in where a file has no repeated patch to tell it: 0.1 in each of L*, a*, b*. Our own assumption, from no published source;
 * every figure that rests on it says so.
 */
export const ASSUMED_REPEATABILITY: Repeatability = { bands: [{ toL: Infinity, lab: [0.1, 0.1, 0.1] }] };

/** Bounds of the bands, L*: blacks, greys, whites (our own choice). */
const BAND_TO_L = [30, 80, Infinity] as const;
/** Fewer repeats than these tell no deviation. */
const LEAST_FREEDOM = 3;

/** Patches grouped by device values; without device values each patch is its own group. Rows alike to the last digit are one reading. */
export function groupPatches(reading: Reading): PatchGroup[] {
  const groups = new Map<string, PatchReading[]>();
  reading.patches.forEach((patch, i) => {
    const key = patch.device ? patch.device.map((v) => Math.round(v * 10_000)).join() : `#${i}`;
    const members = groups.get(key);
    if (!members) groups.set(key, [patch]);
    else if (!members.some((m) => isCopy(m, patch))) members.push(patch);
  });
  return [...groups.values()].map((members) => ({
    device: members[0]!.device,
    lab: mean3(members.map((m) => m.lab)),
    xyz: mean3(members.map((m) => m.xyz)),
    count: members.length,
    members,
  }));
}

const same = (p: readonly number[] | undefined, q: readonly number[] | undefined) =>
  p?.length === q?.length && (p ?? []).every((v, i) => v === q![i]);
/** No instrument gives the same digits twice in every column: such a row was copied, not read. */
const isCopy = (p: PatchReading, q: PatchReading) =>
  same(p.lab, q.lab) && same(p.xyz, q.xyz) && same(p.reflectance, q.reflectance);

const freedomOf = (groups: readonly PatchGroup[]) => groups.reduce((sum, g) => sum + g.count - 1, 0);

/** Pooled standard deviation over the groups that were read more than once, by band; a band with too few takes that of all. */
export function repeatability(groups: readonly PatchGroup[]): Repeatability {
  const repeated = groups.filter((g) => g.count > 1);
  const degreesOfFreedom = freedomOf(repeated);
  if (degreesOfFreedom < LEAST_FREEDOM) return ASSUMED_REPEATABILITY;
  const all = pooled(repeated);
  return {
    bands: BAND_TO_L.map((toL, i) => {
      const fromL = i === 0 ? -Infinity : BAND_TO_L[i - 1]!;
      const inBand = repeated.filter((g) => g.lab[0] >= fromL && g.lab[0] < toL);
      return { toL, lab: freedomOf(inBand) < LEAST_FREEDOM ? all : pooled(inBand) };
    }),
    degreesOfFreedom,
  };
}

function pooled(groups: readonly PatchGroup[]): Lab {
  const freedom = freedomOf(groups);
  const channel = (c: 0 | 1 | 2) =>
    Math.sqrt(
      groups.reduce((sum, g) => sum + g.members.reduce((s, m) => s + (m.lab[c] - g.lab[c]) ** 2, 0), 0) / freedom,
    );
  return [channel(0), channel(1), channel(2)];
}

/** Standard deviation of one reading at a lightness, a channel each. */
export function noiseAt({ bands }: Repeatability, L: number): Lab {
  return (bands.find((b) => L < b.toL) ?? bands[bands.length - 1]!).lab;
}

function mean3(list: readonly (readonly [number, number, number])[]): [number, number, number] {
  if (list.length === 1) return [...list[0]!] as [number, number, number];
  const sum = list.reduce((s, v) => [s[0] + v[0], s[1] + v[1], s[2] + v[2]], [0, 0, 0]);
  return [sum[0] / list.length, sum[1] / list.length, sum[2] / list.length];
}
