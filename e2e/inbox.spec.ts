import type { Page } from '@playwright/test';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn } from '@rakuen/core/simulation/stand-in';
import { scatteredChart } from '../core/test/sheets.ts';
import { expect, expectAccessible, test } from './studio.ts';

const COATINGS = { Dove: 'matt', Heron: 'baryta', Lapwing: 'lustre', Plover: 'canvas', Curlew: 'uncoated' } as const;
type Paper = keyof typeof COATINGS;
const PAPERS = Object.keys(COATINGS) as Paper[];
const chart = scatteredChart(100);

function file(paper: Paper, light: 'M1' | 'M2', said: Record<string, string>): string {
  const sheet = standIn({
    coating: COATINGS[paper],
    surface: 'smooth',
    brightenerClaim: 'moderate',
    weightGsm: 230,
    thicknessUm: 300,
    blackInk: 'matt black',
    mediaSetting: 'Enhanced matt',
    printMode: 'colour through a profile',
    blackOvercoat: false,
    sheetName: paper,
  });
  const head = Object.entries(said).map(([k, v]) => `${k}\t"${v}"`);
  return writeCgats(readChart(sheet, chart, light, 3)).replace(/^(CGATS\S*)\r?\n/, `$1\n${head.join('\n')}\n`);
}
const heads = (paper: Paper) => ({
  PAPER: paper,
  PAPER_MAKER: 'Ostermoor',
  PAPER_WEIGHT: '230',
  PRINTER: 'Corvane P10',
  INK_SET: 'Deepset pigment',
  BLACK_INK: 'Matt black',
  MEDIA_SETTING: 'Enhanced matt',
});

async function drop(page: Page, files: readonly (readonly [name: string, text: string])[]) {
  const data = await page.evaluateHandle((all) => {
    const transfer = new DataTransfer();
    for (const [name, text] of all) transfer.items.add(new File([text], name, { type: 'text/plain' }));
    return transfer;
  }, files);
  await page.locator('main').dispatchEvent('drop', { dataTransfer: data });
}

/** Counts what a hand does. */
async function countClicks(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const count = () => sessionStorage.setItem('clicks', String(Number(sessionStorage.getItem('clicks') ?? 0) + 1));
    window.addEventListener('click', count, true);
  });
  return async () => Number(await page.evaluate(() => sessionStorage.getItem('clicks') ?? '0'));
}

test('ten files of five papers into an empty studio: dropped on any screen, kept over a reload, imported in a few clicks', async ({
  page,
  own,
}) => {
  const clicks = await countClicks(page);
  await page.goto(`${own.url}/ledger`);
  // Four papers say in their heads what they are; of the fifth only the names of its files speak.
  const files = PAPERS.flatMap((paper) =>
    (['M1', 'M2'] as const).map((light) =>
      paper === 'Curlew'
        ? ([`Curlew 90 g ${light}.txt`, file(paper, light, {})] as const)
        : ([`${paper.toLowerCase()}-${light}.txt`, file(paper, light, heads(paper))] as const),
    ),
  );
  await drop(page, [...files, ['notes.bin', '\u0001\u0002\u0003']]);
  await expect(page.getByRole('heading', { name: 'Inbox', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Inbox (10)' })).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  const rows = page.getByRole('list', { name: 'Files that came in' }).getByRole('listitem');
  await expect(rows).toHaveCount(11);
  await expect(rows.first()).toContainText('A new paper, Ostermoor Dove, 230 g/m²: Corvane P10, Deepset pigment');
  await expect(rows.last()).toContainText('Refused: This is nothing that is read here.');
  await page.getByRole('button', { name: 'Import all that are certain (8)' }).click();
  await expect(page.getByText('8 files are imported.')).toBeVisible();
  await expect(rows.first()).toContainText('Imported: Dove, Enhanced matt.');
  const curlew = rows.filter({ hasText: 'Curlew 90 g M1.txt' });
  await expect(curlew).toContainText('Taken from its name only');
  await curlew.getByRole('button', { name: /Place Curlew 90 g M1/ }).click();
  const dialog = page.getByRole('dialog');
  // What the file says, and what was printed last, stands there already.
  await expect(dialog.getByLabel('Paper', { exact: true })).toHaveValue('Curlew');
  await expect(dialog.getByLabel('Weight')).toHaveValue('90');
  await expect(dialog.getByLabel('Printer')).toHaveValue('Corvane P10');
  await expect(dialog.getByLabel('Ink set')).toHaveValue('Deepset pigment');
  await expect(dialog.getByLabel('Maker')).toHaveAttribute('aria-required', 'true');
  await expectAccessible(page);
  await dialog.getByLabel('Maker').fill('Reedmere');
  await dialog.getByLabel('Media setting').fill('Plain');
  await dialog.getByRole('button', { name: 'Import Curlew 90 g M1.txt' }).click();
  await expect(curlew).toContainText('Imported: Curlew, Plain.');
  // Its second file is placed by the first: a paper of that name is there now.
  const second = rows.filter({ hasText: 'Curlew 90 g M2.txt' });
  await expect(second).toContainText('Reedmere Curlew');
  await second.getByRole('button', { name: /Place Curlew 90 g M2/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Import Curlew 90 g M2.txt' }).click();
  await expect(second).toContainText('Imported: Curlew, Plain.');
  expect(await clicks()).toBeLessThanOrEqual(12);
  const answer = await page.request.get(`${own.url}/api/conditions`);
  const conditions = (await answer.json()) as { paper: { name: string; weightGsm: number } }[];
  expect(conditions.map((c) => [c.paper.name, c.paper.weightGsm])).toEqual(
    PAPERS.map((p) => [p, p === 'Curlew' ? 90 : 230]),
  );
});

test('a row that has just changed takes no click, and clicking fast files nothing into another paper', async ({
  page,
  own,
}) => {
  await page.goto(`${own.url}/inbox`);
  await drop(page, [
    ['dove.txt', file('Dove', 'M1', heads('Dove'))],
    ['heron.txt', file('Heron', 'M1', heads('Heron'))],
  ]);
  const place = page.getByRole('button', { name: /Place dove|Elsewhere/ }).first();
  await expect(place).toBeDisabled();
  await expect(place).toBeEnabled();
  await page.getByRole('button', { name: 'Import all that are certain (2)' }).dblclick();
  await expect(page.getByText('Imported: Heron, Enhanced matt.')).toBeVisible();
  const answer = await page.request.get(`${own.url}/api/inbox`);
  const { files } = (await answer.json()) as { files: { name: string; importedAs: string }[] };
  expect(files.map((f) => [f.name, f.importedAs])).toEqual([
    ['dove.txt', 'Dove, Enhanced matt'],
    ['heron.txt', 'Heron, Enhanced matt'],
  ]);
});
