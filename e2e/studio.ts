import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test as base, type Page } from '@playwright/test';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Rakuen as `npm start` runs it, with a data folder of its own. */
export class Studio {
  url = '';
  private child?: ChildProcess;

  constructor(
    readonly data = mkdtempSync(join(tmpdir(), 'rakuen-e2e-')),
    private readonly flags: string[] = [],
  ) {}

  async open(): Promise<void> {
    this.child = spawn(process.execPath, ['scripts/start.mjs', '--port', '0', '--data', this.data, ...this.flags], {
      cwd: ROOT,
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.url = await new Promise((done, fail) => {
      let output = '';
      this.child!.stdout!.on('data', (chunk: Buffer) => {
        output += chunk.toString();
        const address = /Rakuen is at (http:\S+)/.exec(output)?.[1];
        if (address) done(address);
      });
      this.child!.on('exit', () => fail(new Error(`Rakuen stopped: ${output}`)));
    });
  }

  async close(signal: NodeJS.Signals = 'SIGINT'): Promise<void> {
    if (!this.child || this.child.exitCode !== null) return;
    const ended = new Promise((done) => this.child!.on('exit', done));
    this.child.kill(signal);
    await ended;
  }

  clear(): void {
    rmSync(this.data, { recursive: true, force: true });
  }
}

/**
 * Tests share one demo studio a worker, a copy of the one that was filled before all; tests that need a bare one open
 * their own. Any console error fails the test.
 */
export const test = base.extend<{ watched: Page; own: Studio }, { studio: Studio; bare: Studio }>({
  studio: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const studio = new Studio();
      cpSync(process.env.RAKUEN_FILLED!, studio.data, { recursive: true });
      await studio.open();
      await use(studio);
      await studio.close();
      studio.clear();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  bare: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const studio = new Studio(undefined, ['--empty']);
      await studio.open();
      await use(studio);
      await studio.close();
      studio.clear();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  /** A bare studio of this test alone: what it leaves behind nobody finds. */
  // eslint-disable-next-line no-empty-pattern
  own: async ({}, use) => {
    const studio = new Studio(undefined, ['--empty']);
    await studio.open();
    await use(studio);
    await studio.close();
    studio.clear();
  },
  watched: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    // A refused request is the API's answer and is logged by the browser; everything else is a fault of the page.
    page.on(
      'console',
      (message) => message.type() === 'error' && !/status of 4\d\d/.test(message.text()) && faults.push(message.text()),
    );
    await use(page);
    expect(faults).toEqual([]);
  },
});

export { expect };

/** Axe in the page itself, there being no frames in it, and telling what is wrong alone: it takes a fraction of the time. */
const axe = (page: Page) => new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });

/** WCAG 2.1 A and AA, as axe sees it. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await axe(page).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

/** Contrast of text, as axe sees it. */
export async function expectContrast(page: Page): Promise<void> {
  const { violations } = await axe(page).withRules(['color-contrast']).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

/** The step's screen, by its heading. */
export async function step(page: Page, name: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Steps of the work' }).getByRole('link', { name }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
}

/**
 * Another place at the bench of the print condition on show, once it is there: a file laid down before would lie on
 * the place that is left.
 */
export async function atBench(page: Page, name: string): Promise<void> {
  const place = page.getByRole('navigation', { name: 'At the bench' }).getByRole('link', { name });
  await place.click();
  await expect(place).toHaveAttribute('aria-current', 'page');
  await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible();
}
