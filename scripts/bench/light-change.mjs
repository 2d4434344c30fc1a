import { inBrowser } from './browser.mjs';
import { inFolder, measured, serve } from './studio.mjs';

/* global document, HTMLSelectElement, performance, requestAnimationFrame, Event */

const PAPERS = 6;
const CHANGES = 15;
const LIGHT = 'select[aria-label="Light over the table"]';

/** From choosing a light until the figures of every paper are on screen for it, ms; in the page itself. */
const change = (key) => {
  const select = document.querySelector('select[aria-label="Light over the table"]');
  const row = () => [...document.querySelectorAll('tr')].find((r) => r.textContent.startsWith('Paper white'));
  const began = performance.now();
  Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(select, key);
  select.dispatchEvent(new Event('change', { bubbles: true }));
  let begun = false;
  return new Promise((done, fail) => {
    const look = () => {
      const busy = document.querySelector('main [aria-busy="true"]') !== null;
      begun ||= busy;
      const figures = [...row().querySelectorAll('td')].slice(1);
      const took = performance.now() - began;
      if (begun && !busy && figures.every((cell) => /\d/.test(cell.textContent))) done(took);
      else if (took > 5000) fail(new Error(`the figures under ${key} did not come`));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
};

/** @param files readings of one paper, by file name, each paper's a little different */
export async function lightChange(files) {
  return inFolder(async (data) => {
    const studio = await serve(data);
    try {
      for (let i = 0; i < PAPERS; i++) {
        const id = await measured(studio, `Sheet ${i + 1}`, files(i));
        await studio.send('POST', '/api/table/deeds', { deed: 'lay paper', id });
      }
      return await inBrowser(async (page) => {
        await page.goto(`${studio.url}/compare`);
        await page.getByRole('row', { name: /^Paper white/ }).waitFor();
        const keys = await page.$$eval(`${LIGHT} option`, (options) => options.map((o) => o.value));
        // Under the first nothing is computed: it is the light of the readings.
        const lights = keys.slice(1).filter((key) => key !== 'import');
        const took = [];
        // The first two are for the worker, that gets to know the sheets.
        for (let i = 0; i < CHANGES + 2; i++) {
          took.push(await page.evaluate(change, lights[i % lights.length]));
          await page.waitForTimeout(250);
        }
        return took.slice(2).sort((p, q) => p - q)[Math.floor(CHANGES / 2)];
      });
    } finally {
      await studio.stop();
    }
  });
}
