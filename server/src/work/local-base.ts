import { hasLocal, localBase, type LocalBase } from '@rakuen/core/proof/local-contrast';
import type { Recipe } from '@rakuen/core/proof/recipe';
import { LAB_UNITS, labImageOf } from './lab-image-task.ts';
import type { PictureFile } from './open-picture.ts';

/** A recipe, and what lies under the contrast it turns. */
export interface LocalTurn {
  readonly recipe: Recipe;
  readonly base: LocalBase;
}

/**
 * The base of a picture as the proof draws it, from the same small picture; none where a recipe does not ask for it.
 * @throws PictureError
 */
export async function localTurn(
  { path, assumeSrgb, maxPixels }: PictureFile,
  recipe: Recipe,
  longSideMm: number,
): Promise<LocalTurn | undefined> {
  if (!hasLocal(recipe)) return undefined;
  const { widthPx, heightPx, lab } = await labImageOf({ path, assumeSrgb, maxPixels });
  const lightness = Float32Array.from({ length: widthPx * heightPx }, (_, i) => lab[i * 3] / LAB_UNITS);
  return { recipe, base: localBase({ widthPx, heightPx, lightness }, longSideMm) };
}
