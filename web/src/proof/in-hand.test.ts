import type { ConditionHead } from '@rakuen/contract/conditions';
import type { RecipeView } from '@rakuen/contract/recipes';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { pairOf } from './in-hand.ts';

const sheet = (id: string, name: string, mediaSetting = 'Coated') =>
  ({ id, paper: { name }, printer: 'Press', mediaSetting, printMode: 'colour through a profile' }) as ConditionHead;
const turned = (liftStops: number, kept: readonly Partial<RecipeView>[] = []) => ({
  recipe: { ...PLAIN, liftStops },
  kept: kept as readonly RecipeView[],
});

describe('what is held in the two hands', () => {
  const sheets = [sheet('p', 'Rag'), sheet('q', 'Baryta')] as const;
  const recipes = [turned(0.5), turned(1)] as const;

  it('two sheets, each with what is done for it', () => {
    const [left, right] = pairOf(sheets, recipes, undefined, false);
    expect([left.name, left.recipe.liftStops]).toEqual(['Rag', 0.5]);
    expect([right.name, right.recipe.liftStops]).toEqual(['Baryta', 1]);
  });

  it('before anything was done to them, both are plain', () =>
    expect(pairOf(sheets, recipes, undefined, true).map((h) => h.recipe)).toEqual([PLAIN, PLAIN]));

  it('one paper in two print conditions is two sheets, and told apart', () => {
    const [left, right] = pairOf([sheet('p', 'Rag'), sheet('q', 'Rag', 'Heavy')], recipes, undefined, false);
    expect(left.name).toBe('Rag');
    expect(right.name).toBe('Rag, Press · Heavy');
  });

  it('one and the same print condition in both hands is not called two', () => {
    const [left, right] = pairOf([sheet('p', 'Rag'), sheet('p', 'Rag')], recipes, undefined, false);
    expect([left.name, right.name]).toEqual(['Rag', 'Rag']);
  });

  it('a kept version stands beside its own sheet as it is turned, whichever hand holds that', () => {
    const version = { id: 'v', name: 'for the hall', values: { ...PLAIN, liftStops: 2 } };
    for (const holder of [0, 1] as const) {
      const held = recipes.map((r, i) => (i === holder ? turned(r.recipe.liftStops, [version]) : r));
      const [left, right] = pairOf(sheets, [held[0], held[1]], 'v', false);
      expect([left.condition.id, right.condition.id]).toEqual([sheets[holder].id, sheets[holder].id]);
      expect(left.recipe).toEqual(recipes[holder].recipe);
      expect(right.recipe.liftStops).toBe(2);
      expect([left.name, right.name]).toEqual([
        `${sheets[holder].paper.name}, with its recipe now`,
        `${sheets[holder].paper.name}, “for the hall”`,
      ]);
    }
  });

  it('the file or an earlier print stands beside the sheet in the left hand', () => {
    const file = { id: 'file', name: 'the file as it is', condition: sheets[0], recipe: PLAIN, file: true as const };
    const print = { id: 'r', name: 'print of 2025', condition: sheets[1], recipe: { ...PLAIN, liftStops: 1.5 } };
    const hold = (against: string) => pairOf(sheets, recipes, against, false, [file, print]);
    expect(hold('file').map((h) => [h.name, h.recipe.liftStops])).toEqual([
      ['Rag', 0.5],
      ['the file as it is', 0],
    ]);
    expect(hold('r')[1]).toMatchObject({ name: 'print of 2025', condition: { id: 'q' }, recipe: { liftStops: 1.5 } });
  });

  it('a version that is kept for neither is not held', () =>
    expect(pairOf(sheets, recipes, 'gone', false).map((h) => h.name)).toEqual(['Rag', 'Baryta']));
});
