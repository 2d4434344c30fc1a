import { atBench, expect, expectAccessible, test } from './studio.ts';

test('a profile is written from the readings by keyboard, taken away, held against readings, and chosen', async ({
  watched: page,
  studio,
}) => {
  test.setTimeout(360_000);
  await page.goto(`${studio.url}/readings`);
  await atBench(page, 'Profile');
  await expect(page.getByText(/Expected error of colours that were not read/)).toBeVisible({ timeout: 60_000 });
  const name = page.getByLabel('Name', { exact: true });
  await name.fill('My own, tried');
  await page.getByLabel('Tables').selectOption('17');
  await name.press('Enter');
  await expect(page.getByRole('radio', { name: 'Use this profile: My own, tried' })).toBeChecked({ timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'My own, tried as a file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('My-own-tried.icc');
  await page.getByRole('button', { name: 'Check My own, tried' }).press('Enter');
  await page.getByRole('button', { name: 'Hold them against it' }).press('Enter');
  await expect(page.getByText(/^It passes: /)).toBeVisible();
  await expect(page.getByText('In use here')).toBeVisible();
  await expect(page.getByText(/^Used here since /)).toBeVisible();
  await expectAccessible(page);
});
