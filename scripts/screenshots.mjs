import { mkdirSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { chromium } from 'playwright-core';
import { build, ROOT } from './setup.mjs';

/** One current picture of each main view, made from the demo studio. */
const FOLDER = join(ROOT, 'docs/screenshots');
const VIEWS = [
  ['papers', '/papers'],
  ['readings', '/readings'],
  [
    'inbox',
    '/inbox',
    async (page) => {
      await page.evaluate(bringSome);
      await page.reload();
      await page.getByText('looks like it').first().waitFor({ timeout: 60_000 });
    },
  ],
  [
    'history',
    '/readings',
    async (page) => {
      await page.getByRole('link', { name: 'Sets and drift' }).click();
      await page.getByRole('region', { name: 'Drift' }).waitFor({ timeout: 60_000 });
    },
  ],
  ['bench', '/readings', (page) => page.getByRole('link', { name: 'Scale, gloss, scan, eye' }).click()],
  [
    'profile',
    '/readings',
    async (page) => {
      await page.getByRole('navigation', { name: 'At the bench' }).getByRole('link', { name: 'Profile' }).click();
      await page.getByRole('button', { name: 'Write the profile' }).click();
      await page
        .getByRole('link', { name: /as a file$/ })
        .first()
        .waitFor({ timeout: 60_000 });
    },
  ],
  [
    'session',
    '/readings/sessions',
    async (page) => {
      await page.getByLabel(/^To practise/).selectOption('slipped');
      // A minute ago, on the clock of the wall.
      const justNow = new Date(Date.now() - 60_000 - new Date().getTimezoneOffset() * 60_000)
        .toISOString()
        .slice(0, 16);
      await page.getByLabel(/^Left the printer/).fill(justNow);
      await page.getByRole('button', { name: 'Begin to read' }).click();
      await page.getByRole('button', { name: 'Read strip 1' }).click();
      await page.getByRole('button', { name: 'Read strip 2' }).click();
      await page.getByText('Strip 2: slipped strip').waitFor();
    },
  ],
  ['compare', '/compare'],
  ['gamut', '/compare/gamut', (page) => page.getByText('In common').waitFor({ timeout: 60_000 })],
  ['neutrals', '/compare/neutrals'],
  ['light', '/compare/light', (page) => page.getByText('Over all').waitFor({ timeout: 60_000 })],
  ['pictures', '/pictures'],
  [
    'match',
    '/match',
    async (page) => {
      await page
        .getByRole('img', { name: /as it would look on/ })
        .nth(3)
        .waitFor({ timeout: 60_000 });
    },
  ],
  ['prints', '/prints'],
  [
    'print',
    '/prints',
    async (page) => {
      await page.getByRole('link', { name: 'Salt crust at noon on Chalk Rag' }).click();
      await page.getByRole('region', { name: 'Differs from last time' }).waitFor();
    },
  ],
  [
    'run-sheet',
    '/prints/run',
    async (page) => {
      await page.getByRole('button', { name: /^Plan / }).click();
      await page.getByRole('region', { name: /^Run at the/ }).waitFor();
    },
  ],
  ['ledger', '/ledger'],
  ['life', '/ledger', (page) => page.getByRole('link', { name: 'Vellacre Chalk Rag' }).first().click()],
  [
    'proof',
    '/proof',
    async (page) => {
      await page.getByLabel('Dividing line between the two sheets').waitFor({ timeout: 60_000 });
      await page.keyboard.press('d');
    },
  ],
];

/** Runs in the page: a reading of the demo again under other names, one of them for another paper, and a file that is none. */
async function bringSome() {
  const { Blob, fetch, FormData } = globalThis;
  const [first, second] = await (await fetch('/api/conditions')).json();
  const readingOf = async ({ id }) => {
    const { readings } = await (await fetch(`/api/conditions/${id}`)).json();
    return (await fetch(`/api/readings/${readings[0].id}/file?as=cgats`)).text();
  };
  const bring = (path, content) => {
    const form = new FormData();
    form.append('path', path);
    form.append('file', new Blob([content]), path);
    return fetch('/api/inbox', { method: 'POST', body: form });
  };
  const said = (text, words) => text.replace('\n', `\n${words}\n`);
  await bring('spring/scan-0042.txt', await readingOf(first));
  await bring('spring/dove.txt', said(await readingOf(second), 'PAPER "Dove Matt"'));
  await bring('spring/notes.bin', new Uint8Array([0, 1, 2]));
}

build();
mkdirSync(FOLDER, { recursive: true });
const { start } = await import(pathToFileURL(join(ROOT, 'server/dist/bundle/main.js')).href);
const app = await start(
  ['--port', '0', '--data', mkdtempSync(join(tmpdir(), 'rakuen-shots-')), '--web', join(ROOT, 'web/dist')],
  {},
);
const url = `http://127.0.0.1:${app.getHttpServer().address().port}`;
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
for (const [name, path, prepare] of VIEWS) {
  await page.goto(url + path);
  await page.waitForLoadState('networkidle');
  await prepare?.(page);
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(FOLDER, `${name}.png`) });
}
await browser.close();
await app.close();
process.exit(0);
