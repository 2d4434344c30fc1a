import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible } from './studio.ts';
import { BARYTA, BRIGHT, idsOf, lay, PLAIN, test } from './table.ts';

const place = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Ways to compare' }).getByRole('link', { name }).click();
const whites = async (page: Page) => {
  const cells = page.getByRole('row', { name: /^Paper white/ }).getByRole('cell');
  return Promise.all(
    [1, 2].map(async (i) =>
      Number(((await cells.nth(i).innerText()).split('±')[0].match(/[−\d.]+(?=\D*$)/) ?? ['0'])[0].replace('−', '-')),
    ),
  );
};

test('under another light the brightened white moves and the other stays; glass costs black', async ({
  watched: page,
  studio,
}) => {
  await lay(page, studio, [BRIGHT, PLAIN]);
  await page.goto(`${studio.url}/compare`);
  const told = page.getByRole('list', { name: 'What can be seen' });
  await expect(page.getByRole('list', { name: 'By the light, the lamp and the hand' })).toContainText(
    /Under D50 with its UV the left white is \d\.\d bluer; without UV (the two whites are the same|they lie)/,
    { timeout: 30_000 },
  );
  // The pair is drawn beside what is said of it.
  const drawn = page.getByRole('img', {
    name: 'Greatest chroma of Lantern Matt, a whole line, and Chalk Rag, a broken line, at every hue',
  });
  await expect(drawn).toBeVisible();
  const [bright, plain] = await whites(page);
  await page.getByLabel('Light over the table').selectOption({ label: 'D50 without UV' });
  await expect.poll(async () => (await whites(page))[0] - bright, { timeout: 15_000 }).toBeGreaterThan(3);
  expect(Math.abs((await whites(page))[1] - plain)).toBeLessThan(0.4);
  const dmax = page.getByRole('row', { name: /^Dmax/ }).getByRole('cell').nth(2);
  const bare = Number((await dmax.innerText()).match(/\d\.\d+/)![0]);
  await page.getByLabel('Glass before it').selectOption({ label: 'plain glass' });
  await expect.poll(async () => bare - Number((await dmax.innerText()).match(/\d\.\d+/)![0])).toBeGreaterThan(0.1);
  // What was measured under a light of its own says nothing of this one.
  await expect(told).not.toContainText('brightened');
  // A figure says for which light it was recomputed.
  await dmax.getByRole('button').click();
  await expect(page.getByRole('dialog')).toContainText('D50 without UV, behind plain glass');
  await page.keyboard.press('Escape');
  // The light stays over the table after a reload.
  await page.reload();
  await expect(page.getByLabel('Light over the table')).toHaveValue('D50-no-uv');
  await page.getByLabel('Glass before it').selectOption({ label: 'no glass' });
  await place(page, 'Light and screen');
  await expect(
    page.getByRole('region', { name: 'Turns from light to light' }).getByRole('columnheader').nth(1),
  ).toContainText('Chalk Rag');
  await page.getByLabel('Monitor white').selectOption('D65');
  await expect(page.getByText(/Lantern Matt can’t be matched whole|Set to the paper’s white/).first()).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Light over the table').selectOption({ label: 'D50 with its UV' });
});

test('a lamp’s spectrum is imported and hangs over the table; a broken one is refused at its line', async ({
  watched: page,
  studio,
}) => {
  await lay(page, studio, [BRIGHT, PLAIN]);
  await page.goto(`${studio.url}/compare`);
  const rows = Array.from({ length: 36 }, (_, i) => `${380 + i * 10};${(1 + i / 8).toFixed(2).replace('.', ',')}`);
  await page.getByLabel('Light over the table').selectOption({ label: 'Import a lamp…' });
  await page.getByLabel('Name').fill('Lamp by the easel');
  await page.getByLabel('Import a spectrum').setInputFiles({
    name: 'lamp.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(rows.map((r, i) => (i === 4 ? '420;bright' : r)).join('\n')),
  });
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('line 5');
  await page
    .getByLabel('Import a spectrum')
    .setInputFiles({ name: 'lamp.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByLabel('Light over the table').locator('option:checked')).toHaveText(
    'Lamp by the easel (UV not measured)',
  );
  await page.getByLabel('Light over the table').selectOption({ label: 'Import a lamp…' });
  // What is known of its UV is said, and stands wherever the lamp is named.
  await expect(page.getByRole('dialog')).toContainText('Measured from 380 nm: its UV is not in the file.');
  await page.getByLabel('UV of Lamp by the easel').selectOption({ label: 'none: a white LED' });
  await expect(page.getByLabel('Light over the table').locator('option:checked')).toHaveText(
    'Lamp by the easel (UV taken as none, a white LED)',
  );
  await page.getByRole('button', { name: 'Remove Lamp by the easel' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).last().click();
  await expect(page.getByLabel('Light over the table').locator('option:checked')).toHaveText('D50 with its UV');
});

test('the table of measures: put in order, hidden, as differences; taken away', async ({ watched: page, studio }) => {
  await lay(page, studio, [PLAIN, BARYTA, BRIGHT]);
  await page.goto(`${studio.url}/compare`);
  const heads = page.getByRole('region', { name: 'All measures' }).getByRole('columnheader');
  await expect(heads.nth(2)).toContainText('Chalk Rag');
  await page.getByRole('row', { name: /^Dmax/ }).hover();
  await page.getByRole('button', { name: 'Order the papers by Dmax' }).click();
  await expect(heads.nth(2)).toContainText('Slate Baryta');
  await expect(page.getByRole('row', { name: /^Dmax/ })).toContainText(/1\.\s*2\.5.*best/s);
  await page.getByLabel('Differences from the left hand').check();
  await expect(page.getByRole('row', { name: /^Dmax/ })).toContainText('+0.8');
  await page.getByRole('row', { name: /^CIE tint/ }).hover();
  await page.getByRole('button', { name: 'Hide CIE tint' }).click();
  await expect(page.getByRole('row', { name: /^CIE tint/ })).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('row', { name: /^CIE tint/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show 1 hidden measure' }).click();
  await expect(page.getByRole('row', { name: /^CIE tint/ })).toBeVisible();
  for (const [link, name] of [
    ['The comparison as CSV', 'rakuen-comparison.csv'],
    ['The comparison as PDF', 'rakuen-comparison.pdf'],
  ] as const) {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: link }).click()]);
    expect(file.suggestedFilename()).toBe(name);
  }
  const [drawing] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Gamut outline as SVG' }).click(),
  ]);
  expect(readFileSync(await drawing.path(), 'utf8')).toMatch(/^<svg[^>]+xmlns="http:\/\/www.w3.org\/2000\/svg"/);
});

test('a media setting is stamped and found again', async ({ watched: page, studio }) => {
  await lay(page, studio, [BARYTA, PLAIN]);
  await page.goto(`${studio.url}/compare/setting`);
  const ranked = page.getByRole('region', { name: 'Settings, ranked' });
  await expect(ranked.getByRole('row').nth(1)).toContainText('1. Heavy gloss fibre');
  await page.getByRole('button', { name: 'Choose Heavy gloss fibre' }).click();
  await page.getByRole('button', { name: 'Stamp it' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why');
  await page.getByLabel('Why, in your words').fill('The shadows open, and the greys stay grey.');
  await page.getByLabel('Who chose').fill('Ines');
  await page.getByRole('button', { name: 'Stamp it' }).click();
  await page.reload();
  const standing = page.getByRole('region', { name: 'Standing recommendation' });
  await expect(standing).toContainText('Heavy gloss fibre stands for Slate Baryta in Corvane P10');
  await expect(standing).toContainText('The shadows open');
  await expectAccessible(page);
  await page.goto(`${studio.url}/papers`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Slate Baryta' }).first()).toContainText(
    'standing setting',
  );
  // A print that is sent with it sees why; one that is sent with another is told so, with the reason.
  for (const [paper, where, said] of [
    [BARYTA, 'Standing setting', 'Sent with Heavy gloss fibre, the standing setting'],
    ['Slate Baryta, Plain photo', 'Differs from last time', 'the standing setting of this paper is Heavy gloss fibre'],
  ] as const) {
    const pictures = (await (await page.request.get(`${studio.url}/api/pictures`)).json()) as { id: string }[];
    const begun = await page.request.post(`${studio.url}/api/prints/begin`, {
      data: { pictureId: pictures[0].id, conditionId: (await idsOf(page, studio, [paper]))[0] },
    });
    const { id } = (await begun.json()) as { id: string };
    await page.goto(`${studio.url}/prints/${id}`);
    await expect(page.getByRole('region', { name: where })).toContainText(said);
    await expect(page.getByRole('region', { name: where })).toContainText('the greys stay grey');
    await page.request.delete(`${studio.url}/api/prints/${id}`);
  }
  await page.goto(`${studio.url}/compare/setting`);
  await standing.getByRole('button', { name: 'Take it back' }).click();
  // What was stamped before it stands again.
  await expect(standing).not.toContainText('The shadows open, and the greys stay grey.');
  await expect(standing).toContainText('Blacker and no gloss lost');
});

test('three prints are compared blind, by key, and distinguished; the instrument agrees', async ({
  watched: page,
  studio,
}) => {
  await lay(page, studio, [BARYTA, BRIGHT, PLAIN]);
  await page.goto(`${studio.url}/compare/eye`);
  // Twice decides nothing, and it is said before the first look.
  await page.getByLabel(/^Each pair/).fill('2');
  await expect(
    page.getByText('Too few to find such a difference: it needs each pair 7 times, 21 looks.'),
  ).toBeVisible();
  await page.getByLabel(/^Each pair/).fill('6');
  await page.getByLabel('Who looks').fill('Ines');
  await page.getByLabel('Light', { exact: true }).fill('D50, 2000 lx');
  await page.getByRole('button', { name: 'Begin to look' }).click();
  await expect(page.getByRole('button', { name: 'The codes are on the backs' })).toBeVisible();
  // No name on this screen; the codes are on another, for whoever lays the prints out.
  const href = await page.getByRole('link', { name: /^The codes, for the person/ }).getAttribute('href');
  const other = await page.context().newPage();
  await other.goto(studio.url + href!);
  await expect(other.getByRole('listitem').filter({ hasText: 'Slate Baryta, Corvane' }).first()).toBeVisible();
  const labels = await other
    .getByRole('listitem')
    .filter({ hasText: /Slate|Lantern|Chalk/ })
    .allInnerTexts();
  await other.close();
  // The observer of this test sees the truth: baryta before bright matt before rag.
  const rank = new Map(
    labels
      .filter((l) => /^[A-Z]{2}\s/.test(l))
      .map((l) => [l.slice(0, 2), l.includes('Slate') ? 0 : l.includes('Lantern') ? 1 : 2]),
  );
  await page.getByRole('button', { name: 'The codes are on the backs' }).click();
  for (let pair = 1; pair <= 18; pair++) {
    await expect(page.getByText(`Look ${pair} of 18`)).toBeVisible();
    const [left, right] = await Promise.all(
      [/^Left:/, /^Right:/].map(async (side) =>
        (await page.getByRole('button', { name: side }).getAttribute('aria-label'))!.slice(-2),
      ),
    );
    await page.keyboard.press(rank.get(left)! < rank.get(right)! ? 'ArrowLeft' : 'ArrowRight');
  }
  await expect(page.getByText('By this eye, Slate Baryta comes first.')).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^1\. Slate Baryta: .*; 2\. Lantern Matt: .*; 3\. Chalk Rag/ }),
  ).toBeVisible();
  await expect(page.getByRole('table').getByRole('row', { name: /Slate Baryta/ })).toContainText(/2\.5\d D/);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Back to the comparisons' }).click();
  await expect(page.getByRole('region', { name: 'What eyes have said' })).toContainText('distinguishable');
  await expect(page.getByRole('region', { name: 'What eyes have said' })).toContainText(
    'Slate Baryta · Lantern Matt · Chalk Rag',
  );
});

test('a like is found for a sheet out of stock', async ({ watched: page, studio }) => {
  await lay(page, studio, ['Unsized Mulberry, Thin uncoated', BARYTA]);
  await page.goto(`${studio.url}/compare/like`);
  const overall = page.getByRole('region', { name: 'Nearest overall' });
  await expect(overall.getByRole('listitem').first()).toBeVisible();
  // It is printed through a profile already: it is not told that it lacks one.
  await expect(page.getByRole('region', { name: 'A profile to begin with' })).toHaveCount(0);
  const before = await overall.getByRole('listitem').first().innerText();
  expect(before).toMatch(/white \d+\.\d ΔE00 apart \(\d+\.\d steps\), .*black [+−]\d\.\d\d D/);
  for (const slider of await overall.getByRole('slider').all()) {
    if ((await slider.getAttribute('aria-labelledby')) === 'weight-weight') continue;
    await slider.focus();
    await page.keyboard.press('Home');
  }
  // By weight alone the lightest comes first.
  await expect(overall.getByRole('listitem').first()).toContainText('Lantern Matt');
});

test('neutrals and surface are drawn for what lies on the table', async ({ watched: page, studio }) => {
  await lay(page, studio, [BARYTA, PLAIN, BRIGHT]);
  await page.goto(`${studio.url}/compare/neutrals`);
  await expect(page.getByRole('img', { name: /^Off the line: A, Slate Baryta/ })).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^Steps from black: first separate at \d+(\.\d)? % from black/ }).first(),
  ).toBeVisible();
  await expectAccessible(page);
  await place(page, 'Surface and body');
  const lit = page.getByRole('img', { name: /^Slate Baryta, 12 mm of its surface lit from 0°/ });
  await expect(lit).toBeVisible();
  await page.waitForTimeout(800);
  const before = (await lit.screenshot()).toString('base64');
  await page.getByRole('slider').focus();
  for (let i = 0; i < 18; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Lamp from 90°')).toBeVisible();
  expect((await page.getByRole('img', { name: /^Slate Baryta, 12 mm/ }).screenshot()).toString('base64')).not.toBe(
    before,
  );
  await expectAccessible(page);
});

test('a sample pack is planned to scale, kept, and ticked off', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/papers`);
  await page.getByRole('link', { name: 'Sample packs' }).click();
  await page.getByRole('button', { name: 'Plan a pack' }).click();
  await page.getByLabel('Name').fill('Winter samples');
  await page.getByLabel('Chart').selectOption({ label: 'Greys, A4, 1 sheet' });
  const plan = page.getByRole('region', { name: 'The plan' });
  await expect(plan.getByRole('img', { name: /^Sheet 1: Greys, A4; 100 % used/ })).toBeVisible();
  await expect(plan).toContainText('3 sheets printed, 1 left.');
  await page.getByLabel('Sheets of each type').fill('2');
  await expect(plan.getByRole('alert')).toContainText('No room for');
  await page.getByLabel('Sheets of each type').fill('4');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  const pack = page.getByRole('listitem').filter({ hasText: 'Winter samples' }).first();
  await expect(pack).toContainText(/0 of \d+ sheets printed/);
  await pack.getByLabel('Sheet 1, printed').first().click();
  await expect(pack).toContainText(/1 of \d+ sheets printed/);
  await page.reload();
  await expect(pack.getByLabel('Sheet 1, printed').first()).toBeChecked();
  await expect(pack.getByRole('link', { name: /^Read the chart of/ }).first()).toBeVisible();
  await pack.getByRole('button', { name: 'Remove: Winter samples' }).click();
  await pack.getByRole('button', { name: 'Put in the bin: Winter samples' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Winter samples' })).toHaveCount(0);
});
