import { expect, expectAccessible, test } from './studio.ts';

test('a client orders, the print is made for the order, it is delivered, and the ledger finds it by the client', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/prints/clients`);
  await page.getByRole('button', { name: 'New client' }).first().click();
  await page.getByLabel('Name').fill('Ostwind Bureau');
  await page.getByLabel('Wishes').fill('No gloss.');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Save the client' }).click();
  await page.getByRole('button', { name: 'New place of Ostwind Bureau' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Stair');
  await dialog.getByLabel('Glass there').selectOption('museum');
  await dialog.getByLabel('Illuminance there').fill('120');
  await dialog.getByRole('button', { name: 'Save the place' }).click();
  await expect(page.getByRole('region', { name: 'Ostwind Bureau' })).toContainText('120 lx');
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Orders', exact: true }).click();
  await page.getByRole('button', { name: 'New order' }).click();
  await dialog.getByLabel('Client').selectOption({ label: 'Ostwind Bureau' });
  await dialog.getByLabel('Where it will hang').selectOption({ label: 'Stair' });
  await dialog.getByLabel('Order', { exact: false }).first().fill('Two for the stair');
  await dialog.getByLabel('Price asked').fill('480,50');
  await dialog.getByRole('button', { name: 'Save the order' }).click();
  const order = page.getByRole('region', { name: 'Two for the stair' });
  await expect(order).toContainText('480.50 EUR');
  await expect(order).toContainText('0 of');
  await expectAccessible(page);

  // Its first line is printed; the size is that of the order.
  await order
    .getByRole('button', { name: /^Begin the print/ })
    .first()
    .click();
  await expect(page.getByRole('article', { name: 'The back of the print' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Order' })).toContainText('Two for the stair, Ostwind Bureau');
  // On the paper it was printed on last, by the same settings: nothing is left to check.
  await page.getByRole('button', { name: 'Mark as printed', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Where it is' })).toContainText('in the studio');

  await page.goto(`${studio.url}/prints/orders`);
  await order.getByRole('button', { name: 'Mark as delivered' }).click();
  await expect(page.getByText('Two for the stair is delivered. Its prints are recorded as sold.')).toBeVisible();
  await page.goto(`${studio.url}/ledger?q=Ostwind`);
  const entries = page.getByRole('listitem').filter({ hasText: 'sold' });
  await expect(entries.first()).toBeVisible();

  // The light of the place is filled in for another picture, and the client’s wishes with it.
  await page.goto(`${studio.url}/pictures`);
  await page.getByRole('button', { name: 'Change', exact: true }).first().click();
  await dialog.getByLabel('Fill in from a place').selectOption({ label: 'Ostwind Bureau, Stair' });
  await expect(dialog.getByLabel('Illuminance')).toHaveValue('120');
  await expect(dialog.getByLabel('Glass')).toHaveValue('museum');
});

test('a numbered print is lent and comes back; its history stays', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/prints/editions`);
  const numbers = page.getByRole('list', { name: 'Numbers of Edition of 3' });
  await expect(numbers.getByRole('listitem').first()).toContainText('lent to Skerrow Mast Trust');
  await page.getByRole('button', { name: 'Move 1/3' }).click();
  await page.getByLabel('Now').selectOption('studio');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(numbers.getByRole('listitem').first()).toContainText('in the studio');
  await numbers.getByText('History, 2').click();
  await expect(numbers).toContainText('lent to Skerrow Mast Trust');
  await page.getByRole('button', { name: /Edition of 3/ }).click();
  await expect(numbers).toBeHidden();
});
