import { defineConfig } from '@playwright/test';

const DRAWN = ['proof.spec.ts', 'proof-pixels.spec.ts', 'in-sight.spec.ts', 'solids.spec.ts', 'thin-path.spec.ts'].map(
  (name) => `**/${name}`,
);

export default defineConfig({
  testDir: '.',
  timeout: 240_000,
  expect: { timeout: 60_000 },
  globalSetup: './global-setup.ts',
  // Three on two cores: a test waits for a page, or a page for its server, as often as either computes.
  workers: 3,
  // Proofs and solids are drawn in software here, and two of them starve each other: one at a time, beside whatever else there is.
  projects: [
    { name: 'drawn', testMatch: DRAWN, workers: 1 },
    { name: 'plain', testIgnore: DRAWN },
  ],
  // A second try begins with a studio of its own; one that needed it is told as flaky.
  retries: 1,
  reporter: [['line'], ['json', { outputFile: '../test-results/playwright.json' }]],
  outputDir: '../test-results/browser',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // Told step by step where a test failed at first; of every test it would cost a fifth of the time.
    trace: 'on-first-retry',
    launchOptions: {
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
    },
  },
});
