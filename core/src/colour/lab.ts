import type { Lab, Xyz } from './types.ts';
import { WHITE_ICC } from './white.ts';

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/** The function f of CIELAB (CIE 15): a cube root, and a straight line near black. */
export const labRoot = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
const inverse = (f: number): number => {
  const cube = f * f * f;
  return cube > EPSILON ? cube : (116 * f - 16) / KAPPA;
};

/** CIELAB of tristimulus values (CIE 15), relative to `white`, which is the ICC connection space's unless given. */
export function xyzToLab(xyz: Xyz, white: Xyz = WHITE_ICC): Lab {
  const fx = labRoot(xyz[0] / white[0]);
  const fy = labRoot(xyz[1] / white[1]);
  const fz = labRoot(xyz[2] / white[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

/** Tristimulus values of CIELAB, the inverse of {@link xyzToLab}. */
export function labToXyz(lab: Lab, white: Xyz = WHITE_ICC): Xyz {
  const fy = (lab[0] + 16) / 116;
  return [white[0] * inverse(fy + lab[1] / 500), white[1] * inverse(fy), white[2] * inverse(fy - lab[2] / 200)];
}

/** Chroma C*ab. */
export function chroma(lab: Lab): number {
  return Math.hypot(lab[1], lab[2]);
}

/** Hue angle h_ab in degrees, 0–360. */
export function hueDegrees(lab: Lab): number {
  const h = (Math.atan2(lab[2], lab[1]) * 180) / Math.PI;
  return h < 0 ? h + 360 : h;
}
