import type { EstimatedWhite } from '../characterisation/packed.ts';
import type { Lab } from '../colour/types.ts';
import type { ColourLattice } from '../characterisation/lattice.ts';
import type { TAKES } from '../measurement/observations.ts';
import type { FeedKey } from '../print/feed.ts';
import type { Base, CoatingClass, Surface } from '../paper.ts';

/** A size a paper is sold in. Of a roll the width does not turn. */
export interface SheetSize {
  readonly widthMm: number;
  /** Length of a roll. */
  readonly heightMm: number;
  readonly roll: boolean;
}

/** What a match needs to know of a print condition besides its colours; figures as measured, absent where they were not. */
export interface SheetQualities {
  readonly id: string;
  /** Paper it is a condition of. */
  readonly paperId: string;
  /** Absent where nobody said what kind of sheet it is. */
  readonly coating?: CoatingClass;
  readonly surface?: Surface;
  readonly base?: Base;
  readonly weightGsm?: number;
  /** The weight is its maker's word and was not measured. */
  readonly weightClaimed?: boolean;
  /** Standard deviation of L* in a raking-light scan. */
  readonly textureL?: number;
  /** Gloss units at 60°. */
  readonly gloss60?: number;
  readonly glossDifferential?: number;
  /** Graded 0–4. */
  readonly bronzing?: number;
  /** Graded 0–4: the finest hairline of the test page that stands sharp. */
  readonly hairlines?: number;
  /** Largest departure of a grey’s L* from even steps, as read. */
  readonly linearity?: number;
  /** Greatest C* of the greys off the line from white to black. */
  readonly greysOff?: number;
  /** Greatest turn of a grey between lights, ΔE00. */
  readonly metamerism?: number;
  /** The driver's own black-and-white mode: it prints no colour. */
  readonly monochrome?: boolean;
  /** Δb* of the brightener, as measured, or as estimated from one spectrum. */
  readonly brightenerShift?: number;
  /** Set where that is estimated: nine times in ten it lies between these. */
  readonly brightenerBetween?: readonly [low: number, high: number];
  /** M0, M1… of the readings behind it. */
  readonly measurementCondition?: string;
  /** Its figures are told by a profile and were not measured. */
  readonly told?: boolean;
  /** Read before the print had dried. */
  readonly wet?: boolean;
  /** Seen as if it had no brightener in the light it will hang in: it was not read both with and without UV. */
  readonly brightenerUnknown?: boolean;
  /** Set where its brightener is estimated, and bears on how its white is seen there. */
  readonly estimatedWhite?: EstimatedWhite;
  /** Mean ΔE00 by which its model may be off. */
  readonly modelError?: number;
  /** Sizes it is sold in; absent where they are not known. */
  readonly sizes?: readonly SheetSize[];
  /** How its printer takes it, by path; absent where nobody said. */
  readonly feeding?: Readonly<Partial<Record<FeedKey, keyof typeof TAKES>>>;
  /** Minutes a print of it took at the printer, as timed. */
  readonly minutesEach?: number;
  /** Price of the paper a square metre, where it is known, in the currency of its price list (ISO 4217). */
  readonly pricePerM2?: number;
  readonly currency?: string;
}

/** A rendering laid on a sheet: what comes out for every colour of a file. Relative to the sheet's white. */
export interface PrintedSheet {
  /** Lab of the file → Lab as printed. */
  readonly lattice: ColourLattice;
  /** The sheet's white as it was read or is seen. */
  readonly white: Lab;
  /** L* of its black, relative to the white. */
  readonly blackL: number;
  /** Set where it is seen in a light that bears on its brightener, and that is estimated. */
  readonly estimatedWhite?: EstimatedWhite;
}

/** A sheet made ready for pictures: as an instrument reads it, and as it is seen where it will hang. */
export interface LaidSheet {
  readonly bare: PrintedSheet;
  readonly seen: PrintedSheet;
}
