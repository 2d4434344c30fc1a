import { expect, expectAccessible, step, test } from './studio.ts';

test('a run of prints on three papers is planned, looked at, ticked, a misprint booked, and what is left waits on', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/prints`);
  const waiting = page.getByRole('region', { name: 'Waiting for the printer' });
  await expect(waiting.getByRole('listitem')).toHaveCount(3);
  // What was chosen is begun by keyboard.
  const chosen = page.getByRole('region', { name: 'Chosen, not yet printed' });
  await chosen.getByRole('button', { name: 'Begin the print' }).first().focus();
  await page.keyboard.press('Enter');
  const back = page.getByRole('article', { name: 'The back of the print' });
  await expect(back).toContainText('The array, from the water tower');
  await step(page, 'Prints');
  await page
    .getByRole('button', { name: /^Print .* again/ })
    .nth(1)
    .click();
  await expect(back).toBeVisible();
  await page.getByRole('link', { name: 'Run sheet' }).click();
  await page.getByRole('button', { name: 'Plan 5 prints' }).click();
  const run = page.getByRole('region', { name: /^Run at the/ });
  await expect(run).toContainText('one change of the black, 3 ml (practice)');
  await expect(
    run.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Mark as printed' }) }),
  ).toHaveCount(5);
  await expectAccessible(page);
  await run.getByLabel('nozzle check').check();
  await expect(run.getByLabel('nozzle check')).toBeChecked();
  await run.getByLabel('coated side').check();
  await run.getByRole('button', { name: 'Sheet spoiled' }).first().click();
  await run.getByLabel('What spoiled it').selectOption('fed askew');
  await run.getByRole('button', { name: 'Book it' }).click();
  await expect(run).toContainText('spoiled so far: 1');
  // It waits for what can spoil the sheet, and says for what.
  const mark = run.getByRole('button', { name: 'Mark as printed', exact: true });
  await expect(mark.first()).toBeDisabled();
  await expect(run.getByText(/^Not checked yet: flat corners/)).toBeVisible();
  for (const name of ['flat corners', /^media setting/, 'colour management off']) {
    const box = run.getByRole('group', { name: 'Before this sheet' }).getByLabel(name);
    if ((await box.count()) > 0) await box.check();
  }
  const right = run.getByRole('button', { name: / is right: / });
  for (let left = await right.count(); left > 0; left--) {
    await right.first().click();
    await expect(right).toHaveCount(left - 1);
  }
  await expect(run.getByText(/^Not checked yet/)).toHaveCount(0);
  await mark.first().click();
  await expect(mark).toHaveCount(4);
  // The next one is passed for a reason.
  await run.getByRole('button', { name: 'Mark as printed without these checks' }).click();
  await run.getByLabel('Why it was printed without them').fill('same stack');
  await page.keyboard.press('Enter');
  await expect(mark).toHaveCount(3);
  // What a finger must hit is large enough on a tablet, too.
  await page.setViewportSize({ width: 820, height: 1180 });
  const box = await run.getByRole('button', { name: 'Mark as printed', exact: true }).first().boundingBox();
  expect(box!.height).toBeGreaterThanOrEqual(44);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(820);
  await page.setViewportSize({ width: 1280, height: 800 });
  await run.getByRole('button', { name: 'Close the run; the rest waits on' }).click();
  await expect(run).toHaveCount(0);
  await step(page, 'Prints');
  await expect(waiting.getByRole('listitem')).toHaveCount(3);
});

test('what differs from the last sheet must be looked at before it is printed', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/prints`);
  await page.getByRole('link', { name: 'Salt crust at noon on Chalk Rag' }).click();
  const back = page.getByRole('article', { name: 'The back of the print' });
  const differs = back.getByRole('region', { name: 'Differs from last time' });
  const right = differs.getByRole('button', { name: 'Setting is right' });
  await expect(right.first()).toBeVisible();
  for (let left = await right.count(); left > 0; left--) {
    await expect(back.getByRole('button', { name: 'Mark as printed', exact: true })).toBeDisabled();
    await right.first().click();
    await expect(right).toHaveCount(left - 1);
  }
  await expect(differs.getByRole('button', { name: 'Setting is right' })).toHaveCount(0);
  await expect(back.getByRole('button', { name: 'Mark as printed', exact: true })).toBeEnabled();
  const cost = page.getByRole('region', { name: 'Cost' });
  await expect(cost.getByRole('table', { name: 'On the other sheets on the table' })).toContainText(
    /Slate Baryta.*\d\.\d\d EUR/,
  );
  await cost.getByLabel('At a price of').fill('90');
  await expect(cost.getByRole('status', { name: 'What the price leaves' })).toContainText('% are left');
  await cost.getByLabel('To keep').fill('60');
  await expect(cost.getByRole('status', { name: 'The price that leaves it' })).toContainText('EUR');
  await expectAccessible(page);
});

test('a print repeated after its paper was reformulated is warned before it is printed', async ({
  watched: page,
  studio,
}) => {
  const made = (await (await page.request.get(`${studio.url}/api/prints`)).json()) as {
    conditionId: string;
    pictureId: string;
    printedOn: string;
  }[];
  const [print] = [...made].sort((p, q) => p.printedOn.localeCompare(q.printedOn));
  const pictures = (await (await page.request.get(`${studio.url}/api/pictures`)).json()) as {
    id: string;
    title: string;
  }[];
  const { title } = pictures.find((p) => p.id === print.pictureId)!;
  const box =
    'CGATS.17\nCREATED "2026-11-20"\nNUMBER_OF_FIELDS 7\nBEGIN_DATA_FORMAT\nSAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS 2\nBEGIN_DATA\n1 255 255 255 94 0 3\n2 0 0 0 9 0 0\nEND_DATA\n';
  const kept = await page.request.post(`${studio.url}/api/conditions/${print.conditionId}/readings`, {
    multipart: {
      measurementCondition: 'M1',
      batch: 'reformulated box',
      file: { name: 'box.txt', mimeType: 'text/plain', buffer: Buffer.from(box) },
    },
  });
  expect(kept.status()).toBe(201);
  const reading = ((await kept.json()) as { readings: { id: string; batch: string }[] }).readings.find(
    (r) => r.batch === 'reformulated box',
  )!;
  await page.goto(`${studio.url}/prints`);
  await page
    .getByRole('button', { name: `Print ${title} again` })
    .last()
    .click();
  await expect(page.getByText(/A later box \(reformulated box\) was read on 2026-11-20/)).toBeVisible();
  await expectAccessible(page);
  // The studio is as it was for those that come after.
  const id = page.url().split('/').at(-1)!;
  await page.request.delete(`${studio.url}/api/prints/${id}`);
  await page.request.delete(`${studio.url}/api/readings/${reading.id}`);
});

test('an edition is numbered from two windows; no number twice; a certificate and a label are made', async ({
  watched: page,
  studio,
}) => {
  const other = await page.context().newPage();
  await page.goto(`${studio.url}/prints/editions`);
  await other.goto(`${studio.url}/prints/editions`);
  await page.getByRole('button', { name: 'Begin an edition' }).click();
  const form = page.getByRole('form', { name: 'Begin an edition' });
  await form.getByLabel('Picture').selectOption({ label: 'Lichen on the plinth' });
  await form.getByLabel(/^Numbered prints/).fill('5');
  await form.getByLabel('Name').fill('Five for the fair');
  await form.getByLabel(/^Width/).fill('254');
  await form.getByLabel(/^Height/).fill('169');
  await form.getByRole('button', { name: 'Create the edition' }).click();
  await expect(page.getByRole('region', { name: 'Five for the fair' })).toContainText('0 of 5 given');
  await other.reload();
  await Promise.all(
    [page, other].map((p) =>
      p
        .getByRole('region', { name: 'Five for the fair' })
        .getByRole('button', { name: 'Give the next number' })
        .click(),
    ),
  );
  await page.reload();
  const numbers = page.getByRole('list', { name: 'Numbers of Five for the fair' });
  await expect(numbers.getByRole('listitem')).toHaveCount(2);
  await expect(numbers).toContainText('1/5');
  await expect(numbers).toContainText('2/5');
  await page.getByRole('button', { name: 'Move 1/5' }).click();
  await page.getByLabel('Now').selectOption('sold');
  await page.getByLabel('To whom').fill('A. Brandt');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(numbers).toContainText('sold to A. Brandt');
  const certificate = await page.request.get(
    (await page.getByRole('link', { name: 'Certificate of 1/5' }).getAttribute('href'))!.replace(/^/, studio.url),
  );
  expect((await certificate.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await other.close();
});

test('prints and cards are laid on a sheet, with waste and cuts', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/prints/layout`);
  await expect(
    page.getByText(/^Proposed: Slate Baryta, A3\+ in stock\. Slate Baryta is in the left hand/),
  ).toBeVisible();
  await page.getByLabel('On', { exact: true }).selectOption({ label: 'Lantern Matt, A4 in stock' });
  await page.getByRole('button', { name: 'A print of any size' }).click();
  await page.getByRole('button', { name: 'A card' }).click();
  const layout = page.getByRole('region', { name: 'The layout' });
  await expect(layout).toContainText('one sheet');
  await expect(layout).toContainText('% waste');
  await expect(layout.getByRole('list', { name: 'Cuts in order' }).getByRole('listitem').first()).toHaveText(
    /^1 (across|down) at \d+ mm: parts .+ from .+/,
  );
  await page.getByLabel('Copies').first().fill('9');
  await page.getByLabel('Copies').first().blur();
  await expect(layout).toContainText(/[2-9] sheets/);
  await page.getByLabel('Caption under it').first().fill('2/12 · Salt at noon');
  await expect(layout.getByText('2/12 · Salt at noon').first()).toBeVisible();
  await page.getByLabel('top', { exact: true }).check();
  await expect(layout).toContainText('mm along it are kept free');
  await page.getByLabel('Unprintable margin').fill('0');
  await page.getByLabel('top', { exact: true }).uncheck();
  await expect(layout).toContainText(/Printed to the edge: Corvane [A-Z0-9]+, by the auto feeder/);
  await expectAccessible(page);
});

test('a note is written, found, taken away and brought back; a ledger is read back', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/ledger`);
  await page.getByRole('button', { name: 'Write a note' }).click();
  await page.keyboard.type('The north window fools the eye in October.');
  await page.getByLabel('About').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Enter it' }).click();
  const note = page.getByRole('listitem').filter({ hasText: 'fools the eye' });
  await expect(note).toHaveCount(1);
  const json = await page.request.get(`${studio.url}/api/ledger.json`);
  await page.getByLabel('Read a ledger back').setInputFiles({
    name: 'ledger.json',
    mimeType: 'application/json',
    buffer: await json.body(),
  });
  await expect(page.getByRole('status').filter({ hasText: 'were here already' })).toContainText('0 entered');
  await expectAccessible(page);
  await note.getByRole('link').first().click();
  await page.getByRole('button', { name: /^Take the note of/ }).click();
  await expect(page.getByText('fools the eye')).toHaveCount(0);
  await page.goto(`${studio.url}/ledger/happened`);
  await page.getByRole('button', { name: /^Bring note The north window/ }).click();
  await page.goto(`${studio.url}/ledger`);
  await expect(note).toHaveCount(1);
});

test('the book: a paper’s life and a picture’s; what is asked is answered in figures; a label’s address opens its print', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/ledger`);
  await page.getByLabel('Search the ledger').fill('muddy');
  await expect(page.getByRole('status').filter({ hasText: 'Found' })).toContainText('prints of');
  await page.getByRole('link', { name: 'The fourth dish, after ten' }).first().click();
  await expect(page.getByRole('region', { name: 'Sheets tried' })).toContainText('The dish sinks into the plain.');
  await expectAccessible(page);
  const prints = (await (await page.request.get(`${studio.url}/api/prints`)).json()) as { id: string; code: string }[];
  for (const address of [`ledger/prints/${prints[0].id}`, `p/${prints[0].code}`]) {
    await page.goto(`${studio.url}/${address}`);
    await expect(page.getByRole('article', { name: 'The back of the print' })).toBeVisible();
    expect(page.url()).toContain(prints[0].id);
  }
  // The code is typed from a label, small and without its marks.
  await page.goto(`${studio.url}/ledger`);
  await page.getByLabel('Search the ledger').fill(prints[0].code.toLowerCase().replaceAll('-', ''));
  await expect(page.getByRole('status').filter({ hasText: 'Found' })).toContainText(
    /Found: one print .*of one picture/,
  );
  await page.goto(`${studio.url}/prints/drawer`);
  await expect(page.getByRole('region', { name: 'Spoiled in the last quarter' })).toContainText('Wilson 1927');
  const drawer = page.getByRole('region', { name: 'In the drawer' });
  await drawer
    .getByRole('button', { name: /^\d+ of 25 sheets$/ })
    .first()
    .click();
  await expect(page.getByRole('dialog')).toContainText('25 sheets when it was bought');
  await page.keyboard.press('Escape');
  await drawer.getByRole('link', { name: 'Chalk Rag' }).click();
  await expect(page.getByRole('region', { name: 'Verdicts' })).toContainText('“muddy” was said of three');
  // What was printed last comes first; what was only decided comes after.
  const on = page.getByRole('region', { name: 'Pictures on it' }).getByRole('listitem');
  const told = await on.allInnerTexts();
  const printed = told.map((t) => !t.includes('not printed'));
  expect(printed).toEqual([...printed].sort((a, b) => Number(b) - Number(a)));
  await page.reload();
  await expect(on.first()).toBeVisible();
  expect(await on.allInnerTexts()).toEqual(told);
  await expectAccessible(page);
});

for (const timezoneId of ['America/New_York', 'Pacific/Kiritimati'])
  test(`a print keeps its day in ${timezoneId}`, async ({ watched: page, studio }) => {
    const [print] = (await (await page.request.get(`${studio.url}/api/prints`)).json()) as { printedOn: string }[];
    const [year, month, day] = print.printedOn.split('-').map(Number);
    const words = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
    const context = await page.context().browser()!.newContext({ timezoneId, locale: 'en-GB' });
    const there = await context.newPage();
    await there.goto(`${studio.url}/prints`);
    const shown = words.format(new Date(Date.UTC(year, month - 1, day)));
    await expect(there.getByRole('region', { name: 'Prints made' }).getByRole('listitem').first()).toContainText(shown);
    await context.close();
  });
