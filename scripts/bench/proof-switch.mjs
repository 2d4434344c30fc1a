import { inBrowser } from './browser.mjs';
import { inFolder, measured, photograph, serve } from './studio.mjs';

/* global performance */

const CHANGES = 15;
const DRAWN = 'proof drawn';

/**
 * What a change of sheet takes of the page's own thread, the handing over to the graphics processor included; ms, once
 * both sheets are ready.
 */
export async function proofSwitch(files) {
  return inFolder(async (data) => {
    const studio = await serve(data);
    try {
      for (let i = 0; i < 2; i++) {
        const id = await measured(studio, `Sheet ${i + 1}`, files(i));
        await studio.send('POST', '/api/table/deeds', { deed: 'lay paper', id });
      }
      await studio.send('POST', '/api/table/deeds', { deed: 'lay picture', id: await photograph(studio) });
      return await inBrowser(async (page) => {
        await page.goto(`${studio.url}/proof`);
        await page.getByLabel('Dividing line between the two sheets').waitFor({ timeout: 60_000 });
        for (let i = 0; i < CHANGES + 2; i++) {
          await page.keyboard.press('x');
          await page.waitForTimeout(200);
        }
        const took = await page.evaluate(
          (name) => performance.getEntriesByName(name).map((entry) => entry.duration),
          DRAWN,
        );
        // The first ones bring picture and sheets to the graphics processor.
        return took.slice(-CHANGES).sort((p, q) => p - q)[Math.floor(CHANGES / 2)];
      });
    } finally {
      await studio.stop();
    }
  });
}
