import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { deviceSurface } from '@rakuen/core/gamut/device-surface';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { modifiedHull } from '@rakuen/core/gamut/modified-hull';
import { labsOf, ProfileError, type OpenProfile } from './lcms.ts';

/** White, black and boundary of a device as its profile describes it. "From a profile" is a source of its own: nothing was measured. */
export interface ProfileGamut {
  readonly white: Lab;
  readonly black: Lab;
  /** Absent for grey profiles: they enclose no gamut. */
  readonly mesh?: GamutMesh;
  readonly method?: 'device surface' | 'modified hull';
}

const RGB_LEVELS = 33;
const CMYK_LEVELS = 9;

/** @throws ProfileError when a colour can't be computed */
export function profileGamut(profile: OpenProfile): ProfileGamut {
  if (profile.space === 'GRAY') {
    const [black, white] = labsOf(profile, [[0], [1]]);
    return { white, black };
  }
  if (profile.space === 'RGB') {
    const levels = Array.from({ length: RGB_LEVELS }, (_, i) => i / (RGB_LEVELS - 1));
    const asked: Rgb[] = [];
    deviceSurface(levels, (rgb) => (asked.push(rgb), [0, 0, 0]));
    const labs = new Map(labsOf(profile, asked).map((lab, i) => [asked[i].join(), lab]));
    const mesh = deviceSurface(levels, (rgb) => labs.get(rgb.join()));
    if (!mesh || mesh.vertices.some((v) => v.some((x) => !Number.isFinite(x))))
      throw new ProfileError('The profile gives no usable colours.');
    return { white: labs.get('1,1,1')!, black: darkest(mesh.vertices), mesh, method: 'device surface' };
  }
  const levels = Array.from({ length: CMYK_LEVELS }, (_, i) => i / (CMYK_LEVELS - 1));
  const inks: number[][] = [];
  // The boundary of a four-ink solid comes from colours with at least one ink missing or full; the rest lie inside.
  for (const c of levels)
    for (const m of levels)
      for (const y of levels)
        for (const k of levels) if ([c, m, y].some((v) => v === 0 || v === 1)) inks.push([c, m, y, k]);
  const labs = labsOf(profile, inks);
  if (labs.some((v) => v.some((x) => !Number.isFinite(x))))
    throw new ProfileError('The profile gives no usable colours.');
  return {
    white: labs[inks.findIndex((i) => i.every((v) => v === 0))],
    black: darkest(labs),
    mesh: modifiedHull(labs),
    method: 'modified hull',
  };
}

const darkest = (labs: readonly Lab[]): Lab => labs.reduce((d, lab) => (lab[0] < d[0] ? lab : d));
