import type { Question } from '../match/judge.ts';
import { CHANGE } from '../match/leanings/recipe-change.ts';
import { rankSheets, scoreOf } from '../match/rank.ts';
import type { Weights } from '../match/schools.ts';
import type { SheetQualities } from '../match/sheet.ts';
import type { MatchFigures } from '../match/on-sheet.ts';
import { PLAIN, type Recipe } from './recipe.ts';
import { localGain } from '../picture/local-gain.ts';
import { changeOf, recipeOnSheet, type Tried } from './recipe-on-sheet.ts';

/** Parts of a recipe that are searched, and how far: beyond it a hand decides (our own bounds). */
const SEARCHED = {
  shadows: [0, 0.8],
  lights: [0, 0.5],
  contrast: [-0.5, 0.5],
  localFine: [0, 0.4],
  localBroad: [0, 0.4],
  saturation: [-0.3, 0.3],
} as const satisfies Partial<Record<keyof Recipe, readonly [number, number]>>;
export type SearchedPart = keyof typeof SEARCHED;
export const SEARCHED_PARTS = Object.keys(SEARCHED) as SearchedPart[];

/** A mark of which less than this is left is hard to part from what lies about it; what all of them lost take (our own start). */
const MARK_KEPT = 0.5;
const MARKS_LOST = 0.6;
/** A marked light keeps so much of the steps it has: flattened further it would clip (our own bound). */
const LIGHT_KEPT = 0.9;
/** A part that gains less is left out. */
const WORTH = 0.02;
/** Steps of the search, one after another. */
const STEPS = [0.2, 0.1, 0.05, 0.02, 0.01, 0.005] as const;

export interface Printing extends Tried {
  readonly question: Question;
  readonly sheet: SheetQualities;
  readonly weights?: Weights;
}

/** A recipe as it is weighed. */
export interface WeighedRecipe {
  readonly figures: MatchFigures;
  /** Of the match, with what the change itself takes; 0–10. */
  readonly score: number;
  /** Mean ΔE00 between the picture and what the recipe makes of it. */
  readonly changeDeltaE: number;
  /** What is made least: the cost of the match, the change, and marked places that run together. */
  readonly cost: number;
}

/** @returns undefined where the sheet is refused */
export function weighRecipe(printing: Printing, recipe: Recipe): WeighedRecipe | undefined {
  const { question, sheet, weights } = printing;
  const figures = recipeOnSheet(printing, recipe);
  const [place] = rankSheets({ ...question, weights }, [{ sheet, figures }]).places;
  if (!place) return undefined;
  const changeDeltaE = recipeChange(printing, recipe);
  const matched = place.cost + CHANGE * changeDeltaE;
  const lost = figures.marks.map((m) => Math.max(0, 1 - m.stepsKept / MARK_KEPT));
  const marks = lost.length > 0 ? (MARKS_LOST * lost.reduce((s, v) => s + v, 0)) / lost.length : 0;
  return { figures, score: scoreOf(matched), changeDeltaE, cost: matched + marks };
}

/** Mean ΔE00 between a picture and what a recipe makes of it, its local contrast included. */
export const recipeChange = ({ picture, question }: Pick<Printing, 'picture' | 'question'>, recipe: Recipe): number =>
  changeOf(picture.colours, recipe) + localChange(question, recipe);

/** Mean change of local contrast, L*: of each scale what it is widened by; √(2/π) of a deviation is its mean. */
function localChange({ picture, commission }: Question, recipe: Recipe): number {
  if (recipe.localFine === 0 && recipe.localBroad === 0) return 0;
  const squares = (picture.structure?.scales ?? []).map(
    (s) => (s.sdL * (localGain(recipe, s.size * commission.longSideMm, s) - 1)) ** 2,
  );
  return Math.sqrt(2 / Math.PI) * Math.sqrt(squares.reduce((s, v) => s + v, 0));
}

export interface BestRecipe {
  /** Only what is searched; `PLAIN` elsewhere. All 0: nothing to change. */
  readonly recipe: Recipe;
  readonly before: WeighedRecipe;
  readonly after: WeighedRecipe;
}

/**
 * The least change that serves a picture on a sheet where it hangs: what all together takes least, found part by part.
 * Applying it never lowers the score; a tenth less of it, or of a part of it, never takes less. @returns undefined where
 * the sheet is refused
 */
export function bestRecipe(printing: Printing): BestRecipe | undefined {
  const before = weighRecipe(printing, PLAIN);
  if (!before) return undefined;
  const known = new Map<string, number>();
  const costOf = (recipe: Recipe): number => {
    const key = SEARCHED_PARTS.map((k) => recipe[k].toFixed(4)).join();
    const cost = known.get(key) ?? allowedCost(weighRecipe(printing, recipe)!, before);
    known.set(key, cost);
    return cost;
  };
  const found = shrunk(sparse(searched(PLAIN, costOf), costOf), costOf);
  return { recipe: found, before, after: weighRecipe(printing, found)! };
}

/** Infinite where a recipe lowers the score, or takes from a marked place what it has. */
function allowedCost(of: WeighedRecipe, before: WeighedRecipe): number {
  const clipped = of.figures.marks.some((m, i) => {
    const was = before.figures.marks[i]!.stepsKept;
    return m.stepsKept < (m.kind === 'light' ? LIGHT_KEPT * was : Math.min(was, MARK_KEPT) - 1e-6);
  });
  return clipped || of.score < before.score - 1e-9 ? Infinity : of.cost;
}

const rounded = (v: number) => Math.round(v * 1000) / 1000;

function searched(from: Recipe, costOf: (recipe: Recipe) => number): Recipe {
  let best = from;
  let least = costOf(best);
  for (const step of STEPS) {
    for (let moved = true; moved;) {
      moved = false;
      for (const key of SEARCHED_PARTS)
        for (const sign of [1, -1]) {
          const [low, high] = SEARCHED[key];
          const next = { ...best, [key]: rounded(Math.min(high, Math.max(low, best[key] + sign * step))) };
          const cost = costOf(next);
          if (cost >= least - 1e-9) continue;
          [best, least, moved] = [next, cost, true];
        }
    }
  }
  return best;
}

/** Parts that gain next to nothing are left out, and the others found again. */
function sparse(recipe: Recipe, costOf: (recipe: Recipe) => number): Recipe {
  let best = recipe;
  for (const key of SEARCHED_PARTS) {
    if (best[key] === 0) continue;
    const without = { ...best, [key]: 0 };
    if (costOf(without) <= costOf(best) + WORTH) best = without;
  }
  return best;
}

/** As long as a tenth less, of all or of one part, takes less, it is less. */
function shrunk(recipe: Recipe, costOf: (recipe: Recipe) => number): Recipe {
  let best = recipe;
  const tenthLess = (keys: readonly SearchedPart[]): Recipe => ({
    ...best,
    ...Object.fromEntries(keys.map((k) => [k, rounded(best[k] * 0.9)])),
  });
  for (let i = 0; i < 200; i++) {
    const next = [SEARCHED_PARTS, ...SEARCHED_PARTS.map((k) => [k])]
      .map(tenthLess)
      .find((less) => costOf(less) < costOf(best) - 1e-9);
    if (!next) return best;
    best = next;
  }
  return best;
}
