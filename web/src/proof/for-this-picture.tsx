import type { BestRecipeView } from '@rakuen/contract/recipes';
import { percent } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { RECIPE_PARTS, type RecipeKey } from '@rakuen/core/proof/recipe';
import { QuietButton } from '../parts/button.tsx';
import type { RecipeAtHand } from './use-recipe.ts';

/** Shares that differ by less are the same, and steps of a mark that do. */
const SAME = 0.005;
const SAME_MARK = 0.03;

/** The least change that serves this picture on this paper where it hangs, with what it gains and what it gives up. */
export function ForThisPicture({ best, at }: { best: BestRecipeView; at: RecipeAtHand }) {
  const parts = Object.entries(best.parts) as [RecipeKey, number][];
  const score = (v: number) => formatNumber(v, 1);
  if (parts.length === 0)
    return (
      <p className="mt-2 text-[13px]" data-testid="suggested-recipe">
        <span className="font-semibold">Nothing to change for this picture on this paper.</span>{' '}
        <span className="text-quiet">No change gains more than it costs. Score {score(best.before.score)} of 10.</span>
      </p>
    );
  const applied = parts.every(([key, value]) => at.recipe[key] === value);
  const { gained, given } = exchanged(best);
  return (
    <section aria-label="Suggested for this picture" className="mt-2 text-[13px]">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h3 className="font-semibold">Suggested for this picture</h3>
        <span className="font-serif">
          {parts.map(([key, value]) => `${RECIPE_PARTS[key].name} ${RECIPE_PARTS[key].written(value)}`).join(', ')}
        </span>
        <span>
          score {score(best.before.score)} → {score(best.after.score)} of 10
        </span>
        <QuietButton disabled={applied} onClick={() => at.set({ ...at.recipe, ...best.parts })}>
          {applied ? 'Applied' : 'Apply'}
        </QuietButton>
      </div>
      <p>
        <span className="text-quiet">Gains: </span>
        {gained.join(', ') || 'nothing by these figures'}.
      </p>
      <p>
        <span className="text-quiet">Gives up: </span>
        {given.join(', ')}.
      </p>
    </section>
  );
}

/** What a recipe gains, and what it gives up, each in its figures. */
export function exchanged({ before, after }: BestRecipeView): { gained: string[]; given: string[] } {
  const gained: string[] = [];
  const given: string[] = [];
  const share = (name: string, was: number, is: number, same: number, lowIsGood = false) => {
    if (Math.abs(is - was) < same) return;
    (is > was !== lowIsGood ? gained : given).push(`${name} ${percent(was)} → ${percent(is)}`);
  };
  share('shadow steps kept', before.shadowStepsKept, after.shadowStepsKept, SAME);
  share('steps of tone kept', before.stepsKept, after.stepsKept, SAME);
  share('chroma kept', before.chromaKept, after.chromaKept, SAME);
  share('out of gamut', before.outsideShare, after.outsideShare, SAME, true);
  after.marks.forEach((mark, i) =>
    share(`mark ${i + 1} (${mark.name}), steps kept`, before.marks[i].stepsKept, mark.stepsKept, SAME_MARK),
  );
  given.push(`the picture as it was: ${formatNumber(after.changeDeltaE, 1)}\u00a0ΔE00 changed on average`);
  return { gained, given };
}
