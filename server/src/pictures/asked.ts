import { USUAL_COMMISSION, type Commission } from '@rakuen/core/match/commission';
import type { Hint } from '@rakuen/core/picture/hints';
import type { Mark } from '@rakuen/core/picture/marks';
import type { PictureFigures } from '@rakuen/core/picture/tally';

/** What is known of a picture, and what was said of it: `null` where nobody did. */
export interface PictureKnown {
  readonly figures: PictureFigures;
  readonly commission: Commission | null;
  readonly marks: readonly Mark[] | null;
  readonly hints: readonly Hint[] | null;
}

/** Sides of a picture’s file. */
export interface PictureSides {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** The same as the database keeps it, in JSON. */
export type PictureJson = { readonly [K in keyof PictureKnown]: null extends PictureKnown[K] ? string | null : string };

/** What a picture asks for: as it was said, else as it was found, else the usual. */
export const askedOfKnown = ({ figures, commission, marks, hints }: PictureKnown) => ({
  figures,
  commission: commission ?? { ...USUAL_COMMISSION, vetoes: [] },
  marks: marks ?? [...(figures.structure?.marks ?? [])],
  hints: hints ?? (figures.structure?.hints ?? []).map((h) => h.hint),
});

const parsed = <T>(json: string | null): T | null => (json === null ? null : (JSON.parse(json) as T));

/** @param json columns of a picture's row */
export const askedOf = (json: PictureJson) =>
  askedOfKnown({
    figures: JSON.parse(json.figures) as PictureFigures,
    commission: parsed(json.commission),
    marks: parsed(json.marks),
    hints: parsed(json.hints),
  });
