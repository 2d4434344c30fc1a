/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import type { BestRecipeView } from '@rakuen/contract/recipes';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { exchanged, ForThisPicture } from './for-this-picture.tsx';
import type { RecipeAtHand } from './use-recipe.ts';

beforeEach(() => void serve(() => null));
const plain = (text: string | null | undefined) => (text ?? '').replaceAll(/[\u2009\u202f\u00a0]/g, ' ');
const figures: BestRecipeView['before'] = {
  score: 2.26,
  changeDeltaE: 0,
  shadowStepsKept: 0.45,
  stepsKept: 0.6,
  chromaKept: 0.7,
  outsideShare: 0.02,
  marks: [
    { kind: 'shadow', name: 'the deepest shadow that holds detail', stepsKept: 0.41 },
    { kind: 'light', name: 'the lightest light', stepsKept: 0.86 },
  ],
};
const best: BestRecipeView = {
  parts: { shadows: 0.35, saturation: 0.1 },
  before: figures,
  after: {
    ...figures,
    score: 3.1,
    changeDeltaE: 2.04,
    shadowStepsKept: 0.58,
    chromaKept: 0.78,
    outsideShare: 0.05,
    marks: [
      { kind: 'shadow', name: 'the deepest shadow that holds detail', stepsKept: 0.52 },
      { kind: 'light', name: 'the lightest light', stepsKept: 0.8 },
    ],
  },
};

it('says what is gained and what is given up, each with its figures and on its side', () => {
  const { gained, given } = exchanged(best);
  expect(gained.map(plain)).toEqual([
    'shadow steps kept 45 % → 58 %',
    'chroma kept 70 % → 78 %',
    'mark 1 (the deepest shadow that holds detail), steps kept 41 % → 52 %',
  ]);
  expect(given.map(plain)).toEqual([
    'out of gamut 2.0 % → 5.0 %',
    'mark 2 (the lightest light), steps kept 86 % → 80 %',
    'the picture as it was: 2.0 ΔE00 changed on average',
  ]);
});

it('is applied as one, and only when it is asked for', async () => {
  const set: object[] = [];
  const at: RecipeAtHand = partly({ recipe: { ...PLAIN, sharpening: 0.5 }, set: (recipe: object) => set.push(recipe) });
  const { page } = await show(<ForThisPicture best={best} at={at} />);
  expect(plain(page.textContent)).toContain('Shadows opened 3.5, Saturation +10 %');
  expect(plain(page.textContent)).toContain('score 2.3 → 3.1 of 10');
  expect(set).toEqual([]);
  await act(async () => page.querySelector('button')!.click());
  expect(set).toEqual([{ ...PLAIN, sharpening: 0.5, shadows: 0.35, saturation: 0.1 }]);
});

it('“nothing to change” is an answer', async () => {
  const at: RecipeAtHand = partly({ recipe: PLAIN });
  const { page } = await show(<ForThisPicture best={{ ...best, parts: {}, after: figures }} at={at} />);
  expect(page.textContent).toContain('Nothing to change for this picture on this paper.');
  expect(page.querySelector('button')).toBeNull();
});
