import type { Lab, Xyz } from '../colour/types.ts';
import type { PatchReading, Reading } from './reading.ts';

/** Patches that were driven by the same device values, averaged. */
export interface PatchGroup {
  readonly device?: readonly number[];
  readonly lab: Lab;
  readonly xyz: Xyz;
  /** How many readings stand behind the mean. */
  readonly count: number;
  readonly members: readonly PatchReading[];
}

/** Standard deviation of one reading of one patch, a channel each, from repeated patches. */
export interface Repeatability {
  readonly lab: Lab;
  /** Of Y in the darkest repeated patches, where density is made; in units of Y 0–100. */
  readonly darkY: number;
  readonly whiteY: number;
  /** Repeated readings less groups; undefined where nothing was repeated and an assumption stands in. */
  readonly degreesOfFreedom?: number;
}

/**
 * What stands in where a file has no repeated patch to tell it: 0.1 in each of L*, a*, b*; of Y, 0.01 near black and 0.15 near white. Our own
 * assumption, from no published source; every figure that rests on it says so.
 */
export const ASSUMED_REPEATABILITY: Repeatability = { lab: [0.1, 0.1, 0.1], darkY: 0.01, whiteY: 0.15 };

/** Patches grouped by device values; without device values each patch is its own group. */
export function groupPatches(reading: Reading): PatchGroup[] {
  const groups = new Map<string, PatchReading[]>();
  reading.patches.forEach((patch, i) => {
    const key = patch.device ? patch.device.map((v) => Math.round(v * 10_000)).join() : `#${i}`;
    const members = groups.get(key);
    if (members) members.push(patch);
    else groups.set(key, [patch]);
  });
  return [...groups.values()].map((members) => ({
    device: members[0].device,
    lab: mean3(members.map((m) => m.lab)),
    xyz: mean3(members.map((m) => m.xyz)),
    count: members.length,
    members,
  }));
}

/** Pooled standard deviation over all groups that were read more than once. */
export function repeatability(groups: readonly PatchGroup[]): Repeatability {
  const repeated = groups.filter((g) => g.count > 1);
  const degreesOfFreedom = repeated.reduce((sum, g) => sum + g.count - 1, 0);
  if (degreesOfFreedom < 3) return ASSUMED_REPEATABILITY;
  const pooled = (
    of: readonly PatchGroup[],
    value: (p: PatchReading) => number,
    centre: (g: PatchGroup) => number,
  ): number | undefined => {
    const freedom = of.reduce((sum, g) => sum + g.count - 1, 0);
    if (freedom < 1) return undefined;
    const squares = of.reduce((sum, g) => sum + g.members.reduce((s, m) => s + (value(m) - centre(g)) ** 2, 0), 0);
    return Math.sqrt(squares / freedom);
  };
  const channel = (c: 0 | 1 | 2) =>
    pooled(
      repeated,
      (p) => p.lab[c],
      (g) => g.lab[c],
    )!;
  const Y = (of: readonly PatchGroup[]) =>
    pooled(
      of,
      (p) => p.xyz[1],
      (g) => g.xyz[1],
    );
  return {
    lab: [channel(0), channel(1), channel(2)],
    darkY: Y(repeated.filter((g) => g.lab[0] < 35)) ?? ASSUMED_REPEATABILITY.darkY,
    whiteY: Y(repeated.filter((g) => g.lab[0] > 80)) ?? ASSUMED_REPEATABILITY.whiteY,
    degreesOfFreedom,
  };
}

function mean3(list: readonly (readonly [number, number, number])[]): [number, number, number] {
  if (list.length === 1) return [...list[0]] as [number, number, number];
  const sum = list.reduce((s, v) => [s[0] + v[0], s[1] + v[1], s[2] + v[2]], [0, 0, 0]);
  return [sum[0] / list.length, sum[1] / list.length, sum[2] / list.length];
}
