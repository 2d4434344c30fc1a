import { RECIPE_PARTS, type RecipeKey } from '@rakuen/core/proof/recipe';
import { Id, Int, Maybe, NumberText, OneOf, QueryInt, Rows, Text } from './fields.ts';

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
  /** The small sheet, mm. */
  @Maybe() @NumberText(50, 1000) sheetWidth?: number;
  @Maybe() @NumberText(50, 1000) sheetHeight?: number;
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
  /** Share of the sheets that is printed on, 0–1. */
  @Rows() used!: number[];
}
