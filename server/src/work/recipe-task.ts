import { allColours, gistColours } from '@rakuen/core/match/palette';
import type { MatchFigures } from '@rakuen/core/match/on-sheet';
import type { Question } from '@rakuen/core/match/judge';
import type { Weights } from '@rakuen/core/match/schools';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import { gistOf } from '@rakuen/core/picture/gist';
import { markName, type Mark } from '@rakuen/core/picture/marks';
import { bestRecipe, recipeChange, SEARCHED_PARTS, type WeighedRecipe } from '@rakuen/core/proof/best-recipe';
import type { Recipe } from '@rakuen/core/proof/recipe';
import { recipeOnSheet } from '@rakuen/core/proof/recipe-on-sheet';
import type { BestRecipeView } from '@rakuen/contract/recipes';
import { unpackReady, type PackedReady } from './lay-tasks.ts';

/** The least change that serves a picture on a sheet where it hangs. @param task L*, a*, b* and share of each colour. @returns null where the sheet is refused */
export function suggestRecipe(task: {
  cells: Float32Array;
  marks: readonly Mark[];
  question: Question;
  sheet: SheetQualities;
  ready: PackedReady;
  weights?: Weights;
}): BestRecipeView | null {
  const { cells, ready, ...rest } = task;
  const best = bestRecipe({
    ...rest,
    picture: gistColours(gistOf({ count: cells.length / 4, data: cells })),
    ready: unpackReady(ready),
  });
  if (!best) return null;
  const { recipe, before, after } = best;
  return {
    parts: Object.fromEntries(SEARCHED_PARTS.filter((key) => recipe[key] !== 0).map((key) => [key, recipe[key]])),
    before: figuresOf(before, rest.marks),
    after: figuresOf(after, rest.marks),
  };
}

/** What recipes make of a picture, each on its sheet. @param task as for `suggestRecipe` */
export function matchRecipes(task: {
  cells: Float32Array;
  marks: readonly Mark[];
  question: Question;
  printed: readonly { readonly recipe: Recipe; readonly ready: PackedReady }[];
}): MatchFigures[] {
  const { cells, marks, question } = task;
  const picture = allColours({ count: cells.length / 4, data: cells });
  return task.printed.map(({ recipe, ready }) => ({
    ...recipeOnSheet({ picture, marks, ready: unpackReady(ready) }, recipe),
    recipeDeltaE: recipeChange({ picture, question }, recipe),
  }));
}

const figuresOf = (
  { score, changeDeltaE, figures }: WeighedRecipe,
  marks: readonly Mark[],
): BestRecipeView['before'] => ({
  score,
  changeDeltaE,
  shadowStepsKept: figures.shadowStepsKept,
  stepsKept: figures.stepsKept,
  chromaKept: figures.chromaKept,
  outsideShare: figures.outsideShare,
  marks: figures.marks.map(({ kind, stepsKept }, i) => ({ kind, name: markName(marks[i]), stepsKept })),
});
