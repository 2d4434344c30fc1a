import { RECIPE_PARTS, type RecipeKey } from '@rakuen/core/proof/recipe';
import type { Recognised } from '@rakuen/core/proof/mistakes';
import { Id, Int, Maybe, Num, NumberText, OneOf, Parts, Plain, QueryInt, Rows, Text, When } from './fields.ts';

/** Parts that can climb: strips are not sharpened, steps of it would be alike. */
export const STRIP_PARTS = (Object.keys(RECIPE_PARTS) as RecipeKey[]).filter((key) => key !== 'sharpening');

/** Strips of a picture for a sheet: from its marked places, in steps of a part of the recipe. */
export class StripsQuery {
  @Id() conditionId!: string;
  /** Which part climbs; the lift where absent. */
  @Maybe() @OneOf(STRIP_PARTS) part?: RecipeKey;
  /** Values of the steps, with commas between; none, a quarter and half a stop (practice) where absent. */
  @Maybe() @Text(80) steps?: string;
  /** Numbers of the marked places, from 1, with commas between; all where absent. */
  @Maybe() @Text(80) places?: string;
  /** Crop, mm. */
  @Maybe() @NumberText(10, 500) cropWidth?: number;
  @Maybe() @NumberText(10, 500) cropHeight?: number;
  /** Crops as large as the fewest sheets allow, in place of a size; the sheet is turned where they are larger then. */
  @Maybe() @OneOf(['sheet']) fit?: 'sheet';
  /** The small sheet, mm. */
  @Maybe() @NumberText(50, 1000) sheetWidth?: number;
  @Maybe() @NumberText(50, 1000) sheetHeight?: number;
  /** What the printer can’t print on along every edge, mm. */
  @Maybe() @NumberText(0, 50) margin?: number;
  @Maybe() @QueryInt(36, 720) ppi?: number;
  /** Which of the sheets, from 0. */
  @Maybe() @QueryInt(0, 100) page?: number;
}

export class StripsView {
  @Int() sheets!: number;
  /** On each sheet: the places, and how many steps each has. */
  @Rows() on!: { readonly places: readonly string[]; readonly crops: number }[];
  /** Places whose ladder is wider than the sheet. */
  @Rows() lacking!: string[];
  /** The crops, and the sheet as it is turned, mm. */
  @Plain() cropMm!: { readonly width: number; readonly height: number };
  @Plain() sheetMm!: { readonly width: number; readonly height: number };
  /** Share of the sheets that is printed on, 0–1. */
  @Rows() used!: number[];
}

/** A scan of a small sheet of strips: which sheet it is, and the card that lay beside it. */
export class ScanFields extends StripsQuery {
  /** The card’s chart, and the readings it was given. */
  @Id() chartId!: string;
  @Id() readingId!: string;
}

/** A print as it was scanned, against its proof. */
export class ScanView {
  /** ΔE00 by which the scanner is known, in the mean and of nineteen in twenty, from so many patches of the card. */
  @Plain() scanner!: { readonly errorDeltaE: number; readonly p95DeltaE: number; readonly patches: number };
  /** Even places that were held against the proof. */
  @Int() samples!: number;
  @Num(0) meanDeltaE!: number;
  @Num(0) p95DeltaE!: number;
  @Plain() recognised!: Recognised;
  /** How kinds of colours came out, beyond what the scanner is unsure of. */
  @Rows() off!: string[];
  /** ΔE00 by tile of the sheet: a digit each, 9 and above as 9; a point where nothing was printed. */
  @Plain() map!: { readonly columns: number; readonly rows: number; readonly deltaE: string };
}

/** Readings that may be of the card. */
export class CardReading {
  @Id() readingId!: string;
  @Text() fileName!: string;
  @When() importedAt!: string;
  @Text() paper!: string;
  @Maybe() @Text(8) measurementCondition?: string;
}

/** The card that lies beside a print on a flatbed, and how it was read; absent until it was laid out. */
export class CardView {
  @Maybe() @Id() chartId?: string;
  @Parts(() => CardReading) readings!: CardReading[];
}
