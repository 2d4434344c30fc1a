import type { Lab } from '../colour/types.ts';
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
/** The same of a hull: its facets shrink as its points grow in number, and two thirds of them fall short half as much again as all. */
const OF_TWO_THIRDS = 2;
/** Colours no chart leaves out are not left out here either: the strongest of each twelfth of the hue circle, the lightest, the darkest. */
const SECTORS = 12;
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
  const kept = new Set(extremes(groups.map((g) => g.lab)));
  const third = groups.map((g) => (kept.has(g.lab) ? -1 : Math.floor(uniform() * THIRDS)));
  const lost = Array.from({ length: THIRDS }, (_, out) => {
    const left = groups.filter((_g, i) => third[i] !== out).map((g) => g.lab);
    return whole - meshVolume(modifiedHull(left));
  });
  return Math.abs(lost.reduce((s, v) => s + v, 0) / THIRDS) * OF_TWO_THIRDS;
}

function extremes(labs: readonly Lab[]): Lab[] {
  const most = (of: (lab: Lab) => number, among = labs) => among.reduce((p, q) => (of(q) > of(p) ? q : p));
  const sectorOf = ([, a, b]: Lab) => Math.floor(((Math.atan2(b, a) / (2 * Math.PI) + 1) % 1) * SECTORS);
  const sectors = Array.from({ length: SECTORS }, (_, i) => labs.filter((lab) => sectorOf(lab) === i));
  return [
    most(([L]) => L),
    most(([L]) => -L),
    ...sectors.flatMap((s) => (s.length > 0 ? [most(([, a, b]) => Math.hypot(a, b), s)] : [])),
  ];
}
