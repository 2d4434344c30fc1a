import { useDeferredValue, useMemo } from 'react';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { linearOfPcs } from '@rakuen/core/colour/rgb-space';
import { formatNumber } from '@rakuen/core/measurement/show';
import { shareBeyond } from '@rakuen/core/proof/drawn';
import type { Recipe } from '@rakuen/core/proof/recipe';
import { LAB_UNITS, type LabImage } from '../pictures/lab-image.ts';
import { latticeOf } from '../pictures/picture-api.ts';
import { screenSpace, type ProofView, type SeenSheet } from './proof-canvas.ts';

/** Pixels that are looked at: enough for a tenth of a percent or so. */
export const SAMPLED = 8000;

/** How much of the picture on a sheet this screen can't show, counted over a sample of its pixels. */
export function BeyondLine({
  image,
  sheet,
  recipe,
  view,
  name,
}: {
  image: LabImage;
  sheet: SeenSheet;
  recipe: Recipe;
  view: Omit<ProofView, 'recipes'>;
  name: string;
}) {
  // After what is drawn: the hand that turns a recipe does not wait for it.
  const now = useDeferredValue(
    useMemo(
      () => ({ image, sheet, recipe, settled: view.settled, toScreen: view.toScreen, dim: view.dim }),
      [image, sheet, recipe, view.settled, view.toScreen, view.dim],
    ),
  );
  const share = useMemo(() => {
    const { lab, widthPx, heightPx } = now.image;
    const every = Math.max(1, Math.floor((widthPx * heightPx) / SAMPLED));
    const labs = new Float32Array(Math.ceil((widthPx * heightPx) / every) * 3);
    for (let p = 0; p * every * 3 < lab.length; p++)
      for (let c = 0; c < 3; c++) labs[p * 3 + c] = lab[p * every * 3 + c] / LAB_UNITS;
    const { nodes, white, blackL } = now.sheet;
    const sheetNow = { lattice: unpackLab(nodes, latticeOf(now.sheet)), white, blackL };
    const screen = { settled: now.settled, toScreen: now.toScreen ?? linearOfPcs(screenSpace()), dim: now.dim };
    return shareBeyond(labs, now.recipe, sheetNow, screen);
  }, [now]);
  const words = share === 0 ? 'none of' : share < 0.001 ? 'less than 0.1 % of' : `${formatNumber(share * 100, 1)} % of`;
  return (
    <span>
      {words} {name}
    </span>
  );
}
