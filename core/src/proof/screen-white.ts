import { bradford } from '../colour/adaptation.ts';
import { apply, multiply, type Matrix3 } from '../colour/matrix.ts';
import { linearOfPcs, type RgbSpace } from '../colour/rgb-space.ts';
import type { Xyz } from '../colour/types.ts';
import { WHITE_ICC } from '../colour/white.ts';

/** Chromaticity, CIE 1931. */
export interface Xy {
  readonly x: number;
  readonly y: number;
}

/** Whites a screen is usually set to (CIE 15, table of standard illuminants, 2° observer). */
export const SCREEN_WHITES = {
  D65: { x: 0.3127, y: 0.329 },
  D50: { x: 0.3457, y: 0.3585 },
} as const satisfies Record<string, Xy>;

/** A chromaticity that a white may have: far from the locus of lamps nothing is one. */
export const isWhite = ({ x, y }: Xy): boolean => x > 0.2 && x < 0.55 && y > 0.2 && y < 0.5;

const xyzOf = ({ x, y }: Xy): Xyz => [(100 * x) / y, 100, (100 * (1 - x - y)) / y];

/** A print held beside a screen by an eye that has settled on the screen: its light as it is, not as the eye would settle in it. */
export interface BesideScreen {
  /** X, Y, Z (D50, a perfect white 1) to linear light of the screen, before `fit`. */
  readonly matrix: Matrix3;
  /** By how much all of it is multiplied so that a perfect white in that light is no brighter than the screen; 0–1. */
  readonly fit: number;
  /** The lamp’s own colour can’t be shown: how far a channel lies below nothing. */
  readonly beyond: boolean;
}

/**
 * Colours are taken from D50 back to the lamp they are seen in, and from there to the screen’s white, to which the
 * browser fits all it draws.
 * @param screen the white the screen is set to
 * @param lamp XYZ of a perfect white in that light
 * @throws RangeError where the screen’s white is none
 */
export function besideScreen(space: RgbSpace, screen: Xy, lamp: Xyz): BesideScreen {
  if (!isWhite(screen)) throw new RangeError('That is not the chromaticity of a white.');
  const toLamp = bradford(WHITE_ICC, lamp);
  const fromScreen = bradford(xyzOf(screen), WHITE_ICC);
  const matrix = multiply(linearOfPcs(space), multiply(fromScreen, toLamp));
  const white = apply(matrix, WHITE_ICC);
  const most = Math.max(...white);
  return { matrix, fit: Math.min(1, 1 / most), beyond: Math.min(...white) < -0.001 };
}
