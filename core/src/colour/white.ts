import type { Xyz } from './types.ts';

/** White of the ICC profile connection space (ICC.1, 7.2.16): D50 rounded. Y = 100. */
export const WHITE_ICC: Xyz = [96.42, 100, 82.49];

/** D65, 2°, as published in CIE 15 (1 nm summation). */
export const WHITE_D65: Xyz = [95.05, 100, 108.88];
