import { deviceSurface } from '../gamut/device-surface.ts';
import { meshVolume } from '../gamut/mesh.ts';
import { modifiedHull } from '../gamut/modified-hull.ts';
import { seededRandom } from '../random.ts';
import { deviceKey, surfaceLevels, type ReadingGamut } from './gamut-of-reading.ts';
import type { PatchGroup } from './repeats.ts';

/** A net of flat facets falls short of a curved body with the square of its step: half the levels, four times the error. */
const OF_HALF_THE_LEVELS = 1 / 3;
/** Hulls of two thirds of the patches, each another third left out. */
const THIRDS = 3;
/** A hull of n points falls short of its body about as n^(−1/2); two thirds of the points fall short by that much more than all. */
const OF_TWO_THIRDS = 1 / (Math.sqrt(1.5) - 1);
const LEAST_PATCHES = 60;

/**
 * What a net of patches is too coarse to tell of a volume, cubic Lab units: the volume is taken again from fewer of the same patches, and
 * carried to none left out. 0 where too few were read to leave any out.
 */
export function netError(gamut: ReadingGamut, groups: readonly PatchGroup[]): number {
  const whole = meshVolume(gamut.mesh);
  if (gamut.method === 'device surface') {
    const levels = surfaceLevels(groups);
    if (levels.length < 5) return 0;
    const coarse = levels.filter((_, i) => i % 2 === 0 || i === levels.length - 1);
    const byDevice = new Map(groups.flatMap((g) => (g.device ? [[deviceKey(g.device), g.lab] as const] : [])));
    const mesh = deviceSurface(coarse, (rgb) => byDevice.get(deviceKey(rgb)));
    return mesh ? Math.abs(whole - meshVolume(mesh)) * OF_HALF_THE_LEVELS : 0;
  }
  if (groups.length < LEAST_PATCHES) return 0;
  const uniform = seededRandom(1);
  const third = groups.map(() => Math.floor(uniform() * THIRDS));
  const lost = Array.from({ length: THIRDS }, (_, out) => {
    const kept = groups.filter((_g, i) => third[i] !== out).map((g) => g.lab);
    return whole - meshVolume(modifiedHull(kept));
  });
  return Math.abs(lost.reduce((s, v) => s + v, 0) / THIRDS) * OF_TWO_THIRDS;
}
