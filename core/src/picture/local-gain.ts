import { TONE_BOUNDS_L, type ContrastScale } from './structure.ts';

/**
 * The two scales on paper at which a recipe turns contrast, mm: what a nose at the glass sees, and what is seen from
 * where the frame ends.
 */
export const LOCAL_SCALES_MM = { localFine: 2, localBroad: 12 } as const;

/** Local contrast of a recipe at both scales, −0.5 to 1. */
export type LocalTurns = Readonly<Record<keyof typeof LOCAL_SCALES_MM, number>>;

/** Steps of lightness beyond this are edges, and local contrast leaves them, L* (as `local-contrast.ts` has it). */
const EDGE_L = 6;

/**
 * By how much local contrast widens what a picture has at a size on paper: all that is smaller than either scale, except
 * edges, and the less the nearer a tone is to black or white.
 */
export function localGain(
  { localFine, localBroad }: LocalTurns,
  mm: number,
  { sdL, byTone }: Pick<ContrastScale, 'sdL' | 'byTone'>,
): number {
  const smaller = (scaleMm: number) => 1 / (1 + (mm / scaleMm) ** 2);
  const noEdge = EDGE_L ** 2 / (sdL ** 2 + EDGE_L ** 2);
  const middle = byTone
    ? byTone.reduce((sum, share, i) => {
        const t = (TONE_BOUNDS_L[i]! + TONE_BOUNDS_L[i + 1]!) / 200;
        return sum + share * 4 * t * (1 - t);
      }, 0)
    : 1;
  const given = localFine * smaller(LOCAL_SCALES_MM.localFine) + localBroad * smaller(LOCAL_SCALES_MM.localBroad);
  return 1 + given * noEdge * middle;
}
