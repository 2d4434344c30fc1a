import { useRef, useState } from 'react';
import type { ApiError } from '@rakuen/contract/settings';
import type { RecipeView } from '@rakuen/contract/recipes';
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { theirsOf } from '../parts/conflict.tsx';
import { useRecipesQuery, useWriteRecipeMutation } from './recipe-api.ts';

/** Steps that can be taken back. */
const MOST_STEPS = 100;

interface Turns {
  readonly done: readonly Recipe[];
  readonly undone: readonly Recipe[];
}
const NO_TURNS: Turns = { done: [], undone: [] };

/** The recipe of a picture on a sheet: turned step by step, each step taken back and made again; kept as it stands. */
export interface RecipeAtHand {
  readonly recipe: Recipe;
  readonly kept: readonly RecipeView[];
  /** Where the working recipe is kept. */
  readonly current?: RecipeView;
  readonly error?: Partial<ApiError>;
  /** Another window turned it meanwhile: both are shown, and one is taken. */
  readonly conflict?: { readonly theirs: Recipe; keepMine(): void; takeTheirs(): void };
  set(next: Recipe): void;
  undo?: () => void;
  redo?: () => void;
  keepAs(name: string): Promise<void>;
}

export function useRecipe(pictureId: string, conditionId: string): RecipeAtHand {
  const { data: all = [] } = useRecipesQuery(pictureId);
  const [write, writing] = useWriteRecipeMutation();
  const own = all.filter((r) => r.conditionId === conditionId);
  const current = own.find((r) => r.name === '');
  // What was turned here, with the steps before and after it, by the sheet; what is kept speaks until something was.
  const [bySheet, setBySheet] = useState<Readonly<Record<string, Turns>>>({});
  const turns = bySheet[conditionId] ?? NO_TURNS;
  const recipe = turns.done[turns.done.length - 1] ?? current?.values ?? PLAIN;
  const first = current?.values ?? PLAIN;
  // One after another: what was turned last is what is kept, however fast the hand was.
  const last = useRef<Promise<unknown>>(Promise.resolve());
  // From which revision this window turns the working recipe, by the sheet.
  const known = useRef<Record<string, number>>({});
  const keep = (values: Recipe, name = '') => {
    const turn = last.current.then(async () => {
      const from = name === '' ? (known.current[conditionId] ?? current?.revision ?? 0) : undefined;
      const kept = await write({ recipe: { pictureId, conditionId, name, values }, from }).unwrap();
      if (name === '') known.current[conditionId] = kept.revision;
    });
    last.current = turn.catch(() => undefined);
    return turn;
  };
  const to = (done: readonly Recipe[], undone: readonly Recipe[]) => {
    setBySheet({ ...bySheet, [conditionId]: { done: done.slice(-MOST_STEPS), undone } });
    void keep(done[done.length - 1]).catch(() => undefined);
  };
  const { done, undone } = turns;
  const theirs = theirsOf<RecipeView>(writing.error);
  return {
    recipe,
    kept: own.filter((r) => r.name !== ''),
    current,
    error: writing.error,
    conflict: theirs && {
      theirs: theirs.values,
      keepMine: () => {
        known.current[conditionId] = theirs.revision;
        void keep(recipe).catch(() => undefined);
      },
      takeTheirs: () => {
        known.current[conditionId] = theirs.revision;
        setBySheet({ ...bySheet, [conditionId]: { done: [...done, theirs.values], undone: [] } });
        writing.reset();
      },
    },
    // The first step remembers what stood before it, so that it can be taken back.
    set: (next) => to(done.length > 0 ? [...done, next] : [first, next], []),
    undo: done.length > 1 ? () => to(done.slice(0, -1), [done[done.length - 1], ...undone]) : undefined,
    redo: undone.length > 0 ? () => to([...done, undone[0]], undone.slice(1)) : undefined,
    keepAs: async (name) => void (await keep(recipe, name)),
  };
}
