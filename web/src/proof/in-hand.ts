import type { ConditionHead } from '@rakuen/contract/conditions';
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { conditionLine } from '../parts/label.ts';
import type { RecipeAtHand } from './use-recipe.ts';

/** What is held in a hand: a sheet, what is done for it, and how it is called. */
export interface InHand {
  readonly condition: ConditionHead;
  readonly recipe: Recipe;
  readonly name: string;
}

type Turned = Pick<RecipeAtHand, 'recipe' | 'kept'>;

/** The two sheets in hand, or one sheet as its recipe stands against a kept version of it. @param against id of that version */
export function pairOf(
  conditions: readonly [ConditionHead, ConditionHead],
  recipes: readonly [Turned, Turned],
  against: string | undefined,
  before: boolean,
): readonly [InHand, InHand] {
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
      name: `${name}, as ${before ? 'before it' : 'it is turned'}`,
    },
    { condition, recipe: version.values, name: `${name}, “${version.name}”` },
  ];
}
