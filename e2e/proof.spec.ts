import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { unpackLab, type PackedSheet } from '@rakuen/core/characterisation/packed';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import { rgbToLab, SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import { labToXyz } from '@rakuen/core/colour/lab';
import { applyLocal, localBase } from '@rakuen/core/proof/local-contrast';
import { applyRecipe, PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import type { Lab } from '@rakuen/core/colour/types';
import type { Page } from '@playwright/test';
import { apiOf } from '../server/test/rakuen.ts';
import { scanOf, scanStudio, UNDER_INKED } from '../server/test/scan-studio.ts';
import { expect, expectAccessible, test } from './studio.ts';

interface Head {
  id: string;
  title: string;
  commission: { longSideMm: number };
  hints: string[];
}

/** The picture that lies in hand when the studio is opened is taken in hand again: other tests begin there. */
async function putBack(page: Page): Promise<void> {
  await page
    .getByLabel('The table')
    .getByRole('button', { name: /^The fourth dish/ })
    .click();
  await expect(page.getByLabel('The table').getByRole('button', { name: /^The fourth dish.*in hand/ })).toBeVisible();
}

test('the proof drawn by the graphics processor is the model, pixel by pixel; line, light and hatching answer', async ({
  watched: page,
  studio,
}) => {
  test.setTimeout(240_000);
  // A small window: every one of its pixels is drawn by the processor here, again and again.
  await page.setViewportSize({ width: 1024, height: 640 });
  const get = async <T>(path: string) => (await (await page.request.get(studio.url + path)).json()) as T;
  const room = (await get<Head[]>('/api/pictures')).find((p) => p.title.startsWith('Control room'))!;
  await page.goto(`${studio.url}/match`);
  await page
    .getByLabel('The table')
    .getByRole('button', { name: /^Control room/ })
    .click();
  await page.getByRole('navigation', { name: 'Steps of the work' }).getByRole('link', { name: 'Proof' }).click();
  const canvas = page.getByRole('img', { name: /Control room, sodium light on Slate Baryta and Chalk Rag/ });
  await expect(canvas).toBeVisible({ timeout: 60_000 });
  await page.getByLabel('Dividing line between the two sheets').focus();
  await page.keyboard.press('End');
  await expect(page.getByLabel('Dividing line between the two sheets')).toHaveAttribute('aria-valuenow', '100');

  const table = await get<{ conditionIds: string[]; leftHand: string }>('/api/table');
  const { seen } = await get<{ seen: PackedSheet }>(`/api/conditions/${table.leftHand}/laid?light=D50&glass=none`);
  const bytes = Buffer.from(seen.lab, 'base64');
  const lattice = unpackLab(seen.nodes, new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2));
  const raw = await (await page.request.get(`${studio.url}/api/pictures/${room.id}/lab`)).body();
  const [w, h] = [raw.readUInt32LE(0), raw.readUInt32LE(4)];
  const absolute = absoluteOnWhite(seen.white);
  const fileL = Float32Array.from({ length: w * h }, (_, i) => raw.readInt16LE(8 + i * 6) / 250);
  const base = localBase({ widthPx: w, heightPx: h, lightness: fileL }, room.commission.longSideMm);
  // The whole canvas shows the left hand's sheet now: its pixels against the lattice, read by the processor.
  const distances = async (recipe: Recipe): Promise<number[]> => {
    const drawn = await canvas.evaluate((c: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [c.width, c.height];
      const context = copy.getContext('2d')!;
      context.drawImage(c, 0, 0);
      const { width, height, data } = context.getImageData(0, 0, c.width, c.height);
      const codes = Array.from({ length: 4000 }, (_, i) => {
        const at = (((i * 104_729) % height) * width + ((i * 7919) % width)) * 4;
        return [data[at], data[at + 1], data[at + 2]] as const;
      });
      return { width, height, codes };
    });
    const off: number[] = [];
    for (let i = 0; i < 4000; i++) {
      // Where the picture is even, so that only colour is compared and not how it was made small.
      const x = (i * 7919) % drawn.width;
      const y = (i * 104_729) % drawn.height;
      const [px, py] = [Math.floor(((x + 0.5) / drawn.width) * w), Math.floor(((y + 0.5) / drawn.height) * h)];
      const labAt = (u: number, v: number): Lab => {
        const at = 8 + (Math.min(h - 1, Math.max(0, v)) * w + Math.min(w - 1, Math.max(0, u))) * 6;
        return [raw.readInt16LE(at) / 250, raw.readInt16LE(at + 2) / 250, raw.readInt16LE(at + 4) / 250];
      };
      const file = labAt(px, py);
      if ([-2, 2].some((d) => deltaE2000(labAt(px + d, py), file) > 0.6 || deltaE2000(labAt(px, py + d), file) > 0.6))
        continue;
      const out = Float32Array.from(file);
      const part = { x: (x + 0.5) / drawn.width, y: (y + 0.5) / drawn.height, width: 0, height: 0 };
      applyLocal(out, recipe, base, { widthPx: 1, heightPx: 1, first: 0, part });
      applyRecipe(out, recipe);
      throughPrinted(lattice, out, out);
      const wanted = absolute([out[0], out[1], out[2]]);
      const rgb = xyzToRgb(SRGB, labToXyz(wanted));
      // What the screen can't show is said, not compared.
      if (rgb.some((v) => v < 0 || v > 1)) continue;
      const [red, green, blue] = drawn.codes[i];
      const got = rgbToLab(SRGB, [red / 255, green / 255, blue / 255]);
      off.push(deltaE2000(wanted, got));
    }
    return off.sort((p, q) => p - q);
  };
  const isTheModel = async (recipe: Recipe) => {
    const off = await distances(recipe);
    expect(off.length).toBeGreaterThan(200);
    expect(off[Math.floor(off.length * 0.95)]).toBeLessThan(0.8);
    expect(off[Math.floor(off.length * 0.5)]).toBeLessThan(0.4);
  };
  await isTheModel(PLAIN);

  // A recipe, turned by hand, is drawn as it is computed; taken back step by step; looked at without; kept under a name.
  const note = page.getByRole('region', { name: 'Recipe for Slate Baryta' });
  await note.getByRole('button', { name: 'Lift more' }).click();
  await note.getByRole('button', { name: 'Contrast more' }).click();
  await note.getByRole('button', { name: 'Saturation less' }).click();
  await expect(note.getByRole('status', { name: 'Saturation' })).toHaveText('−5 %');
  await isTheModel({ ...PLAIN, liftStops: 0.25, contrast: 0.1, saturation: -0.05 });
  // Contrast by its scale on paper, over a base that the test computes for itself.
  for (let turn = 0; turn < 3; turn++) await note.getByRole('button', { name: 'Contrast at 12 mm more' }).click();
  await expect(note.getByRole('status', { name: 'Contrast at 12 mm' })).toHaveText('+30 %');
  await isTheModel({ ...PLAIN, liftStops: 0.25, contrast: 0.1, saturation: -0.05, localBroad: 0.3 });
  for (let turn = 0; turn < 3; turn++) await note.getByRole('button', { name: 'Undo' }).click();
  await note.getByRole('button', { name: 'Save version' }).click();
  await note.getByLabel('Name of this version').fill('brighter');
  await note.getByRole('button', { name: 'Save this version' }).click();
  await expect(note.getByRole('list', { name: 'Kept versions' })).toContainText(
    'lift ¼ stop, contrast +1, saturation −5 %',
  );
  // Rendering, bare paper and caption are steps like the others; a kept version is held against what is turned now.
  const corner = () =>
    canvas.evaluate((c: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [c.width, c.height];
      const context = copy.getContext('2d')!;
      context.drawImage(c, 0, 0);
      return [...context.getImageData(4, 4, 1, 1).data];
    });
  await note.getByLabel('Rendering').selectOption('perceptual');
  await note.getByLabel(/^Border mm/).fill('900');
  await page.keyboard.press('Enter');
  await expect(note.getByText('From 0 to 500 mm.')).toBeVisible();
  await note.getByLabel(/^Border mm/).fill('30');
  await page.keyboard.press('Enter');
  await note.getByLabel('Caption under it').fill('Control room, 1/12');
  await page.keyboard.press('Enter');
  await expect.poll(async () => Math.min(...(await corner()))).toBeGreaterThan(200);
  await note.getByRole('button', { name: 'Compare with the version brighter' }).click();
  await expect(
    page.getByRole('img', { name: /on Slate Baryta, with its recipe now and Slate Baryta, “brighter”/ }),
  ).toBeVisible();
  await expectAccessible(page);
  await note.getByRole('button', { name: 'Compare with the version brighter' }).click();
  for (let step = 0; step < 3; step++) await note.getByRole('button', { name: 'Undo' }).click();
  await expect(note.getByLabel('Rendering')).toHaveValue('relative');
  await expect(note.getByLabel(/^Border mm/)).toHaveValue('0');
  await expect(note.getByLabel('Caption under it')).toHaveValue('');
  await note.getByRole('button', { name: 'Show original' }).click();
  await isTheModel(PLAIN);
  await note.getByRole('button', { name: 'Show with recipe' }).click();
  for (let step = 0; step < 3; step++) await note.getByRole('button', { name: 'Undo' }).click();
  await expect(note.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await isTheModel(PLAIN);

  // The surface of the sheet: a lamp mirrored into the eye whitens a baryta, a raking one brings out its tooth; named, not faked.
  const light = async () => {
    const drawn = await canvas.evaluate((c: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [c.width, c.height];
      const context = copy.getContext('2d')!;
      context.drawImage(c, 0, 0);
      const { data } = context.getImageData(0, 0, c.width, c.height);
      let [red, green, blue] = [0, 0, 0];
      for (let i = 0; i < data.length; i += 4) {
        red += data[i];
        green += data[i + 1];
        blue += data[i + 2];
      }
      return { red, green, blue };
    });
    return { all: drawn.red + drawn.green + drawn.blue, warm: drawn.red / drawn.blue };
  };
  const hanging = await light();
  await page.getByLabel('Surface of the sheets').selectOption('natural');
  await expect(page.getByText(/Slate Baryta: .*texture from its scan.*sheen from [\d.]+ GU/)).toBeVisible();
  await page.getByLabel('Tilted to it, degrees').fill('20');
  await expect.poll(async () => (await light()).all / hanging.all).toBeGreaterThan(1.1);
  await page.getByLabel('Surface of the sheets').selectOption('off');
  await expect.poll(async () => (await light()).all / hanging.all).toBeLessThan(1.01);

  // Held beside a screen of D65 a print in D50 is warmer than an eye that settled in its light sees it, beside one of D50 it is as it was.
  await page.getByLabel('What the eye has settled on').selectOption('screen');
  await expect.poll(async () => (await light()).warm / hanging.warm).toBeGreaterThan(1.15);
  await page.getByLabel('This screen’s white').selectOption('D50');
  await expect.poll(async () => Math.abs((await light()).warm / hanging.warm - 1)).toBeLessThan(0.03);
  await page.getByLabel('This screen’s white').selectOption('measured');
  await page.getByLabel('Measured white of this screen, x and y').fill('0.31');
  await expect(page.getByText('Write x and y of its white as two numbers')).toBeVisible();
  await page.getByLabel('What the eye has settled on').selectOption('light');
  await page.getByRole('button', { name: 'Strips on paper' }).click();
  const strips = page.getByRole('dialog', { name: 'Strips on paper' });
  await expect(strips).toContainText(/small sheets? of (210 × 148|148 × 210) mm, crops of \d+ × \d+ mm/);
  await expect(strips.getByRole('link', { name: /^Write sheet 1 of the strips on .* as TIFF/ }).first()).toBeVisible();
  await strips
    .getByRole('button', { name: /^Lift ¼ stop was best on/ })
    .first()
    .click();
  await strips.getByRole('button', { name: 'Enter it in the ledger' }).click();
  await expect(strips.getByRole('button', { name: 'It is in the ledger' })).toBeVisible();
  await strips
    .getByRole('button', { name: /^Lift none was best on/ })
    .first()
    .click();
  await strips.getByLabel('Steps').fill('0, 9');
  await expect(strips.getByRole('alert').first()).toContainText('from -1 to 2');
  await page.keyboard.press('Escape');
  await note.getByRole('button', { name: 'Remove the version brighter' }).click();
  await expect(note.getByRole('list', { name: 'Kept versions' })).toHaveCount(0);

  const picture = () =>
    canvas.evaluate((c: HTMLCanvasElement) => c.toDataURL().length + c.toDataURL().slice(2000, 2400));
  const bare = await picture();
  await page.getByLabel('Light it hangs in').selectOption('a warm white LED');
  await expect.poll(picture, { timeout: 30_000 }).not.toBe(bare);
  const lit = await picture();
  await page.keyboard.press('v');
  await expect.poll(picture).not.toBe(lit);
  const flipped = await picture();
  // Closed shadows are hatched in the darks, blown lights in the lights.
  const lightness = () =>
    canvas.evaluate((c: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [c.width, c.height];
      const context = copy.getContext('2d')!;
      context.drawImage(c, 0, 0);
      const { data } = context.getImageData(0, 0, c.width, c.height);
      return Array.from({ length: data.length / 4 }, (_, i) => data[i * 4 + 1]);
    });
  const bareCodes = await lightness();
  await page.getByLabel('Map over the proof').selectOption('closed shadows');
  await expect.poll(picture).not.toBe(flipped);
  const hatched = (await lightness()).flatMap((v, i) => (Math.abs(v - bareCodes[i]) > 60 ? [bareCodes[i]] : []));
  expect(hatched.length).toBeGreaterThan(50);
  expect(Math.max(...hatched)).toBeLessThan(120);
  // In a room of 50 lx it is drawn as dim as it will hang; in one of 2000 the screen says that it can't.
  await page.getByLabel('Map over the proof').selectOption('none');
  await page.getByLabel('as bright as the room').check();
  await page.getByLabel('Light of the room, lux').fill('50');
  await page.getByLabel('White of this screen, candela a square metre').fill('100');
  await expect(page.getByText(/its white has 1\d cd\/m² there/)).toBeVisible();
  const mean = (codes: number[]) => codes.reduce((sum, v) => sum + v, 0) / codes.length;
  expect(mean(await lightness())).toBeLessThan(mean(bareCodes) * 0.6);
  await page.getByLabel('Light of the room, lux').fill('2000');
  await expect(page.getByText('drawn darker than it will hang').first()).toBeVisible();
  await page.getByLabel('as bright as the room').uncheck();
  await page.getByLabel('Map over the proof').selectOption('out of reach');
  await expect.poll(picture).not.toBe(flipped);
  await canvas.hover();
  await expect(page.getByText(/^File L\* .+ ΔE00 from its aim/)).toBeVisible();
  await page.getByRole('button', { name: 'Print file for Slate Baryta' }).click();
  await expect(page.getByRole('dialog', { name: 'Print file' })).toContainText('colour management of the driver off');
  await expectAccessible(page);
  // The file is saved while the page stays; so is the sheet for a lab.
  const [file] = await Promise.all([
    page.waitForEvent('download', { timeout: 120_000 }),
    page.getByRole('button', { name: 'Save the print file' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/Slate Baryta.*\.tif$/);
  const [order] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the order sheet for a lab' }).click(),
  ]);
  expect(order.suggestedFilename()).toMatch(/\.pdf$/);
  await page.keyboard.press('Escape');
  // What the eye found on paper stands with its sheet in the match, judged and not counted.
  await page.getByRole('navigation', { name: 'Steps of the work' }).getByRole('link', { name: 'Match' }).click();
  await expect(
    page.getByText(/^Judged on strips, .*: of lift none, ¼ stop, ½ stop the best was ¼ stop\. Not counted/).first(),
  ).toBeVisible({ timeout: 60_000 });
  await putBack(page);
});

test('the picture on every sheet on the table at once; nearer with the file’s own pixels, and aside, all together', async ({
  watched: page,
  studio,
}) => {
  await page.goto(`${studio.url}/proof`);
  const { conditionIds } = (await (await page.request.get(`${studio.url}/api/table`)).json()) as {
    conditionIds: string[];
  };
  await page.getByRole('button', { name: `On all ${conditionIds.length} sheets` }).click();
  const sheets = page.getByRole('list', { name: 'On every sheet on the table' });
  await expect(sheets.getByRole('img')).toHaveCount(conditionIds.length, { timeout: 60_000 });
  await expectAccessible(page);
  const drawn = (at: number) =>
    sheets
      .getByRole('img')
      .nth(at)
      .evaluate((c: HTMLCanvasElement) => c.toDataURL());
  const before = await Promise.all([drawn(0), drawn(1)]);
  const part = page.waitForResponse((r) => /\/lab\?x=0\.\d+&y=/.test(r.url()) && r.ok());
  await page.keyboard.press('+');
  await part;
  await expect.poll(() => drawn(0)).not.toBe(before[0]);
  await expect.poll(() => drawn(1)).not.toBe(before[1]);
  await expect(page.getByRole('button', { name: /now 1\.5 × nearer/ })).toBeVisible();
  const near = await drawn(0);
  await page.keyboard.press('ArrowLeft');
  await expect.poll(() => drawn(0)).not.toBe(near);
  await page.keyboard.press('0');
  await expect.poll(() => drawn(0), { timeout: 20_000 }).toBe(before[0]);
  await page.keyboard.press('a');
  await expect(page.getByLabel('Dividing line between the two sheets')).toBeVisible();
});

test('what a picture asks is corrected by hand, and turns the match: hint, mark, veto, school, and a match that is kept', async ({
  watched: page,
  studio,
}) => {
  const heads = (await (await page.request.get(`${studio.url}/api/pictures`)).json()) as Head[];
  const hall = heads.find((p) => p.title.startsWith('Receiver hall'))!;
  await page.goto(`${studio.url}/pictures`);
  await page
    .getByRole('list', { name: 'All pictures' })
    .getByRole('button', { name: /^Receiver hall/ })
    .click();
  const print = page.getByRole('region', { name: 'Receiver hall, north windows' });
  await print.getByRole('button', { name: 'lettering' }).click();
  await expect(print).toContainText('as you said');
  const mark = print.getByRole('button', { name: /^Mark 1: the deepest shadow/ });
  const before = await mark.getAttribute('style');
  await mark.focus();
  await page.keyboard.press('ArrowRight');
  // Moved away it is a place of your own, and no longer the deepest shadow.
  const moved = print.getByRole('button', { name: /^Mark 1: your own place, / });
  await expect(moved).not.toHaveAttribute('style', before!);
  await print.getByRole('button', { name: 'As found' }).click();
  await expect(mark).toHaveAttribute('style', before!);
  await print.getByRole('radio', { name: 'plain areas' }).click();
  await expect(print.getByRole('img', { name: /Map: plain areas/ })).toBeVisible();
  await print.getByRole('radio', { name: 'closed shadows' }).click();
  await expect(print.getByRole('img', { name: /Map: closed shadows on Slate Baryta/ })).toBeVisible({
    timeout: 30_000,
  });

  await print.getByRole('button', { name: 'Change' }).click();
  const dialog = page.getByRole('dialog', { name: 'Where it will hang' });
  await dialog.getByLabel('no brightener').check();
  await dialog.getByLabel('Longer side').fill('254,5');
  // The ground of an original is read, not guessed.
  await dialog.getByLabel('From a reading').setInputFiles({
    name: 'ground.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'CGATS.17\nNUMBER_OF_FIELDS 4\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS 2\nBEGIN_DATA\n1 88.2 1.2 9.8\n2 88.6 1.1 9.5\nEND_DATA\n',
    ),
  });
  await expect(dialog.getByLabel('Ground of the original')).toHaveValue('88.60; 1.10; 9.50');
  await expect(dialog.getByRole('status')).toContainText('The lightest of 2 patches in ground.txt');
  await dialog.getByLabel('Ground of the original').fill('');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(print).toContainText('no brightener');

  await page.goto(`${studio.url}/match`);
  await page
    .getByLabel('The table')
    .getByRole('button', { name: /^Receiver hall/ })
    .click();
  const ranking = page.getByRole('list', { name: 'Ranking' });
  const first = ranking.getByRole('heading', { level: 3 }).first();
  await expect(ranking).toContainText(/\d\.\d ± \d\.\d of 10/);
  await expect(page.getByRole('region', { name: 'Not ranked' })).toContainText(/No brightener was asked for/);
  await expect(ranking.getByRole('img', { name: /as it would look on/ }).first()).toBeVisible({ timeout: 30_000 });
  await page.getByRole('combobox', { name: 'Preset' }).selectOption('North darkroom');
  await expect(first).toHaveText('Slate Baryta');
  await page.getByRole('combobox', { name: 'Preset' }).selectOption('Quiet rag');
  await expect(first).toHaveText('Chalk Rag');
  // One slider turns it back.
  await page.getByRole('button', { name: 'Weights' }).click();
  await page.getByRole('slider', { name: /Black-and-white on gloss/ }).fill('4');
  await expect(first).toHaveText('Slate Baryta');
  await page.getByRole('button', { name: 'Saved matches' }).click();
  await page.getByRole('button', { name: 'Save this match' }).click();
  await page.getByRole('button', { name: 'Compare with today' }).click();
  await expect(page.getByRole('dialog')).toContainText('no change that counts');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Shows' }).click();
  await page.getByRole('button', { name: /^New show from/ }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('The plain');
  await page.getByRole('dialog').getByRole('button', { name: 'Create the show' }).click();
  await expect(page.getByRole('region', { name: 'The verdict' })).toContainText('the show', { timeout: 60_000 });

  const { commission, hints } = hall;
  await page.request.patch(`${studio.url}/api/pictures/${hall.id}`, { data: { commission, hints } });
  await putBack(page);
});

test('a wrong media setting is recognised from a scan of the strips with the card beside them, and entered in the ledger', async ({
  page,
  own,
}) => {
  test.setTimeout(240_000);
  const api = apiOf(own.url);
  const made = await scanStudio(api);
  await api.call('POST', '/api/table/deeds', { deed: 'lay paper', id: made.conditionId });
  await api.call('POST', '/api/table/deeds', { deed: 'lay picture', id: made.pictureId });
  await page.goto(`${own.url}/proof`);
  await page.getByRole('button', { name: 'Strips on paper' }).click();
  const strips = page.getByRole('dialog', { name: 'Strips on paper' });
  await strips.getByLabel(/^Crop/).fill('48');
  await strips.getByText('A scan of the print, against this proof').click();
  const buffer = Buffer.from(await scanOf(api, made, UNDER_INKED));
  await strips
    .getByLabel(/^Scan of (the sheet|sheet 1) on Deep Sheet/)
    .setInputFiles({ name: 'scan.png', mimeType: 'image/png', buffer });
  await expect(strips).toContainText('Most likely another media setting (Thin gloss)', { timeout: 60_000 });
  await expect(strips).toContainText(/The scanner itself is known to \d\.\d ΔE00 in the mean/);
  await expect(strips.getByRole('img', { name: /the denser hatched, the further/ })).toBeVisible();
  await expectAccessible(page);
  await strips.getByRole('button', { name: 'Enter it in the ledger' }).click();
  await expect(strips.getByRole('button', { name: 'It is in the ledger' })).toBeVisible();
  const { body } = await api.call<{ entries: { reason: string }[] }>('GET', '/api/ledger');
  expect(JSON.stringify(body)).toContain('Scan against proof: Most likely another media setting');
});
