import { asThree } from '@rakuen/core/colour/three';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import type { Rgb } from '@rakuen/core/colour/types';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { compensated } from '@rakuen/core/characterisation/renderings';
import { readChart } from '@rakuen/core/simulation/instrument';
import { applyRecipe, PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { labsOf, openProfile } from '@rakuen/server/colour-management/lcms';
import { condition, picture, start, type Running } from './rakuen.ts';

let rakuen: Running;
let pictureId: string;
let conditionId: string;
const folder = mkdtempSync(join(tmpdir(), 'rakuen-recipes-'));
const [W, H] = [240, 160];

interface Kept {
  id: string;
  name: string;
  values: Recipe;
  revision: number;
}
const write = (values: Recipe, name = '') =>
  rakuen.call<Kept>('PUT', '/api/recipes', { pictureId, conditionId, name, values });
const copy = async (query: string) => {
  // A line of its own: the server closes one that the arithmetic between left unused for long.
  const answer = await fetch(
    `${rakuen.url}/api/pictures/${pictureId}/copy?conditionId=${conditionId}&ppi=60&${query}`,
    { headers: { connection: 'close' } },
  );
  if (answer.status !== 200) throw new Error(await answer.text());
  const path = join(folder, `${Math.random()}.tif`);
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
  return path;
};
/** Device values of a written copy, as they stand in the file. */
const raw = async (path: string) => {
  const { data, info } = await sharp(path, { ignoreIcc: true })
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  return { ...info, values: new Uint16Array(data.buffer, data.byteOffset, data.length / 2) };
};

beforeAll(async () => {
  rakuen = await start();
  conditionId = await condition(rakuen, 'Deep Sheet', 'baryta');
  await rakuen.upload(
    `/api/conditions/${conditionId}/readings`,
    'deep.txt',
    writeCgats(readChart(SHEETS.baryta, scatteredChart(300), 'M1', 5)),
  );
  const values = Uint8Array.from({ length: W * H * 3 }, (_, i) => {
    const [x, y, c] = [Math.floor(i / 3) % W, Math.floor(i / 3 / W), i % 3];
    return 20 + (x * 200) / W + c * 8 - (y > 80 ? 10 : 0);
  });
  const png = await sharp(values, { raw: { width: W, height: H, channels: 3 } })
    .png()
    .toBuffer();
  pictureId = (await picture(rakuen, 'ramp.png', png, { title: 'Ramp' })).job.pictureId!;
  const settings = { name: 'press.icc', version: 4, grid: 17, greys: 'paper', light: 'D50' };
  const job = await rakuen.call<{ id: string }>('POST', `/api/conditions/${conditionId}/profiles`, settings);
  for (let state = 'waiting'; state === 'waiting' || state === 'reading';) {
    await new Promise((done) => setTimeout(done, 50));
    state = (await rakuen.call<{ state: string }>('GET', `/api/profile-jobs/${job.body.id}`)).body.state;
  }
  const own = (await rakuen.call<{ id: string; source: string }[]>('GET', '/api/profiles')).body.find(
    (p) => p.source === 'made',
  )!;
  const chosen = await rakuen.call('PUT', `/api/conditions/${conditionId}/profile`, { profileId: own.id });
  if (chosen.status >= 300) throw new Error(JSON.stringify(chosen.body));
}, 240_000);
afterAll(() => rakuen.stop());

it('a recipe is kept beside the picture, one a sheet and name; the file itself stays', async () => {
  const before = await (await fetch(`${rakuen.url}/api/pictures/${pictureId}/preview`)).arrayBuffer();
  expect((await write({ ...PLAIN, liftStops: 0.25 })).status).toBe(200);
  const again = await write({ ...PLAIN, liftStops: 0.5 });
  expect(again.body).toMatchObject({ revision: 2, values: { liftStops: 0.5 } });
  await write({ ...PLAIN, shadows: 0.4 }, 'open');
  const all = (await rakuen.call<Kept[]>('GET', `/api/recipes?pictureId=${pictureId}`)).body;
  expect(all.map((r) => r.name)).toEqual(['', 'open']);
  expect(
    Buffer.from(await (await fetch(`${rakuen.url}/api/pictures/${pictureId}/preview`)).arrayBuffer()).equals(
      Buffer.from(before),
    ),
  ).toBe(true);
  expect(
    (await rakuen.call('PUT', '/api/recipes', { pictureId, conditionId, name: '', values: { ...PLAIN, liftStops: 9 } }))
      .status,
  ).toBe(400);
  const nothing = { ...PLAIN, rendering: null, borders: null, caption: null } as object;
  const said = { pictureId, conditionId, name: 'nothing said', values: nothing };
  expect((await rakuen.call<Kept>('PUT', '/api/recipes', said)).body.values).toEqual(PLAIN);
  // Fifty windows at once: one recipe of the name.
  await Promise.all(Array.from({ length: 50 }, (_, i) => write({ ...PLAIN, contrast: i / 100 }, 'raced')));
  expect(
    (await rakuen.call<Kept[]>('GET', `/api/recipes?pictureId=${pictureId}`)).body.filter((r) => r.name === 'raced'),
  ).toHaveLength(1);
});

it('what is suggested has its reason and figures, and nothing is done by asking', async () => {
  const { body } = await rakuen.call<{
    suggestions: { key: string; value: number; sentence: string }[];
    best: { parts: Record<string, number>; before: { score: number }; after: { score: number; changeDeltaE: number } };
  }>('GET', `/api/pictures/${pictureId}/suggested?conditionId=${conditionId}`);
  expect(body.suggestions.map((s) => s.key)).toContain('sharpening');
  expect(body.suggestions.every((s) => /\d/.test(s.sentence))).toBe(true);
  // What the picture asks is one recipe, weighed before and after; before it is what the match says of the sheet alone.
  const { parts, before, after } = body.best;
  const { places } = (
    await rakuen.call<{ places: { score: number }[] }>('POST', '/api/matches', {
      pictureId,
      conditionIds: [conditionId],
    })
  ).body;
  expect(Math.abs(before.score - places[0].score)).toBeLessThan(0.5);
  expect(after.score).toBeGreaterThanOrEqual(before.score);
  expect(Object.values(parts).every((v) => v !== 0)).toBe(true);
  expect(after.changeDeltaE > 0).toBe(Object.keys(parts).length > 0);
});

it('the written copy is the recipe: its pixels are those of a picture to which it was done by hand', async () => {
  const recipe: Recipe = { ...PLAIN, liftStops: 0.25, contrast: 0.3, shadows: 0.5, saturation: 0.2 };
  const { body } = await write(recipe, 'tried');
  const done = await raw(await copy(`recipe=${body.id}`));
  const plain = await raw(await copy(''));
  expect([done.width, done.height]).toEqual([plain.width, plain.height]);
  // Through the profile of the sheet, as the reading of the file says, both ways: what the recipe makes of the plain
  // one's colours is what the other shows.
  const lab = async (path: string) => {
    const { data } = await sharp(path).toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
    return data;
  };
  const [a, b] = [await lab(await copy(`recipe=${body.id}`)), await lab(await copy(''))];
  const errors: number[] = [];
  for (let p = 0; p < a.length; p += 3 * 97) {
    const wanted = Float32Array.from(rgbToLab(SRGB, [b[p] / 255, b[p + 1] / 255, b[p + 2] / 255] as Rgb));
    // What is darker than the sheet prints is not in its file any more.
    if (wanted[0] < 15) continue;
    applyRecipe(wanted, recipe);
    const got = rgbToLab(SRGB, [a[p] / 255, a[p + 1] / 255, a[p + 2] / 255] as Rgb);
    errors.push(deltaE2000([wanted[0], wanted[1], wanted[2]], got));
  }
  errors.sort((x, y) => x - y);
  expect(errors.length).toBeGreaterThan(50);
  expect(errors[Math.floor(errors.length / 2)]).toBeLessThan(2);
});

it('a lab gets a working space or a JPEG, under a name from a pattern: the same picture, its space embedded', async () => {
  const tiff = await raw(await copy('space=srgb'));
  const icc = (await sharp(await copy('space=srgb')).metadata()).icc!;
  const space = await openProfile(icc);
  const file = await sharp(await copy('space=srgb'), { ignoreIcc: true }).metadata();
  expect(file).toMatchObject({ format: 'tiff', depth: 'ushort' });
  // What was in the file comes out again: a ramp of sRGB, far from its edges.
  for (const [x, y] of [
    [0.25, 0.2],
    [0.5, 0.7],
    [0.75, 0.3],
  ]) {
    const at = (Math.floor(y * tiff.height) * tiff.width + Math.floor(x * tiff.width)) * 3;
    const code = (c: number) => (20 + x * 200 + c * 8 - (y > 0.5 ? 10 : 0)) / 255;
    const rgb = tiff.values.subarray(at, at + 3);
    const [seen] = labsOf(space, [[rgb[0] / 65_535, rgb[1] / 65_535, rgb[2] / 65_535]]);
    expect(deltaE2000(seen, rgbToLab(SRGB, [code(0), code(1), code(2)]))).toBeLessThan(1);
  }
  space.close();
  const small = await sharp(await copy('space=srgb&as=jpeg'), { ignoreIcc: true })
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([small.info.width, small.info.height]).toEqual([tiff.width, tiff.height]);
  const off = small.data.reduce((sum, v, i) => sum + Math.abs(v - tiff.values[i] / 257), 0) / small.data.length;
  expect(off).toBeLessThan(0.7);
  const words = await sharp(await copy('space=srgb&as=jpeg')).metadata();
  expect(words.icc).toEqual(icc);
  expect(words.density).toBe(60);
  // The condition's own device values too, as they are.
  const [own, ownSmall] = [
    await raw(await copy('')),
    await sharp(await copy('as=jpeg'), { ignoreIcc: true })
      .raw()
      .toBuffer(),
  ];
  expect(ownSmall.reduce((sum, v, i) => sum + Math.abs(v - own.values[i] / 257), 0) / ownSmall.length).toBeLessThan(
    0.7,
  );
  const named = await fetch(
    `${rakuen.url}/api/pictures/${pictureId}/copy?conditionId=${conditionId}&ppi=60&as=jpeg&space=romm&name=${encodeURIComponent('{paper} {profile}/{picture}')}`,
    { headers: { connection: 'close' } },
  );
  expect(named.headers.get('content-type')).toBe('image/jpeg');
  expect(decodeURIComponent(named.headers.get('content-disposition')!)).toContain("''Deep Sheet ROMM RGB-Ramp.jpg");
  await named.arrayBuffer();
});

it('borders are bare paper, the caption is ink in them, the marks stand at the picture’s edges; the picture itself is the same', async () => {
  const bare = await raw(await copy(''));
  const around = { borderMm: 20, borders: 'bottom', caption: 'Ramp 3/12', trimMarks: true } as const;
  const { body } = await write({ ...PLAIN, ...around }, 'framed');
  const framed = await raw(await copy(`recipe=${body.id}`));
  const px = (mm: number) => Math.round((mm / 25.4) * 60);
  expect(framed.width).toBe(bare.width + 2 * px(20));
  expect(framed.height).toBe(bare.height + px(20) + px(25));
  const at = (x: number, y: number) => framed.values[(y * framed.width + x) * 3];
  expect(at(1, 1)).toBe(65_535);
  for (const [x, y] of [
    [0, 0],
    [bare.width - 1, 0],
    [5, bare.height - 1],
    [bare.width - 1, bare.height - 1],
  ])
    expect(at(px(20) + x, px(20) + y)).toBe(bare.values[(y * bare.width + x) * 3]);
  const below = Array.from({ length: framed.width * px(25) }, (_, i) =>
    at(i % framed.width, framed.height - px(25) + Math.floor(i / framed.width)),
  );
  expect(below.filter((v) => v < 30_000).length).toBeGreaterThan(20);
  expect(at(px(20), px(20) - 2)).toBe(0);
});

it('the rendering of a recipe is that of its copy: black compensated and not, perceptual, absolute, as LittleCMS sends them', async () => {
  const icc = new Uint8Array((await sharp(await copy('')).metadata()).icc!);
  const relative = await openProfile(icc);
  const blackL = relative.toLab(relative.fromLab(Float32Array.of(0, 0, 0)))[0];
  const black = compensated(0, blackL);
  const { width, height } = await raw(await copy(''));
  // A row of the even upper half, away from its ends: there the file is known in closed form.
  const row = Math.floor(height / 4);
  const columns = Array.from({ length: 60 }, (_, i) => Math.floor(((i + 2) / 64) * width));
  const file = columns.map((x) => {
    const u = ((x + 0.5) * W) / width - 0.5;
    return rgbToLab(SRGB, asThree([0, 1, 2].map((c) => (20 + (u * 200) / W + c * 8) / 255)));
  });
  const sent = new Set<string>();
  for (const rendering of ['relative', 'uncompensated', 'perceptual', 'absolute'] as const) {
    const { body } = await write({ ...PLAIN, rendering }, rendering);
    const { values } = await raw(await copy(`recipe=${body.id}`));
    const got = columns.flatMap((x) => Array.from(values.subarray((row * width + x) * 3, (row * width + x) * 3 + 3)));
    sent.add(got.join());
    const by = await openProfile(icc, rendering === 'uncompensated' ? 'relative' : rendering);
    const aim = rendering === 'relative' ? file.map(black) : file;
    const wanted = by.fromLab(Float32Array.from(aim.flat()));
    by.close();
    const off = Array.from(wanted, (v, i) => Math.abs(v * 65_535 - got[i])).sort((p, q) => p - q);
    expect(off[Math.floor(0.95 * off.length)]).toBeLessThan(65_535 * 0.012);
  }
  relative.close();
  expect(sent.size).toBe(4);
});

it('sharpening makes edges steeper and leaves smooth tones where they are', async () => {
  const { body } = await write({ ...PLAIN, sharpening: 2, radiusMm: 1.5 }, 'sharp');
  const [sharpened, plain] = [await raw(await copy(`recipe=${body.id}`)), await raw(await copy(''))];
  const column = Math.floor(plain.width / 2);
  const at = ({ values, width }: typeof plain, y: number) => values[(y * width + column) * 3 + 1];
  const edge = Math.round((plain.height * 81) / H);
  const step = (image: typeof plain) => Math.abs(at(image, edge - 3) - at(image, edge + 3));
  expect(step(sharpened)).toBeGreaterThan(step(plain) * 1.02);
  expect(Math.abs(at(sharpened, 10) - at(plain, 10))).toBeLessThan(700);
});

it('the order sheet says what is asked of the lab, and what was done already', async () => {
  const { body } = await write(
    { ...PLAIN, liftStops: 0.25, borderMm: 20, caption: 'Ramp 1', rendering: 'perceptual' },
    'for the lab',
  );
  const answer = await fetch(
    `${rakuen.url}/api/pictures/${pictureId}/order.pdf?conditionId=${conditionId}&recipe=${body.id}`,
  );
  const path = join(folder, 'order.pdf');
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
  const text = spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout;
  for (const said of [
    'Testmill Deep Sheet',
    'lift ¼ stop',
    '20 mm, equal all round',
    'Ramp 1',
    'perceptual, done already',
    'no colour management after it',
  ])
    expect(text.replaceAll(/\s+/g, ' ')).toContain(said);
});

it('strips lie on small sheets: every marked place in its steps, at the size of the print; their pixels are those of the print copy', async () => {
  interface Plan {
    sheets: number;
    on: { places: string[]; crops: number }[];
    lacking: string[];
  }
  const { marks } = (await rakuen.call<{ marks: { x: number; y: number }[] }>('GET', `/api/pictures/${pictureId}`))
    .body;
  const query = `conditionId=${conditionId}&steps=0,0.25,0.5&ppi=60`;
  const plan = await rakuen.call<Plan>('GET', `/api/pictures/${pictureId}/strips?${query}`);
  expect(plan.status).toBe(200);
  expect(plan.body.on.reduce((n, s) => n + s.crops, 0)).toBe(marks.length * 3);
  await rakuen.call('PUT', '/api/recipes', { pictureId, conditionId, name: '', values: PLAIN });
  const answer = await fetch(`${rakuen.url}/api/pictures/${pictureId}/strips.tif?${query}&places=1`, {
    headers: { connection: 'close' },
  });
  expect(answer.status).toBe(200);
  const path = join(folder, 'strips.tif');
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
  const strip = await raw(path);
  const px = (mm: number) => Math.round((mm / 25.4) * 60);
  expect([strip.width, strip.height]).toEqual([px(210), px(148)]);
  const bare = await raw(await copy(''));
  const from = (middle: number, size: number, whole: number) =>
    Math.min(whole - size, Math.max(0, middle * whole - size / 2));
  const print = { w: 420, h: 280 };
  const [left, top] = [px(from(marks[0].x, 48, print.w)), px(from(marks[0].y, 48, print.h))];
  for (const [x, y] of [
    [5, 5],
    [40, 60],
    [100, 90],
  ]) {
    const onStrip = strip.values[((px(5) + y) * strip.width + px(5) + x) * 3];
    const onCopy = bare.values[((top + y) * bare.width + left + x) * 3];
    expect(Math.abs(onStrip - onCopy)).toBeLessThan(600);
  }
  // The second step is lighter than the first.
  const mean = (x0: number) => {
    let sum = 0;
    for (let y = 0; y < px(40); y++)
      for (let x = 0; x < px(40); x++) sum += strip.values[((px(5) + y) * strip.width + x0 + x) * 3 + 1];
    return sum;
  };
  expect(mean(px(53))).toBeGreaterThan(mean(px(5)));
  const pdf = await fetch(`${rakuen.url}/api/pictures/${pictureId}/strips.pdf?${query}&places=1`);
  const onPage = join(folder, 'strips.pdf');
  writeFileSync(onPage, Buffer.from(await pdf.arrayBuffer()));
  expect(spawnSync('pdfinfo', [onPage], { encoding: 'utf8' }).stdout).toMatch(/Page size:\s+595\.\d+ x 419\.\d+ pts/);
  // The picture within holds the very device values, in 8 bits.
  spawnSync('pdfimages', ['-png', onPage, join(folder, 'page')]);
  const inPdf = await sharp(join(folder, 'page-000.png')).removeAlpha().raw().toBuffer();
  expect(inPdf.length).toBe(strip.values.length);
  expect(inPdf.every((v, i) => v === Math.round(strip.values[i] / 257))).toBe(true);
  expect(
    (await rakuen.call('GET', `/api/pictures/${pictureId}/strips?conditionId=${conditionId}&steps=9`)).status,
  ).toBe(400);
});

it('a step of contrast by its scale is on its strip what it is in the copy', async () => {
  const { marks } = (await rakuen.call<{ marks: { x: number; y: number }[] }>('GET', `/api/pictures/${pictureId}`))
    .body;
  await rakuen.call('PUT', '/api/recipes', { pictureId, conditionId, name: '', values: PLAIN });
  const answer = await fetch(
    `${rakuen.url}/api/pictures/${pictureId}/strips.tif?conditionId=${conditionId}&part=localBroad&steps=0,0.8&ppi=60&places=1`,
    { headers: { connection: 'close' } },
  );
  const path = join(folder, 'local.tif');
  writeFileSync(path, Buffer.from(await answer.arrayBuffer()));
  const strip = await raw(path);
  const { body } = await write({ ...PLAIN, localBroad: 0.8 }, 'rounder');
  const [turned, bare] = [await raw(await copy(`recipe=${body.id}`)), await raw(await copy(''))];
  const px = (mm: number) => Math.round((mm / 25.4) * 60);
  const from = (middle: number, size: number, whole: number) =>
    Math.min(whole - size, Math.max(0, middle * whole - size / 2));
  const [left, top] = [px(from(marks[0].x, 48, 420)), px(from(marks[0].y, 48, 280))];
  const [own, other] = [bare, turned].map(
    ({ values, width }) =>
      (x: number, y: number) =>
        values[((top + y) * width + left + x) * 3 + 1],
  );
  const at = (crop: number, x: number, y: number) =>
    strip.values[((px(5) + y) * strip.width + px(5 + 48 * crop) + x) * 3 + 1];
  let [off, offOther, n] = [0, 0, 0];
  for (let y = 3; y < px(48) - 3; y++)
    for (let x = 3; x < px(48) - 3; x++, n++) {
      off += Math.abs(at(0, x, y) - own(x, y));
      offOther += Math.abs(at(1, x, y) - other(x, y));
    }
  expect(off / n).toBeLessThan(150);
  expect(offOther / n).toBeLessThan(150);
  // And it was turned at all: the whole copies are not alike.
  expect(turned.values.some((v, i) => Math.abs(v - bare.values[i]) > 800)).toBe(true);
});
