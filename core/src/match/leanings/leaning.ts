import { isMatt } from '../../paper.ts';
import type { PictureFigures } from '../../picture/tally.ts';
import type { MatchFigures } from '../match-figures.ts';
import type { SheetQualities } from '../sheet.ts';

/** All that a leaning may weigh. */
export interface Weighed {
  readonly picture: PictureFigures;
  readonly sheet: SheetQualities;
  readonly match: MatchFigures;
}

/** A figure a reason rests on. */
export interface ReasonFigure {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
}

/** One reason, as a sentence that holds its figures. */
export interface Reason {
  readonly leaning: string;
  readonly speaks: 'for' | 'against' | 'neither';
  readonly sentence: string;
  readonly figures: readonly ReasonFigure[];
  /** What it adds to the cost of the sheet, in ΔE00 over the whole picture; negative speaks for the sheet. */
  readonly cost: number;
}

/**
 * One leaning, declared: a question on which printmakers weigh differently. `judge` returns nothing where the leaning has nothing to
 * say of this picture on this sheet.
 */
export interface Leaning {
  readonly key: string;
  readonly name: string;
  /** What it holds, in a line; shown with its weight. */
  readonly holds: string;
  /** 1 as delivered; 0 switches it off. */
  readonly weight: number;
  readonly judge: (w: Weighed) => Omit<Reason, 'leaning'> | undefined;
}

export const onMatt = (w: Weighed): boolean => isMatt(w.sheet.coating);
