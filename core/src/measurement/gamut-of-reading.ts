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
  const onEdge = groups.flatMap((g) => (g.device && g.device[1] === 0 && g.device[2] === 0 ? [g.device[0]] : []));
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
  return { mesh: modifiedHull(groups.map((g) => g.lab)), method: 'modified hull' };
}
