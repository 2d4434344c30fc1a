import type { Lab } from '../colour/types.ts';
import type { GamutMesh } from './mesh.ts';
import { sliceAtHue, sliceAtLightness } from './slices.ts';

/** Lightnesses and hues a solid is drawn by, as a map is by its heights and meridians. */
export const CONTOUR_LS = [10, 20, 30, 40, 50, 60, 70, 80, 90] as const;
export const CONTOUR_HUES = Array.from({ length: 12 }, (_, i) => i * 30);

/** A line on a solid: pieces from one Lab to another. */
export interface Contour {
  /** L*, or the hue angle in degrees. */
  readonly at: number;
  readonly pieces: readonly (readonly [Lab, Lab])[];
}

export const lightnessContours = (mesh: GamutMesh): Contour[] =>
  CONTOUR_LS.map((L) => ({
    at: L,
    pieces: sliceAtLightness(mesh, L).map(([a0, b0, a1, b1]) => [
      [L, a0, b0],
      [L, a1, b1],
    ]),
  }));

export const hueContours = (mesh: GamutMesh): Contour[] =>
  CONTOUR_HUES.map((hue) => {
    const [cos, sin] = [Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)];
    const lab = (C: number, L: number): Lab => [L, C * cos, C * sin];
    return { at: hue, pieces: sliceAtHue(mesh, hue).map(([C0, L0, C1, L1]) => [lab(C0, L0), lab(C1, L1)]) };
  });

/** Where a line lies furthest out at a hue; undefined where it is not there. */
export function outermost({ pieces }: Contour, hueDegrees: number): Lab | undefined {
  const [cos, sin] = [Math.cos((hueDegrees * Math.PI) / 180), Math.sin((hueDegrees * Math.PI) / 180)];
  const out = ([, a, b]: Lab) => a * cos + b * sin;
  return pieces
    .flat()
    .reduce<Lab | undefined>((far, p) => (far === undefined || out(p) > out(far) ? p : far), undefined);
}
