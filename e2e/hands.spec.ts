import { expect, step, test } from './studio.ts';

test.describe('by keyboard alone', () => {
  test('a paper is laid on the table and put back, and the table survives a reload', async ({
    watched: page,
    studio,
  }) => {
    await page.goto(`${studio.url}/papers`);
    const table = page.getByRole('complementary', { name: 'The table' });
    await expect(table).toContainText('4 of 6');
    const tinroof = page.locator('main [data-row][data-name="Tinroof Metallic"]');
    await tinroof.focus();
    await page.keyboard.press('t');
    await expect(table).toContainText('5 of 6');
    await expect(table).toContainText('Tinroof Metallic');
    await page.reload();
    await expect(table).toContainText('Tinroof Metallic');
    await page.locator('main [data-row][data-name="Tinroof Metallic"]').focus();
    await page.keyboard.press('t');
    await expect(table).toContainText('4 of 6');
    await expect(table).not.toContainText('Tinroof Metallic');
  });

  test('hands are swapped with x and the words follow', async ({ watched: page, studio }) => {
    await page.goto(`${studio.url}/compare`);
    const seen = page.getByRole('list', { name: 'What can be seen' });
    await expect(seen).toContainText('The left sheet is blacker');
    await page.keyboard.press('x');
    await expect(seen).toContainText('The left sheet is less black');
    await page.keyboard.press('x');
    await expect(seen).toContainText('The left sheet is blacker');
  });

  test('a paper on the table is taken into a hand', async ({ watched: page, studio }) => {
    await page.goto(`${studio.url}/compare`);
    const lantern = page
      .getByRole('complementary', { name: 'The table' })
      .locator('[data-row][data-name="Lantern Matt"]');
    await lantern.focus();
    await page.keyboard.press('l');
    await expect(page.getByRole('region', { name: 'The pair in hand' }).getByRole('heading').first()).toHaveText(
      'Lantern Matt',
    );
    await page
      .getByRole('complementary', { name: 'The table' })
      .locator('[data-row][data-name="Slate Baryta"]')
      .focus();
    await page.keyboard.press('l');
    await expect(page.getByRole('region', { name: 'The pair in hand' }).getByRole('heading').first()).toHaveText(
      'Slate Baryta',
    );
  });

  test('steps by number, the key sheet by ?, arrows in a list', async ({ watched: page, studio }) => {
    await page.goto(studio.url);
    await expect(page.getByRole('heading', { level: 1, name: 'Papers' })).toBeVisible();
    await page.keyboard.press('8');
    await expect(page.getByRole('heading', { level: 1, name: 'Ledger' })).toBeVisible();
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.keyboard.press('1');
    await expect(page.getByRole('heading', { level: 1, name: 'Papers' })).toBeVisible();
    await page.locator('main [data-row]').first().focus();
    await page.keyboard.press('ArrowDown');
    await expect(page.locator('main [data-row]').nth(1)).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: 'Readings' })).toBeVisible();
  });

  test('the next picture is taken in hand and another paper leads; a stamp is set and taken back', async ({
    watched: page,
    studio,
  }) => {
    await page.goto(`${studio.url}/match`);
    const first = page.getByRole('list', { name: 'Ranking' }).getByRole('heading', { level: 3 }).first();
    await expect(page.getByRole('heading', { level: 2, name: 'The fourth dish' })).toBeVisible();
    await expect(first).toHaveText('Slate Baryta');
    await page.keyboard.press('n');
    await expect(page.getByRole('heading', { level: 2, name: 'Salt crust at noon' })).toBeVisible();
    await expect(first).toHaveText('Chalk Rag');
    await page.locator('main [data-row][data-name="Lantern Matt"]').focus();
    await page.keyboard.press('f');
    const dialog = page.getByRole('dialog', { name: 'Salt crust at noon' });
    await dialog.getByLabel('Why, in your words').fill('Too blue for salt.');
    await dialog.getByRole('button', { name: 'Stamp it refused' }).click();
    const lantern = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Lantern Matt' }) });
    await expect(lantern).toContainText('Too blue for salt.');
    await page.keyboard.press('u');
    await expect(lantern).not.toContainText('Too blue for salt.');
    await page.keyboard.press('p');
    await expect(page.getByRole('heading', { level: 2, name: 'The fourth dish' })).toBeVisible();
  });
});

test('a paper is dragged to the table', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/papers`);
  const table = page.getByRole('complementary', { name: 'The table' });
  await expect(table).toContainText('4 of 6');
  await page.locator('main [data-row][data-name="Unsized Mulberry"]').scrollIntoViewIfNeeded();
  const from = (await page.locator('main [data-row][data-name="Unsized Mulberry"]').boundingBox())!;
  const to = (await table.boundingBox())!;
  await page.mouse.move(from.x + 60, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 90, from.y + 14, { steps: 4 });
  await page.mouse.move(to.x + 100, to.y + 500, { steps: 10 });
  await page.mouse.up();
  await expect(table).toContainText('Unsized Mulberry');
  await table.getByRole('button', { name: 'Put Unsized Mulberry back' }).click({ force: true });
  await expect(table).toContainText('4 of 6');
});

test('thresholds are the printmaker’s own, and change the words', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/compare`);
  const row = page.getByRole('row', { name: /^Paper white/ });
  await expect(row).toContainText('too small to see');
  const set = async (edge: string) => {
    await page.getByRole('button', { name: 'Settings' }).click();
    const dialog = page.getByRole('dialog', { name: 'Settings' });
    await dialog.getByLabel('Edge to edge ΔE00').fill(edge);
    await dialog.getByRole('button', { name: 'Keep settings' }).click();
    await expect(dialog).toHaveCount(0);
  };
  await set('0.2');
  await expect(row).toContainText('visible edge to edge');
  await set('1');
  await expect(row).toContainText('too small to see');
});

test('a paper and a print condition are changed; what was typed is not lost on an error', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/papers`);
  await page.getByRole('button', { name: 'Change Chalk Rag' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('');
  await dialog.getByLabel('Notes').fill('A note that must stay.');
  await dialog.getByRole('button', { name: 'Keep the change' }).click();
  await expect(dialog.getByRole('alert').first()).toBeVisible();
  await expect(dialog.getByLabel('Notes')).toHaveValue('A note that must stay.');
  await dialog.getByLabel('Name', { exact: true }).fill('Chalk Rag');
  await dialog.getByLabel('Weight g/m²').fill('308');
  await dialog.getByRole('button', { name: 'Keep the change' }).click();
  await expect(page.getByText('308 g/m²')).toBeVisible();
  await step(page, 'Compare');
  await expect(page.getByRole('row', { name: /^Weight, claimed/ })).toContainText('308 g/m²');
  // What is taken back is not claimed any more.
  await step(page, 'Papers');
  await page.getByRole('button', { name: 'Change Chalk Rag' }).click();
  await dialog.getByLabel('Weight g/m²').fill('');
  await dialog.getByLabel('Surface').selectOption({ label: 'not claimed' });
  await dialog.getByRole('button', { name: 'Keep the change' }).click();
  await expect(dialog).toHaveCount(0);
  await step(page, 'Compare');
  await expect(page.getByRole('row', { name: /^Weight, claimed/ })).toContainText('not claimed');
  await expect(page.getByRole('row', { name: /^Surface, claimed/ })).toContainText('not claimed');
});
