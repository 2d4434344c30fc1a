import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, expectAccessible } from './studio.ts';
import { BARYTA, BRIGHT, PLAIN, lay, test } from './table.ts';

const PROFILE = fileURLToPath(new URL('../core/test/fixtures/sRGB.icc', import.meta.url));

test('the solids are turned by key and by name, cut, and set against a profile', async ({ watched: page, studio }) => {
  await lay(page, studio, [BARYTA, PLAIN]);
  await page.goto(`${studio.url}/compare/gamut`);
  const solids = page.getByTestId('solids');
  await expect(page.getByRole('region', { name: 'Slate Baryta against Chalk Rag' })).toContainText('In common', {
    timeout: 40_000,
  });
  await expect(page.getByText(/Slate Baryta reaches beyond Chalk Rag in .*(L\* \d+–\d+, \d)/)).toBeVisible();
  await expect(solids.locator('canvas')).toBeVisible();
  const look = async () => (await page.waitForTimeout(400), (await solids.screenshot()).toString('base64'));
  const first = await look();
  await solids.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(look).not.toBe(first);
  const turned = await look();
  await page.getByRole('button', { name: 'Seen from above' }).click();
  await expect.poll(look).not.toBe(turned);
  const cut = page.getByRole('img', { name: /^Cut at L\* 50/ });
  await expect(cut).toBeVisible();
  await page.getByRole('slider').first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('img', { name: /^Cut at L\* 51/ })).toBeVisible();
  await page
    .getByLabel('Bring a profile')
    .setInputFiles({ name: 'work.icc', mimeType: 'application/vnd.iccprofile', buffer: readFileSync(PROFILE) });
  await expect(page.getByRole('region', { name: /^Slate Baryta against .*sRGB/ })).toContainText('covers of', {
    timeout: 20_000,
  });
  await page.getByRole('button', { name: 'Remove this profile' }).click();
  await page.getByLabel('Beside them').selectOption({ label: 'ROMM RGB' });
  await expect(page.getByRole('region', { name: 'Slate Baryta against ROMM RGB' })).toContainText(
    /\+ covers of [A-F]\s*(100\.0|99\.\d)\s%/,
    { timeout: 20_000 },
  );
  // Each of them can be the body: the others are set against it.
  const body = page.getByRole('listitem').filter({ hasText: 'a body in its own colours' });
  await expect(body).toContainText('Slate Baryta');
  await page.getByRole('button', { name: 'Take ROMM RGB in hand, as the body' }).press('Enter');
  await expect(body).toContainText('ROMM RGB');
  await expect(page.getByRole('application', { name: /^Gamut solids/ })).toBeFocused();
  await expect(page.getByRole('region', { name: 'ROMM RGB against Slate Baryta' })).toContainText('In common', {
    timeout: 20_000,
  });
  await expect(page.getByRole('button', { name: 'Take Slate Baryta in hand, as the body' })).toBeVisible();
  await expectAccessible(page);
});

test('the solids are drawn and turned while what computes beside them has not answered', async ({
  watched: page,
  studio,
}) => {
  await lay(page, studio, [BARYTA, PLAIN, BRIGHT]);
  // Held back, as on a machine that has much else to do: whatever the page itself would compute is not.
  let answer = () => {};
  const held = new Promise<void>((done) => (answer = done));
  await page.route(/compare-worker/, async (route) => (await held, route.continue()));
  await page.goto(`${studio.url}/compare/gamut`);
  const solids = page.getByTestId('solids');
  const look = () => solids.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  await expect(solids.locator('canvas')).toBeVisible();
  for (const light of ['A', 'window']) {
    const seen = await look();
    await page.getByLabel('Light over the table').selectOption(light);
    await solids.focus();
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight');
    await expect.poll(look).not.toBe(seen);
  }
  const pair = page.getByRole('region', { name: 'Slate Baryta against Chalk Rag' });
  await expect(page.getByText('In common')).toHaveCount(0);
  const inDaylight = await look();
  answer();
  await expect(pair).toContainText('In common', { timeout: 40_000 });
  // The light is on the solids too, not on the figures alone.
  await expect.poll(look).not.toBe(inDaylight);
});
