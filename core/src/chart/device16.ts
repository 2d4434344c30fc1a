import { mapThree } from '../colour/three.ts';
import type { Rgb } from '../colour/types.ts';

/** Device RGB as it stands in a 16-bit file, 0–65535 a channel. */
export type Rgb16 = readonly [r: number, g: number, b: number];

export const FULL_16 = 65_535;
export const WHITE_16: Rgb16 = [FULL_16, FULL_16, FULL_16];
export const BLACK_16: Rgb16 = [0, 0, 0];

/**
 * Nearest 16-bit value of a device colour 0–1; what a chart asks for is always one of these, so that file and
 * reference agree to the bit.
 */
export const toRgb16 = (rgb: Rgb): Rgb16 => mapThree(rgb, (v) => Math.round(Math.min(1, Math.max(0, v)) * FULL_16));
export const fromRgb16 = (rgb: Rgb16): Rgb => mapThree(rgb, (v) => v / FULL_16);
