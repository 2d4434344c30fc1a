import { atBench, expect, expectAccessible, step, Studio, test } from './studio.ts';

test('a chart is laid out while it is described, kept, taken away and removed', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/readings/charts`);
  await page.getByLabel('Purpose').selectOption('Neutral ramp');
  await page.getByLabel(/^Patches/).fill('200');
  const sheet = page.getByRole('region', { name: 'The sheet' });
  await expect(sheet).toContainText(/\b9\d greys/);
  await expect(sheet.getByRole('img', { name: /Sheet 1 of 1, 210 × 297 mm/ })).toBeVisible();
  // What can't be is said at its box, and nothing is kept of it.
  await page.getByLabel(/^Patch mm/).fill('200');
  await expect(page.getByText('200 lies outside 5 to 30')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this chart' })).toBeDisabled();
  await page.getByLabel(/^Patch mm/).fill('9');
  await page.getByLabel('Name').fill('Greys by the window');
  await page.getByRole('button', { name: 'Keep this chart' }).click();
  const kept = page.getByRole('listitem').filter({ hasText: 'Greys by the window' });
  await expect(kept).toContainText('Neutral ramp');
  for (const [link, file] of [
    [/as TIFF/, /\.tif$/],
    [/as PDF/, /\.pdf$/],
    [/^Reference of/, /\.txt$/],
  ] as const) {
    const [taken] = await Promise.all([page.waitForEvent('download'), kept.getByRole('link', { name: link }).click()]);
    expect(taken.suggestedFilename()).toMatch(file);
  }
  await kept.getByRole('button', { name: 'Remove: Greys by the window' }).click();
  await kept.getByRole('button', { name: 'Put in the bin: Greys by the window' }).click();
  await expect(kept).toHaveCount(0);
});

test('a session with a slipped strip, by keyboard: caught, named, read again, finished, and in the history', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/readings`);
  await page.getByLabel('Print condition').selectOption({ label: 'Chalk Rag, Corvane P10 · Fine art matt' });
  await page.getByRole('link', { name: 'Read a chart' }).click();
  await expect(page.getByLabel('Print condition')).toHaveValue(/.+/);
  await page.getByLabel('Chart').selectOption({ label: 'Greys, A4, 261 patches' });
  await page.getByLabel('Every strip').selectOption('once');
  await page.getByLabel(/^Box or formulation/).fill('spring box');
  await page.getByLabel(/^To practise/).selectOption('the second strip starts a patch late');
  // When it was printed is asked: the page does not take now for it.
  await page.getByRole('button', { name: 'Begin to read' }).click();
  await expect(page.getByText('Enter when the chart left the printer.')).toBeVisible();
  const justNow = new Date(Date.now() - 60_000 - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  await page.getByLabel(/^Left the printer/).fill(justNow);
  await page.getByRole('button', { name: 'Begin to read' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Greys, A4' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByRole('main')).toContainText('1 of 9 strips kept');
  await page.keyboard.press('s');
  const alert = page.getByRole('alert').filter({ hasText: 'Strip 2: slipped strip' });
  await expect(alert).toContainText(
    /moved one patch on: the beginning was missed \(median \d\.\d against \d+\.\d ΔE00\)/,
  );
  await expect(alert).toContainText('Read it again, from the lead-in');
  await expect(page.getByRole('radio', { name: 'Strip 2, in question' })).toHaveAttribute('aria-checked', 'true');
  await expectAccessible(page);
  // The next strip waits until this one is mended.
  await expect(page.getByRole('button', { name: /^Read/ }).first()).toBeDisabled();
  await page.keyboard.press('a');
  await expect(alert).toHaveCount(0);
  await page.keyboard.press('s');
  await expect(page.getByRole('main')).toContainText('2 of 9 strips kept');
  await expect(page.getByRole('radio', { name: 'Strip 2, read once' })).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByRole('main')).toContainText('1 of 9 strips kept');
  // Any strip that is kept can be doubted and read again.
  await page.getByRole('radio', { name: 'Strip 1, read once' }).click();
  await page.getByRole('region', { name: 'Strip 1' }).getByRole('button', { name: 'Read it again' }).click();
  await expect(page.getByRole('button', { name: 'Read strip 1' })).toBeVisible();
  await page.keyboard.press('o');
  await expect(page.getByText('Every strip is read.')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Keep the readings' }).click();
  await page.getByRole('link', { name: 'To the readings of Chalk Rag' }).click({ timeout: 30_000 });
  const sets = page.getByRole('region', { name: 'Sets of readings' });
  // Read minutes after it was printed: it does not displace the set that had dried.
  await expect(sets.getByRole('row').filter({ hasText: 'spring box' })).toContainText(/\d min/);
  await expect(sets).toContainText('this one, the newest that had dried');
  await expect(page.getByRole('region', { name: 'Drift' })).toContainText('spring box');
  // A hand may choose the wet one all the same, and let the choice go again.
  await sets.getByRole('radio', { name: /spring box/ }).click();
  await expect(sets.getByRole('row').filter({ hasText: 'spring box' })).toContainText('by your choice');
  await page.getByRole('button', { name: 'Let the newest set give them' }).click();
  await expect(sets.getByRole('row').filter({ hasText: 'the first' })).toContainText('the newest that had dried');
});

// The page is not watched: a server that is killed makes the browser complain, as it should.
test('a session goes on where it stopped after the server was killed', async ({ page }) => {
  const studio = new Studio(undefined, ['--empty']);
  await studio.open();
  const call = (url: string, path: string, data: object) =>
    page.request.post(`${url}/api/${path}`, { data }).then((r) => r.json() as Promise<{ id: string }>);
  const paper = await call(studio.url, 'papers', {
    maker: 'Aldermoor',
    name: 'Coated',
    coating: 'lustre',
    base: 'alpha cellulose',
    surface: 'smooth',
    brightenerClaim: 'low',
    weightGsm: 260,
    thicknessUm: 280,
    sizes: [],
    currency: 'EUR',
  });
  await call(studio.url, 'conditions', {
    paperId: paper.id,
    printer: 'Press',
    inkSet: 'ten inks',
    blackInk: 'photo black',
    mediaSetting: 'Lustre',
    resolution: '1440 dpi',
    printMode: 'colour through a profile',
    profile: '',
    blackOvercoat: false,
  });
  await call(studio.url, 'charts', {
    name: 'Small',
    spec: { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 },
  });
  await page.goto(`${studio.url}/readings/sessions`);
  await page.getByLabel(/^To practise/).selectOption('nothing goes wrong');
  await page.getByLabel(/^Left the printer/).fill('2026-11-20T09:30');
  await page.getByRole('button', { name: 'Begin to read' }).click();
  for (const [label, kept] of [
    ['1', 1],
    ['2', 2],
  ] as const) {
    await page.getByRole('button', { name: `Read strip ${label}` }).click();
    await expect(page.getByRole('main')).toContainText(`${kept} of`);
  }
  await studio.close('SIGKILL');
  await page.keyboard.press('s');
  await expect(page.getByRole('alert')).toContainText('Rakuen does not answer.');
  await page.goto('about:blank');
  const again = new Studio(studio.data, ['--empty']);
  await again.open();
  await page.goto(`${again.url}/readings/sessions`);
  await expect(page.getByText(/stopped after 2 of \d+ strips/)).toBeVisible();
  await page.getByRole('link', { name: 'Small on Coated' }).click();
  await page.getByRole('button', { name: 'Read strip 3' }).click();
  await expect(page.getByRole('main')).toContainText('3 of');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Read strip 4' })).toBeVisible();
  await again.close();
  again.clear();
});

test('a spreadsheet whose columns say nothing is mapped by hand, and the next one like it is known', async ({
  watched: page,
  studio,
}) => {
  const rows = Array.from({ length: 12 }, (_, i) =>
    [`F${i + 1}`, i * 20, i * 20, i * 20, (8 + i * 8).toFixed(1), 0.4, -1.2].join('\t'),
  );
  const sheet = (name: string) => ({
    name,
    mimeType: 'text/plain',
    buffer: Buffer.from(['Feld\tRot\tGrün\tBlau\thell\trotgrün\tgelbblau', ...rows].join('\n')),
  });
  await page.goto(`${studio.url}/readings`);
  await page.getByLabel('Print condition').selectOption({ label: 'Unsized Mulberry, Corvane P10 · Thin uncoated' });
  await atBench(page, 'Sets and drift');
  await page.getByLabel('Bring a file of readings').setInputFiles(sheet('felder.tsv'));
  const columns = page.getByRole('region', { name: 'Columns', exact: true });
  await expect(columns.getByRole('alert')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep these readings' })).toBeDisabled();
  for (const [column, holds] of [
    ['Feld', 'name of the patch'],
    ['Rot', 'device red'],
    ['Grün', 'device green'],
    ['Blau', 'device blue'],
    ['hell', 'L*'],
    ['rotgrün', 'a*'],
    ['gelbblau', 'b*'],
  ] as const) {
    await columns.getByLabel(`${column} holds`, { exact: true }).selectOption(holds);
    await expect(columns.getByLabel(`${column} holds`, { exact: true })).toHaveValue(/.+/);
    await page.waitForLoadState('networkidle');
  }
  await expect(columns.getByRole('alert')).toHaveCount(0);
  const found = page.getByRole('region', { name: 'What was recognised' });
  await expect(found).toContainText('12 patches');
  await expectAccessible(page);
  await found.getByLabel(/^Box or formulation/).fill('by the spreadsheet');
  await found.getByRole('button', { name: 'Keep these readings' }).click();
  const kept = page.getByRole('listitem').filter({ hasText: 'felder.tsv' });
  await expect(kept).toContainText('12 patches');
  await page.getByLabel('Bring a file of readings').setInputFiles(sheet('felder-2.tsv'));
  await expect(columns).toContainText('As you said it the last time');
  await page.getByRole('button', { name: 'Leave them' }).click();
  await kept.getByRole('button', { name: /^Remove: felder/ }).click();
  await kept.getByRole('button', { name: /^Put in the bin/ }).click();
  await expect(kept).toHaveCount(0);
});

test('at the bench: weighed by hand, gloss read by the stand-in, judged with a name and a light, scanned', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/readings`);
  await page.getByLabel('Print condition').selectOption({ label: 'Harbour Lustre, Corvane D6 · Photo paper, best' });
  await atBench(page, 'Scale, gloss, scan, eye');
  const kind = (name: string) => page.getByRole('region', { name, exact: true });

  await kind('Weight').getByLabel('Sheets, one by one').fill('16.2 16,3 heavy');
  await kind('Weight').getByRole('button', { name: 'Keep weight' }).click();
  await expect(kind('Weight').getByRole('alert')).toContainText('Say first who works at the bench');
  await page.getByLabel('Who works at the bench').fill('Ines');
  await kind('Weight').getByRole('button', { name: 'Keep weight' }).click();
  await expect(kind('Weight').getByRole('alert')).toContainText('holds something that is no number');
  await kind('Weight').getByLabel('Sheets, one by one').fill('16.20 16,30 16.25');
  await kind('Weight').getByRole('button', { name: 'Keep weight' }).click();
  await expect(kind('Weight')).toContainText('16.25 g a sheet of 210 × 297 mm, 3 times');

  await kind('Gloss').getByRole('button', { name: 'Read with the simulated gloss meter' }).click();
  await expect(kind('Gloss').getByLabel('60°, bare sheet')).toHaveValue(/\d+\.\d \d+\.\d/);
  await kind('Gloss').getByRole('button', { name: 'Keep gloss' }).click();
  await expect(kind('Gloss').getByLabel('60°, bare sheet')).toHaveValue('');

  await kind('Bronzing').getByLabel('3 clear').check();
  await kind('Bronzing').getByRole('button', { name: 'Keep bronzing' }).click();
  await expect(kind('Bronzing').getByRole('alert')).toContainText('under which light');
  await page.getByLabel('Light for what is judged').fill('window, north');
  await kind('Bronzing').getByRole('button', { name: 'Keep bronzing' }).click();
  await expect(kind('Bronzing').getByRole('list')).toContainText('clear');

  await kind('Texture').getByRole('button', { name: 'Scan with the simulated raking-light scanner' }).click();
  await expect(
    kind('Texture')
      .getByRole('img', { name: /Scan of the bare sheet/ })
      .first(),
  ).toBeVisible();

  await atBench(page, 'Figures');
  const figures = page.getByRole('region', { name: 'Figures' });
  await expect(figures.getByRole('row', { name: /^Weight/ })).toContainText('261');
  await figures
    .getByRole('row', { name: /^Bronzing/ })
    .getByRole('button')
    .click();
  await expect(page.getByRole('dialog')).toContainText('Ines');
  await expect(page.getByRole('dialog')).toContainText('window, north');
  await expect(page.getByRole('dialog')).toContainText('judged');
});

test('the test page shows the print condition’s settings and is taken away', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/readings/test-page`);
  await page.getByLabel('For').selectOption({ label: 'Lantern Matt, Corvane P10 · Enhanced matt' });
  await expect(page.getByLabel('Media setting')).toHaveValue('Enhanced matt');
  const look = page.getByRole('img', { name: /The test page on A4/ });
  await expect
    .poll(() => look.evaluate((img: HTMLImageElement) => img.naturalWidth), { timeout: 20_000 })
    .toBeGreaterThan(600);
  await page.getByLabel(/^Resolution of the file/).fill('100');
  const [file] = await Promise.all([
    page.waitForEvent('download', { timeout: 60_000 }),
    page.getByRole('link', { name: 'Test page as TIFF' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('test-page.tif');
});

test('a paper is taken away whole and brought to another drawer', async ({ watched: page, studio, bare }) => {
  await page.goto(`${studio.url}/papers`);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export Tinroof Metallic, with everything known of it' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/Tinroof Metallic\.rakuen\.json$/);
  const path = await file.path();
  await page.goto(`${bare.url}/papers`);
  await page.getByLabel('Bring a paper').setInputFiles(path);
  await expect(page.getByRole('heading', { name: /Tinroof Metallic/ })).toBeVisible({ timeout: 30_000 });
  await step(page, 'Readings');
  await expect(page.getByRole('region', { name: 'Figures' }).getByRole('row', { name: /^Dmax/ })).toContainText(
    /\d\.\d\d D/,
  );
  await step(page, 'Papers');
  await page.getByLabel('Bring a paper').setInputFiles(path);
  await expect(page.getByRole('alert')).toContainText('Tinroof Metallic');
  await page.getByRole('button', { name: /^Change Corvane/ }).click();
  await page.getByRole('button', { name: 'Remove this print condition' }).click();
  await page.getByRole('button', { name: 'Remove with its readings' }).click();
  await page.getByRole('button', { name: 'Change Tinroof Metallic' }).click();
  await page.getByRole('button', { name: 'Remove this paper' }).click();
  await page.getByRole('button', { name: 'Put in the bin' }).click();
  await expect(page.getByRole('heading', { name: 'The drawer is empty' })).toBeVisible();
});
