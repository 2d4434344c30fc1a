import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  globalSetup: './global-setup.ts',
  // One at a time: solids are drawn in software here, and two of them starve each other.
  workers: 1,
  // A second try begins with a studio of its own; one that needed it is told as flaky.
  retries: 1,
  reporter: [['line'], ['json', { outputFile: '../test-results/playwright.json' }]],
  outputDir: '../test-results/browser',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'retain-on-failure',
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
