import { useState } from 'react';
import { useRecipesQuery } from '../proof/recipe-api.ts';

const KEY = 'rakuen.versions';
type Chosen = Readonly<Record<string, readonly string[]>>;

function remembered(): Chosen {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Chosen;
  } catch {
    return {};
  }
}

/** Saved recipes of a picture, and which of them stand as places of their own in its match. */
export function useVersions(pictureId: string) {
  const { data: recipes = [] } = useRecipesQuery(pictureId, { skip: pictureId === '' });
  const [all, setAll] = useState<Chosen>(remembered);
  // What was removed since is not asked for.
  const chosen = (all[pictureId] ?? []).filter((id) => recipes.some((r) => r.id === id));
  return {
    recipes,
    chosen,
    choose: (id: string, on: boolean) => {
      const next = { ...all, [pictureId]: on ? [...chosen, id] : chosen.filter((c) => c !== id) };
      localStorage.setItem(KEY, JSON.stringify(next));
      setAll(next);
    },
  };
}

export type Versions = ReturnType<typeof useVersions>;
