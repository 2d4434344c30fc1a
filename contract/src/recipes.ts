import { RENDERING_KEYS, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { BORDER_STYLES, type BorderStyle } from '@rakuen/core/layout/borders';
import { MOST_BORDER_MM, RECIPE_PARTS, type Recipe } from '@rakuen/core/proof/recipe';
import type { MarkKind } from '@rakuen/core/picture/marks';
import type { Suggestion } from '@rakuen/core/proof/suggest';
import { FreeText, Id, Int, Maybe, Num, OneOf, Part, Plain, Rows, Text, When, Yes } from './fields.ts';

const P = RECIPE_PARTS;

/** What is done to a picture for its print. */
export class RecipeValues implements Recipe {
  @Num(P.liftStops.least, P.liftStops.most) liftStops!: number;
  @Num(P.contrast.least, P.contrast.most) contrast!: number;
  @Num(P.shadows.least, P.shadows.most) shadows!: number;
  /** Absent in recipes of before they could be turned: as it is. */
  @Maybe() @Num(P.lights.least, P.lights.most) lights: number = 0;
  @Maybe() @Num(P.localFine.least, P.localFine.most) localFine: number = 0;
  @Maybe() @Num(P.localBroad.least, P.localBroad.most) localBroad: number = 0;
  @Num(P.saturation.least, P.saturation.most) saturation!: number;
  @Num(P.sharpening.least, P.sharpening.most) sharpening!: number;
  /** Radius of sharpening on paper. */
  @Num(0.01, 5) radiusMm!: number;
  @Maybe() @OneOf(RENDERING_KEYS) rendering: RenderingKey = 'relative';
  /** Bare paper around it, and how it lies. */
  @Maybe() @Num(0, MOST_BORDER_MM) borderMm: number = 0;
  @Maybe() @OneOf(Object.keys(BORDER_STYLES)) borders: BorderStyle = 'equal';
  /** A line under the picture. */
  @Maybe() @FreeText(200) caption: string = '';
  @Maybe() @Yes() trimMarks: boolean = false;
}

/** A recipe of a picture on a sheet; the one without a name is the one that is worked at. */
export class RecipeInput {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  @FreeText(80) name!: string;
  @Part(() => RecipeValues) values!: RecipeValues;
}

export class RecipeView extends RecipeInput {
  @Id() id!: string;
  @When() changedAt!: string;
  @Int() revision!: number;
}

export class RecipesQuery {
  @Id() pictureId!: string;
}

export class SuggestQuery {
  @Id() conditionId!: string;
  @Maybe() @Text(10) ppi?: string;
}

/** What a recipe does to a picture on a sheet where it hangs. */
export interface RecipeFigures {
  /** Of the match, with what the change itself takes; 0–10. */
  readonly score: number;
  /** Mean ΔE00 between the picture and what the recipe makes of it. */
  readonly changeDeltaE: number;
  /** Shares, 0–1. */
  readonly shadowStepsKept: number;
  readonly stepsKept: number;
  readonly chromaKept: number;
  readonly outsideShare: number;
  readonly marks: readonly { readonly kind: MarkKind; readonly name: string; readonly stepsKept: number }[];
}

/** The least change that serves a picture on a sheet. */
export interface BestRecipeView {
  /** Parts that are not as they are; none: nothing to change. */
  readonly parts: Partial<Recipe>;
  readonly before: RecipeFigures;
  readonly after: RecipeFigures;
}

export class SuggestView {
  /** Absent where the sheet is refused for this picture, or not known in that light. */
  @Maybe() @Plain() best?: BestRecipeView;
  /** For the room and the size, by practice. */
  @Rows() suggestions!: Suggestion[];
}
