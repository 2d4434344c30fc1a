import type { ConditionHead } from '@rakuen/contract/conditions';
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { conditionLine } from '../parts/label.ts';
import type { RecipeAtHand } from './use-recipe.ts';

/** What is held in a hand: a sheet, what is done for it, and how it is called. */
export interface InHand {
  readonly condition: ConditionHead;
  readonly recipe: Recipe;
  readonly name: string;
  /** It is the file itself, on no sheet. */
  readonly file?: true;
}

/** What the right hand can hold besides a sheet of the table: the file as it is, an earlier print. */
export interface Holdable extends InHand {
  readonly id: string;
}

type Turned = Pick<RecipeAtHand, 'recipe' | 'kept'>;

/**
 * The two sheets in hand; or one sheet as its recipe stands against a kept version of it, the file, or an earlier print.
 * @param against id of that version, or of what is held
 */
export function pairOf(
  conditions: readonly [ConditionHead, ConditionHead],
  recipes: readonly [Turned, Turned],
  against: string | undefined,
  before: boolean,
  holdable: readonly Holdable[] = [],
): readonly [InHand, InHand] {
  const held = holdable.find((h) => h.id === against);
  if (held) {
    const left = {
      condition: conditions[0],
      recipe: before ? PLAIN : recipes[0].recipe,
      name: conditions[0].paper.name,
    };
    return [left, held];
  }
  const holder = ([0, 1] as const).find((h) => recipes[h].kept.some((k) => k.id === against));
  if (holder === undefined) {
    const inHand = (h: 0 | 1): InHand => ({
      condition: conditions[h],
      recipe: before ? PLAIN : recipes[h].recipe,
      name: conditions[h].paper.name,
    });
    const [left, right] = [inHand(0), inHand(1)];
    // One paper in two print conditions is two sheets.
    if (left.name !== right.name || left.condition.id === right.condition.id) return [left, right];
    return [left, { ...right, name: `${right.name}, ${conditionLine(right.condition)}` }];
  }
  const condition = conditions[holder];
  const version = recipes[holder].kept.find((k) => k.id === against)!;
  const { name } = condition.paper;
  return [
    {
      condition,
      recipe: before ? PLAIN : recipes[holder].recipe,
      name: `${name}, ${before ? 'without a recipe' : 'with its recipe now'}`,
    },
    { condition, recipe: version.values, name: `${name}, “${version.name}”` },
  ];
}
