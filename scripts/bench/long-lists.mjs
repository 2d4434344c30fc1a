import { inBrowser } from './browser.mjs';
import { fill } from './lists.mjs';
import { inFolder, serve } from './studio.mjs';

/* global window, PerformanceObserver */

const TURNS = 25;
const WHEEL_PX = 700;

/** Places where a studio of 5 000 prints is leafed through, and what they show once they are there. */
const PLACES = [
  ['/prints', 'Prints made'],
  ['/ledger', 'In all:'],
];

/** The longest the page keeps anybody waiting while the prints and the ledger of years are leafed through, older pages included; ms. */
export async function longLists(files) {
  return inFolder(async (data) => {
    await fill(data, files);
    const studio = await serve(data);
    try {
      return await inBrowser(async (page) => {
        await page.addInitScript(() => {
          window.longest = 0;
          new PerformanceObserver((list) => {
            for (const entry of list.getEntries()) window.longest = Math.max(window.longest, entry.duration);
          }).observe({ type: 'longtask' });
        });
        let longest = 0;
        for (const [path, shows] of PLACES) {
          await page.goto(`${studio.url}${path}`);
          await page.getByText(shows).first().waitFor();
          // From here on: what comes once the place stands; fetching the application itself is another row.
          await page.evaluate(() => (window.longest = 0));
          await page.mouse.move(600, 500);
          for (let i = 0; i < TURNS; i++) {
            await page.mouse.wheel(0, WHEEL_PX);
            await page.waitForTimeout(60);
          }
          const older = page.getByRole('button', { name: 'Show older' });
          if (await older.count()) {
            await older.click();
            await page.waitForTimeout(1500);
          }
          const here = await page.evaluate(() => window.longest);
          console.error(`  ${path.padEnd(24)} ${here} ms`);
          longest = Math.max(longest, here);
        }
        return longest;
      });
    } finally {
      await studio.stop();
    }
  });
}
