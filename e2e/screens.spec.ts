import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectContrast, step, test } from './studio.ts';

const STEPS = ['Papers', 'Readings', 'Compare', 'Pictures', 'Match', 'Proof', 'Prints', 'Ledger'];

// None of these changes anything: whichever worker is free takes the next.
test.describe.configure({ mode: 'parallel' });

/** Accessible by day and in the darker surround, and as it should look. */
async function expectSound(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  await expectAccessible(page);
  // The darker surround changes colours alone.
  await page.keyboard.press('d');
  await expectContrast(page);
  await page.keyboard.press('d');
  await expectFits(page);
}

/** Nothing wider than the window from 1024 px up, greys without tint. */
async function expectFits(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  for (const width of [1024, 1280, 1920]) {
    await page.setViewportSize({ width, height: 800 });
    // Nothing hangs out of the work below the window either.
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollHeight <= window.innerHeight), `${width}, high`)
      .toBe(true);
    // A drawing takes its new width a moment after the window has it.
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), `${width} wide`)
      .toBe(true);
    await expect
      .poll(
        () =>
          page.evaluate(
            () => document.querySelector('main')!.scrollWidth <= document.querySelector('main')!.clientWidth,
          ),
        `main at ${width}`,
      )
      .toBe(true);
  }
  const tinted = await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('body, header, main, aside, h1, p, button:not(.bg-vermilion)')].flatMap(
      (e) => {
        const { backgroundColor, color } = getComputedStyle(e);
        return [backgroundColor, color].filter((c) => {
          const [r, g, b] = c.match(/[\d.]+/g)!.map(Number);
          return !(r === g && g === b);
        });
      },
    ),
  );
  expect(tinted).toEqual([]);
}

test.describe('every screen is accessible, fits and has no colour of its own', () => {
  for (const name of STEPS) {
    test(name, async ({ watched: page, studio }) => {
      await page.goto(studio.url);
      await step(page, name);
      await expectSound(page);
    });
  }

  // Places that no other test of theirs has asked for access are asked here.
  test('the places at the bench', async ({ watched: page, studio }) => {
    test.setTimeout(240_000);
    await page.goto(`${studio.url}/readings`);
    for (const [way, asked] of [
      ['Sets and drift', true],
      ['Profile', true],
      ['Scale, gloss, scan, eye', false],
      ['Charts', false],
      ['Test page', false],
      ['Read a chart', false],
      [/^Everything, A4 on/, true],
    ] as const) {
      await page.getByRole('link', { name: way }).first().click();
      await expectFits(page);
      if (!asked) await expectAccessible(page);
      await page.setViewportSize({ width: 1280, height: 800 });
    }
  });

  test('the places of the comparison, and the packs', async ({ watched: page, studio }) => {
    test.setTimeout(240_000);
    await page.goto(`${studio.url}/compare`);
    for (const [name, asked] of [
      ['Gamut', true],
      ['Neutrals', true],
      ['Light and screen', true],
      ['Surface and body', true],
      ['Media setting', true],
      ['Find a like', false],
      ['By eye', false],
    ] as const) {
      await page.getByRole('navigation', { name: 'Ways to compare' }).getByRole('link', { name }).click();
      await expectFits(page);
      if (!asked) await expectAccessible(page);
    }
    await page.goto(`${studio.url}/papers/packs`);
    await page.getByRole('button', { name: 'Plan a pack' }).click();
    await expectFits(page);
  });

  test('bare: each says what it is for', async ({ watched: page, bare }) => {
    await page.goto(bare.url);
    for (const [name, says] of [
      ['Papers', 'The drawer is empty'],
      ['Readings', 'Nothing to read yet'],
      ['Compare', 'The table is bare'],
      ['Pictures', 'No pictures yet'],
      ['Match', 'No picture selected'],
      ['Proof', 'No picture in hand'],
      ['Prints', 'Nothing was printed yet'],
      ['Ledger', 'The ledger is blank'],
    ] as const) {
      await step(page, name);
      await expect(page.getByRole('heading', { name: says })).toBeVisible();
      await expectAccessible(page);
    }
  });

  test('an address that is none', async ({ watched: page, studio }) => {
    await page.goto(`${studio.url}/nowhere`);
    await expect(page.getByRole('heading', { name: 'There is nothing at this address.' })).toBeVisible();
  });
});

test('bad files say what is wrong, where, and what to do', async ({ watched: page, bare }) => {
  await page.goto(bare.url);
  await step(page, 'Pictures');
  await page.getByLabel('Bring a picture').setInputFiles({
    name: 'photo.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
  });
  await expect(page.getByRole('alert')).toContainText('not a JPEG, PNG or TIFF');
  await expect(page.getByRole('alert')).toContainText('photo.jpg');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('readings that can’t be read are refused at their line', async ({ watched: page, studio }) => {
  await page.goto(`${studio.url}/readings`);
  await page.getByLabel('Bring a file of readings').setInputFiles({
    name: 'cut.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 50 0\n',
    ),
  });
  await expect(page.getByRole('alert')).toContainText('cut.txt, line 6');
});

test.describe('what opens over a screen is accessible, closes with Escape, and gives the focus back', () => {
  for (const [path, opener] of [
    ['/papers', 'Add a paper'],
    ['/papers', 'Change Slate Baryta'],
    ['/papers', 'Add a print condition for Slate Baryta'],
    ['/papers', 'How to read a strip'],
    ['/match', 'Stamp Harbour Lustre held'],
    ['/match', 'Settings'],
    ['/ledger', 'Keys'],
  ] as const) {
    test(opener, async ({ watched: page, studio }) => {
      await page.goto(studio.url + path);
      const button = page.getByRole('button', { name: opener, exact: true });
      await button.focus();
      await page.keyboard.press('Enter');
      await expect(page.getByRole('dialog')).toBeVisible();
      await expectAccessible(page);
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
      await expect(button).toBeFocused();
    });
  }
});

test('what a finger must hit is at least 24 px, and figures are tabular', async ({ watched: page, studio }) => {
  for (const path of [
    '/papers',
    '/readings',
    '/readings/charts',
    '/readings/test-page',
    '/readings/sessions',
    '/compare',
    '/pictures',
    '/match',
    '/proof',
    '/prints',
    '/ledger',
  ]) {
    await page.goto(studio.url + path);
    await page.waitForLoadState('networkidle');
    const small = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('button')]
        .filter((b) => b.offsetParent !== null && b.getAttribute('aria-haspopup') !== 'dialog')
        .flatMap((b) => {
          const { width, height } = b.getBoundingClientRect();
          return width >= 24 && height >= 24
            ? []
            : [`${b.textContent || b.ariaLabel}: ${width.toFixed(0)} × ${height.toFixed(0)}`];
        }),
    );
    expect(small, path).toEqual([]);
  }
  const widths = await page.evaluate(() => {
    const span = document.createElement('span');
    document.body.append(span);
    const widthOf = (text: string) => ((span.textContent = text), span.getBoundingClientRect().width);
    return ['1111111111', '0000000000', '8888888888'].map(widthOf);
  });
  expect(new Set(widths.map((w) => w.toFixed(2))).size).toBe(1);
});
