import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { brokenProfileJpeg } from '../server/test/files.ts';
import { atBench, expect, expectAccessible, step, test } from './studio.ts';

const UNCOATED = readFileSync(
  fileURLToPath(new URL('../core/test/fixtures/fogra29l.cgats.txt', import.meta.url)),
  'latin1',
);

/** Lets a file fall on the element that says `label`, as a hand would. */
async function drop(page: import('@playwright/test').Page, label: string, name: string, text: string) {
  const data = await page.evaluateHandle(
    ([fileName, content]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([content], fileName, { type: 'text/plain' }));
      return transfer;
    },
    [name, text],
  );
  await (label ? page.locator('button', { hasText: label }) : page.locator('main')).dispatchEvent('drop', {
    dataTransfer: data,
  });
}

/** Lets a file fall where nothing asks for one. */
const dropAnywhere = (page: import('@playwright/test').Page, name: string, text: string) => drop(page, '', name, text);

test('what is dropped anywhere goes where it belongs: readings wait for their paper, a lamp joins the lamps, the rest is said to be strange', async ({
  page,
  own,
}) => {
  await page.goto(`${own.url}/ledger`);
  await expect(page.getByText('This studio is empty.')).toBeVisible();
  await expectAccessible(page);
  await dropAnywhere(page, 'sheet.txt', UNCOATED);
  await expect(page.getByRole('heading', { name: 'Papers', level: 1 })).toBeVisible();
  await expect(page.getByText('sheet.txt waits for its print condition.')).toBeVisible();
  await page.getByRole('button', { name: 'Add the first paper' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Maker').fill('Testmill');
  await dialog.getByLabel('Name').fill('Thin Sheet');
  await dialog.getByLabel('Weight').fill('90,5');
  await dialog.getByLabel('Thickness').fill('110');
  await dialog.getByRole('button', { name: 'Add a size' }).click();
  await dialog.getByLabel('Size', { exact: true }).fill('A4');
  await dialog.getByLabel('Width').fill('210');
  await dialog.getByLabel('Length').fill('297');
  await dialog.getByLabel('Pack price').fill('12,50');
  await dialog.getByRole('button', { name: 'Add and say how it prints' }).click();
  await dialog.getByLabel('Printer').fill('Test Press');
  await dialog.getByLabel('Ink set').fill('four inks');
  await dialog.getByLabel('Media setting').fill('Plain');
  await dialog.getByLabel('Resolution').fill('720 dpi');
  await dialog.getByRole('button', { name: 'Add and bring its readings' }).click();
  // The file that waited is looked at for the paper that was made for it.
  const found = page.getByRole('region', { name: 'What was recognised' });
  await expect(found).toContainText('For Thin Sheet, Test Press');
  await expect(found).toContainText('1485 patches');
  // Another file brought by hand is looked at meanwhile; left, the one that waits is there again.
  await drop(page, 'Bring a file of readings', 'other.txt', UNCOATED);
  await expect(found.getByRole('heading', { name: 'other.txt' })).toBeVisible();
  await found.getByRole('button', { name: 'Leave them' }).click();
  await expect(found.getByRole('heading', { name: 'sheet.txt' })).toBeVisible();
  await found.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page.getByText('figures from this').or(page.getByText('Gamut')).first()).toBeVisible();
  await step(page, 'Papers');
  await expect(page.getByText('90.5')).toBeVisible();
  await expect(page.getByText('waits for its print condition')).toHaveCount(0);
  await expect(page.getByText('This studio is empty.')).toHaveCount(0);

  const lamp = Array.from({ length: 40 }, (_, i) => `${380 + i * 10};${1 + i / 40}`).join('\n');
  await dropAnywhere(page, 'Hall lamp.csv', `${lamp}\n`);
  await expect(page.getByText('Hall lamp is over the table.')).toBeVisible();
  await dropAnywhere(page, 'odd.bin', '\u0001\u0002\u0003');
  await expect(page.getByRole('alert')).toContainText('odd.bin: this is nothing that is read here.');
});

test('a file is dropped, looked at, left; dropped again and kept; removed on a second word', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/papers`);
  await page.getByRole('button', { name: 'Add a print condition for Unsized Mulberry' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('carried over');
  await expect(dialog.getByLabel('Black ink')).toHaveValue('matt black');
  await dialog.getByLabel('Media setting').fill('Washi, trial');
  await dialog.getByRole('button', { name: 'Add and bring its readings' }).click();

  await expect(page.getByText('Nothing measured yet.')).toBeVisible();
  await drop(page, 'Bring a file of readings', 'washi.txt', UNCOATED);
  const found = page.getByRole('region', { name: 'What was recognised' });
  await expect(found).toContainText('1485 patches');
  await expect(found).toContainText('measurement condition M0');
  await found.getByRole('button', { name: 'Leave them' }).click();
  await expect(page.getByText('Nothing measured yet.')).toBeVisible();
  await atBench(page, 'Sets and drift');
  await expect(page.getByRole('region', { name: 'Files' })).toContainText('None yet.');

  await drop(page, 'Bring a file of readings', 'washi.txt', UNCOATED);
  await found.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page.getByText('figures from this')).toBeVisible();
  await drop(page, 'Bring a file of readings', 'washi-again.txt', UNCOATED);
  await found.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page.getByRole('alert')).toContainText('kept for this print condition already');
  await found.getByRole('button', { name: 'Leave them' }).click();

  await page.getByRole('button', { name: 'Remove: washi.txt, M0' }).click();
  await page.getByRole('button', { name: 'Put in the bin: washi.txt, M0' }).click();
  await expect(page.getByRole('region', { name: 'Files' })).toContainText('None yet.');

  await step(page, 'Papers');
  await page
    .getByRole('button', { name: 'Change Corvane D6 · Washi, trial' })
    .or(page.getByRole('button', { name: /Change .*Washi, trial/ }))
    .first()
    .click();
  await page.getByRole('button', { name: 'Remove this print condition' }).click();
  await page.getByRole('button', { name: 'Remove with its readings' }).click();
  await expect(page.getByText('Washi, trial')).toHaveCount(0);
});

test('a file that does not say its measurement condition is told it', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/readings`);
  await atBench(page, 'Sets and drift');
  await page.getByLabel('Bring a file of readings').setInputFiles({
    name: 'plain.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(UNCOATED.replace('GAS-FILLED TUNGSTEN', 'unknown'), 'latin1'),
  });
  const found = page.getByRole('region', { name: 'What was recognised' });
  await found.getByLabel(/Measurement condition/).selectOption('M3');
  await found.getByRole('button', { name: 'Keep these readings' }).click();
  const kept = page.getByRole('listitem').filter({ hasText: 'plain.txt' });
  await expect(kept).toContainText('M3');
  // M1 speaks before M3: the figures did not change hands.
  await expect(kept).not.toContainText('figures from this');
  await kept.getByRole('button', { name: 'Remove: plain.txt, M3' }).click();
  await kept.getByRole('button', { name: 'Put in the bin: plain.txt, M3' }).click();
  await expect(kept).toHaveCount(0);
});

test('a claim that the readings do not bear out is pointed out', async ({ watched: page, studio }) => {
  const claim = async (value: string) => {
    await page.goto(`${studio.url}/papers`);
    await page.getByRole('button', { name: 'Change Lantern Matt' }).click();
    await page.getByLabel('Brightener, as claimed').selectOption(value);
    await page.getByRole('button', { name: 'Keep the change' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('link', { name: /^Lantern Matt, .*Enhanced matt/ }).click();
    await expect(page.getByRole('heading', { level: 2, name: 'Lantern Matt' })).toBeVisible();
  };
  await claim('none');
  await expect(page.getByRole('region', { name: 'Figures' })).toContainText(
    'the maker says no brightener, measured it is moderate',
  );
  await claim('high');
  await expect(page.getByRole('region', { name: 'Figures' })).not.toContainText('brightener, measured');
});

test('a reading is taken away in another format, and brought back', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/readings`);
  await atBench(page, 'Sets and drift');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('link', { name: /, M2, as CGATS/ })
      .first()
      .click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.txt$/);
  await page.getByLabel('Bring a file of readings').setInputFiles(await file.path());
  const found = page.getByRole('region', { name: 'What was recognised' });
  await expect(found).toContainText('CGATS.17, UTF-8');
  await expect(found).toContainText('measurement condition M2');
  await found.getByRole('button', { name: 'Leave them' }).click();
  await atBench(page, 'Figures');
  await expect(page.getByRole('img', { name: /Reflectance of white and black/ })).toBeVisible();
});

test('a picture with a broken profile is refused, then read as sRGB on purpose, and removed', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/pictures`);
  await page
    .getByLabel('Bring a picture')
    .setInputFiles({ name: 'broken-profile.jpg', mimeType: 'image/jpeg', buffer: await brokenProfileJpeg() });
  await expect(page.getByRole('alert')).toContainText('embedded profile');
  await page.getByRole('button', { name: 'Set the profile aside and assume sRGB' }).click();
  await expect(page.getByRole('heading', { name: 'broken profile' })).toBeVisible();
  await expect(page.getByText('sRGB is assumed')).toBeVisible();
  await page.getByRole('button', { name: 'Remove this picture' }).click();
  await page.getByRole('button', { name: 'Put in the bin' }).click();
  await expect(page.getByRole('heading', { name: 'broken profile' })).toHaveCount(0);
});

test('a large picture shows how far it is and can be stopped', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/pictures`);
  const large = await sharp({
    create: {
      width: 5000,
      height: 4000,
      channels: 3,
      background: '#345',
      noise: { type: 'gaussian', mean: 120, sigma: 40 },
    },
  })
    .jpeg({ quality: 70 })
    .toBuffer();
  await page.getByLabel('Bring a picture').setInputFiles({ name: 'large.jpg', mimeType: 'image/jpeg', buffer: large });
  await expect(page.getByRole('progressbar', { name: 'Reading large.jpg' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('progressbar', { name: 'Reading large.jpg' })).toHaveCount(0);
  await expect(page.getByRole('heading', { name: 'large' })).toHaveCount(0);
});

test('a print is judged a day later; a paper that the ledger rests on stays', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/prints`);
  await page.getByRole('link', { name: 'The fourth dish, after ten on Slate Baryta' }).first().click();
  await page.getByLabel('The print is').selectOption('good enough');
  await page.getByLabel('Why').fill('Under the gallery lamp the horizon is a little green.');
  await page.getByRole('button', { name: 'Save the verdict' }).click();
  await expect(page.getByText('The verdict stands in the ledger.')).toBeAttached();
  await step(page, 'Ledger');
  await page.getByLabel('Show').selectOption('print');
  await expect(page.getByRole('listitem').filter({ hasText: 'a little green' })).toContainText('print, good enough');
  await expect(page.getByRole('listitem').filter({ hasText: 'chosen' })).toHaveCount(0);

  await step(page, 'Papers');
  await page.getByRole('button', { name: 'Change Corvane P10 · Fine art matt, Chalk Rag' }).click();
  await page.getByRole('button', { name: 'Remove this print condition' }).click();
  await page.getByRole('button', { name: 'Remove with its readings' }).click();
  await expect(page.getByRole('alert')).toContainText(
    'Decisions or prints in the ledger rest on this print condition.',
  );
});

test('the server gone: the page says so and keeps what was typed', async ({ page, bare }) => {
  await page.goto(`${bare.url}/papers`);
  await page.getByRole('button', { name: 'Add a paper' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Maker').fill('Vanishing Mill');
  await dialog.getByLabel('Name', { exact: true }).fill('Gone Sheet');
  await dialog.getByLabel('Weight g/m²').fill('200');
  await dialog.getByLabel('Thickness µm').fill('210');
  await page.route('**/api/**', (route) => route.abort());
  await dialog.getByRole('button', { name: 'Add and say how it prints' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Rakuen does not answer');
  await expect(dialog.getByLabel('Name', { exact: true })).toHaveValue('Gone Sheet');
  await page.unroute('**/api/**');
  await dialog.getByRole('button', { name: 'Add and say how it prints' }).click();
  await expect(page.getByRole('dialog', { name: 'How is Gone Sheet printed?' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Change Gone Sheet' }).click();
  await page.getByRole('button', { name: 'Remove this paper' }).click();
  await page.getByRole('button', { name: 'Put in the bin' }).click();
  await expect(page.getByRole('heading', { name: 'The drawer is empty' })).toBeVisible();
});

test('what was removed lies in the bin with all that belonged to it, and comes back; a backup is made', async ({
  watched: page,
  studio,
}) => {
  const data = {
    maker: 'Aldermoor',
    name: 'Binned Sheet',
    coating: 'matt',
    base: 'cotton',
    surface: 'smooth',
    brightenerClaim: 'none',
    weightGsm: 300,
    thicknessUm: 400,
    sizes: [],
    currency: 'EUR',
  };
  const { id } = (await (await page.request.post(`${studio.url}/api/papers`, { data })).json()) as { id: string };
  await page.goto(`${studio.url}/papers`);
  await expect(page.getByText('Binned Sheet').first()).toBeVisible();
  await page.request.delete(`${studio.url}/api/papers/${id}`);
  await step(page, 'Ledger');
  await page.getByRole('link', { name: 'What happened, and the bin' }).click();
  const bin = page.getByRole('region', { name: 'The bin' });
  await expect(bin.getByRole('listitem').filter({ hasText: 'Binned Sheet' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What happened' }).getByRole('listitem').first()).toContainText(
    'removed',
  );
  await expectAccessible(page);
  await bin.getByRole('button', { name: 'Bring paper Binned Sheet back' }).focus();
  await page.keyboard.press('Enter');
  await expect(bin.getByRole('listitem').filter({ hasText: 'Binned Sheet' })).toHaveCount(0);
  const papers = (await (await page.request.get(`${studio.url}/api/papers`)).json()) as { id: string }[];
  expect(papers.map((p) => p.id)).toContain(id);
  await page.request.delete(`${studio.url}/api/papers/${id}`);
  await page.goto(`${studio.url}/ledger/backups`);
  await page.getByRole('button', { name: 'Make a backup now' }).click();
  await expect(page.getByRole('region', { name: 'Backups' }).getByRole('listitem').first()).toContainText('asked for', {
    timeout: 60_000,
  });
  await expectAccessible(page);
});

test('a reading that is filed under the wrong paper is named, kept apart on purpose, and gives no figures', async ({
  watched: page,
  studio,
}) => {
  type Head = { id: string; paper: { name: string }; readings?: { id: string; measurementCondition?: string }[] };
  const heads = (await (await page.request.get(`${studio.url}/api/conditions`)).json()) as Head[];
  const of = async (name: string) => {
    const { id } = heads.find((c) => c.paper.name === name)!;
    return (await (await page.request.get(`${studio.url}/api/conditions/${id}`)).json()) as Head & { facts: object };
  };
  const [slate, chalk] = [await of('Slate Baryta'), await of('Chalk Rag')];
  const reading = chalk.readings!.find((r) => r.measurementCondition === 'M1')!;
  const text = await (await page.request.get(`${studio.url}/api/readings/${reading.id}/file?as=cgats`)).body();
  await page.goto(`${studio.url}/readings/${slate.id}/history`);
  await page
    .getByLabel('Bring a file of readings')
    .setInputFiles({ name: 'today.txt', mimeType: 'text/plain', buffer: text });
  const found = page.getByRole('region', { name: 'What was recognised' });
  await expect(found.getByRole('alert')).toContainText(
    /This looks like Chalk Rag, .* \(0\.\d ΔE00 over \d+ common patches\), not Slate Baryta, .* \(\d+\.\d\)\./,
  );
  await expect(found.getByRole('button', { name: 'Keep these readings' })).toHaveCount(0);
  await expect(found.getByRole('button', { name: /^Import into Chalk Rag/ })).toBeEnabled();
  await expectAccessible(page);
  await found.getByRole('button', { name: 'Keep here, apart' }).press('Enter');
  const kept = page.getByRole('listitem').filter({ hasText: 'today.txt' });
  await expect(kept).toContainText('It gives no figures unless you choose it.');
  expect((await of('Slate Baryta')).facts).toEqual((slate as { facts?: object }).facts);
  const bin = kept.getByRole('button', { name: /: today\.txt, M1$/ });
  await bin.press('Enter');
  await bin.press('Enter');
  await expect(page.getByRole('listitem').filter({ hasText: 'today.txt' })).toHaveCount(0);
});
