import { deviceSurface } from '../gamut/device-surface.ts';
import { GamutError } from '../gamut/errors.ts';
import { meshVolume, type GamutMesh } from '../gamut/mesh.ts';
import { modifiedHull } from '../gamut/modified-hull.ts';
import type { PatchGroup } from './repeats.ts';
import type { Reading } from './reading.ts';

export interface ReadingGamut {
  readonly mesh: GamutMesh;
  readonly method: 'device surface' | 'modified hull';
}

/** A surface that encloses less, cubic Lab units, is a line of greys with the readings' noise about it. */
const LEAST_VOLUME = 500;

/** Device values as one key. */
export const deviceKey = (device: readonly number[]) => device.map((v) => Math.round(v * 10_000)).join();

/** Device levels along the red edge of the cube, 0–1, rising: those its surface is netted in. */
export function surfaceLevels(groups: readonly PatchGroup[]): number[] {
  const onEdge = groups.flatMap((g) => (g.device && g.device[1] === 0 && g.device[2] === 0 ? [g.device[0]!] : []));
  return [...new Set(onEdge)].sort((x, y) => x - y);
}

/**
 * Gamut boundary of a reading: the device cube's surface where RGB patches cover it as a net, else the modified hull of all colours.
 * @throws GamutError when the colours enclose no volume
 */
export function gamutOfReading(reading: Reading, groups: readonly PatchGroup[]): ReadingGamut {
  if (reading.deviceSpace === 'RGB') {
    const byDevice = new Map(groups.flatMap((g) => (g.device ? [[deviceKey(g.device), g.lab] as const] : [])));
    const levels = surfaceLevels(groups);
    const complete = levels.length >= 3 && levels[0] === 0 && levels[levels.length - 1] === 1;
    const mesh = complete ? deviceSurface(levels, (rgb) => byDevice.get(deviceKey(rgb))) : undefined;
    if (mesh && Math.abs(meshVolume(mesh)) < LEAST_VOLUME)
      throw new GamutError('Printed in greys alone: its colours enclose no gamut.');
    if (mesh) return { mesh, method: 'device surface' };
  }
  if (!reachesCorners(reading, groups))
    throw new GamutError(
      'The corners of the gamut were not read: full reds, yellows, greens, cyans, blues and magentas.',
    );
  const mesh = modifiedHull(groups.map((g) => g.lab));
  if (Math.abs(meshVolume(mesh)) < LEAST_VOLUME)
    throw new GamutError('Printed in greys alone: its colours enclose no gamut.');
  return { mesh, method: 'modified hull' };
}

/** A patch counts as a corner this near to full device values (our own choice). */
const NEAR = 0.15;
/** Without device values: colours of some chroma in each twelfth but a few of the hue circle (our own choice). */
const HUES = { sectors: 12, least: 10, chroma: 15 };

/** Whether scattered patches reach the corners: without them the hull of what was read says nothing of what the sheet can hold. */
function reachesCorners({ deviceSpace }: Reading, groups: readonly PatchGroup[]): boolean {
  const devices = groups.flatMap((g) => (g.device ? [g.device] : []));
  if (deviceSpace && devices.length > 0) {
    return CORNERS.every((corner) => {
      // Inks are the complement of light; black ink has no place in a full colour.
      const wanted = deviceSpace === 'RGB' ? corner : [...corner.map((v) => 1 - v), 0];
      return devices.some((d) => d.every((v, i) => Math.abs(v - wanted[i]!) <= NEAR));
    });
  }
  const sectors = groups.flatMap(({ lab: [, a, b] }) =>
    Math.hypot(a, b) < HUES.chroma ? [] : [Math.floor(((Math.atan2(b, a) / (2 * Math.PI) + 1) % 1) * HUES.sectors)],
  );
  return new Set(sectors).size >= HUES.least;
}

/** The six full colours of the device cube. */
const CORNERS = [
  [1, 0, 0],
  [1, 1, 0],
  [0, 1, 0],
  [0, 1, 1],
  [0, 0, 1],
  [1, 0, 1],
] as const;
