import { expect, test } from './studio.ts';

test('two windows at one recipe: the second is told, shown both, and takes one', async ({ page, studio, context }) => {
  type Kept = { id: string }[];
  const { pictureInHand } = (await (await page.request.get(`${studio.url}/api/table`)).json()) as {
    pictureInHand: string;
  };
  const recipes = async () =>
    (await (await page.request.get(`${studio.url}/api/recipes?pictureId=${pictureInHand}`)).json()) as Kept;
  const stood = await recipes();
  const other = await context.newPage();
  for (const window of [page, other]) {
    await window.goto(`${studio.url}/proof`);
    await window
      .getByRole('region', { name: /^Recipe for/ })
      .first()
      .waitFor();
  }
  const note = (window: typeof page) => window.getByRole('region', { name: /^Recipe for/ }).first();
  const contrast = (window: typeof page) => note(window).getByRole('status', { name: 'Contrast', exact: true });
  const before = await contrast(page).innerText();
  const kept = page.waitForResponse((r) => r.url().endsWith('/api/recipes') && r.request().method() === 'PUT');
  await note(page).getByRole('button', { name: 'Contrast more' }).click();
  expect((await kept).status()).toBe(200);
  const first = await contrast(page).innerText();
  await note(other).getByRole('button', { name: 'Contrast less' }).click();
  const told = note(other).getByRole('alert');
  await expect(told).toContainText('changed in another window');
  await told.getByRole('button', { name: 'Take theirs' }).click();
  await expect(told).toHaveCount(0);
  await expect(contrast(other)).toHaveText(first);
  // What is turned now is turned from what the first window kept.
  const again = other.waitForResponse((r) => r.url().endsWith('/api/recipes') && r.request().method() === 'PUT');
  await note(other).getByRole('button', { name: 'Contrast less' }).click();
  expect((await again).status()).toBe(200);
  await expect(contrast(other)).toHaveText(before);
  await other.close();
  for (const { id } of await recipes())
    if (!stood.some((r) => r.id === id)) await page.request.delete(`${studio.url}/api/recipes/${id}`);
});
