import { expect, expectAccessible, test } from './studio.ts';

test('what the sheets cost is held against what they give; another glass is asked about', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/match`);
  const edge = page.getByRole('region', { name: 'Cost against fit' });
  await expect(edge).toBeVisible({ timeout: 60_000 });
  // From the cheapest on, which nothing can beat by its price.
  const prices = (
    await edge
      .getByRole('cell')
      .filter({ hasText: /^\d+\.\d{2}$/ })
      .allTextContents()
  ).map(Number);
  expect(prices.length).toBeGreaterThan(2);
  expect(prices).toEqual([...prices].sort((p, q) => p - q));
  await expect(edge.getByRole('cell', { name: 'worth its price' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Without glass?' }).click();
  await expect(page.getByRole('status').filter({ hasText: /^Without glass/ })).toContainText(
    /would be first|nothing clearly/,
    {
      timeout: 60_000,
    },
  );
  await expectAccessible(page);
});
