import type { CoatingClass } from '../paper.ts';
import type { SheetQualities } from './sheet.ts';

/**
 * How far ink and surface spread an edge, mm: one standard deviation of a blurred edge. By kind of coating these are our
 * own estimates; they order the kinds as printmakers do (practice).
 */
const SPREAD_MM: Readonly<Record<CoatingClass, number>> = {
  gloss: 0.03,
  metallic: 0.03,
  lustre: 0.035,
  baryta: 0.035,
  matt: 0.05,
  cotton: 0.06,
  canvas: 0.1,
  uncoated: 0.12,
};
const UNKNOWN_MM = 0.05;

/** The same from the finest hairline of the test page that stands sharp, by its grade: about 0.4 of its width. */
const SPREAD_BY_GRADE_MM = [0.02, 0.04, 0.06, 0.08, 0.12] as const;

export interface SurfaceSpread {
  readonly mm: number;
  readonly from:
    'hairlines of the test page, judged' | 'its kind of coating, our own estimate' | 'no word on its coating';
}

/** How sharp a sheet draws: as judged on its test page, else by its kind. */
export function surfaceSpread({ hairlines, coating }: Pick<SheetQualities, 'hairlines' | 'coating'>): SurfaceSpread {
  if (hairlines !== undefined)
    return {
      mm: SPREAD_BY_GRADE_MM[Math.min(4, Math.max(0, Math.round(hairlines)))]!,
      from: 'hairlines of the test page, judged',
    };
  return coating
    ? { mm: SPREAD_MM[coating], from: 'its kind of coating, our own estimate' }
    : { mm: UNKNOWN_MM, from: 'no word on its coating' };
}

/** How much contrast of detail of a size is left once edges are spread: the Gaussian’s transfer at a period of that size. */
export const transferAt = (mm: number, spreadMm: number): number => Math.exp(-2 * ((Math.PI * spreadMm) / mm) ** 2);
