import { ADOBE_RGB_1998, rgbToLab, ROMM_RGB, SRGB, type RgbSpace } from '../colour/rgb-space.ts';
import { deviceSurface } from './device-surface.ts';
import type { GamutMesh } from './mesh.ts';

/** Working spaces that can be laid beside a print's gamut. */
export const WORKING_SPACES = { srgb: SRGB, 'adobe-rgb': ADOBE_RGB_1998, romm: ROMM_RGB } as const satisfies Record<
  string,
  RgbSpace
>;
export type WorkingSpace = keyof typeof WORKING_SPACES;

const LEVELS = Array.from({ length: 17 }, (_, i) => i / 16);

/** Boundary of a working space in CIELAB, D50. */
export function spaceSolid(space: RgbSpace, levels: readonly number[] = LEVELS): GamutMesh {
  return deviceSurface(levels, (rgb) => rgbToLab(space, rgb))!;
}
