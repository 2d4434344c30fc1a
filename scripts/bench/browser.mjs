import { existsSync } from 'node:fs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';
const FLAGS =
  '--no-sandbox --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync --use-gl=angle --use-angle=swiftshader --enable-unsafe-swiftshader';

/** Looks at a studio as a browser sees it. */
export async function inBrowser(look) {
  if (!existsSync(CHROMIUM)) throw new Error(`${CHROMIUM} is missing: this row looks at a browser.`);
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS.split(' ') });
  try {
    return await look(await browser.newPage({ viewport: { width: 1280, height: 800 } }));
  } finally {
    await browser.close();
  }
}
