import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { CONDITION, fixture, start, type Running } from './rakuen.ts';
import { RIGHT, scanOf, scanStudio, UNDER_INKED, type ScanStudio } from './scan-studio.ts';

interface Held {
  scanner: { errorDeltaE: number; patches: number };
  samples: number;
  meanDeltaE: number;
  recognised: { clear: boolean; sentence: string; causes: { mistake: string; which?: string }[] };
  off: string[];
  map: { columns: number; rows: number; deltaE: string };
}

let rakuen: Running;
let studio: ScanStudio;

beforeAll(async () => {
  rakuen = await start();
  studio = await scanStudio(rakuen);
}, 240_000);
afterAll(() => rakuen.stop());

const held = (file: Uint8Array, over: Record<string, string> = {}) =>
  rakuen.upload<Held>(`/api/pictures/${studio.pictureId}/strips/scan`, 'scan.png', file, {
    conditionId: studio.conditionId,
    chartId: studio.chartId,
    readingId: studio.readingId,
    ...over,
  });

it('a scan of the strips as they were meant is told to be so, and how well the scanner is known', async () => {
  const { status, body } = await held(await scanOf(rakuen, studio, RIGHT));
  expect([status, body]).toEqual([200, body]);
  expect(body.scanner.patches).toBeGreaterThan(60);
  expect(body.scanner.errorDeltaE).toBeLessThan(2);
  expect(body.recognised.causes[0].mistake).toBe('as intended');
  // A scanner does not distinguish a dry print from one that is nearly so: what it can't see is no doubt about it.
  expect(body.recognised.clear).toBe(true);
  expect(body.recognised.sentence).toMatch(/^As it was meant, to \d\.\d ΔE00 in the mean/);
  expect(body.off).toEqual([]);
  expect(body.meanDeltaE).toBeLessThan(2);
  expect(body.map.deltaE).toHaveLength(body.map.columns * body.map.rows);
  expect(body.map.deltaE).toMatch(/\./);
  expect(body.map.deltaE).toMatch(/[01]/);
});

it('a wrong media setting is recognised from the scan, by name, and how the colours came out', async () => {
  const { body } = await held(await scanOf(rakuen, studio, UNDER_INKED, { seed: 2 }));
  expect(body.recognised.causes[0]).toMatchObject({ mistake: 'media setting', which: 'Thin gloss' });
  expect(body.recognised.clear).toBe(true);
  expect(body.off.length).toBeGreaterThan(0);
  expect(body.off.join()).toMatch(/too (light|pale)/);
});

it('a sheet of strips keeps the margin that the printer can’t reach, its words and marks too', async () => {
  const bytes = await fetch(
    `${rakuen.url}/api/pictures/${studio.pictureId}/strips.tif?conditionId=${studio.conditionId}&ppi=100&margin=11`,
  ).then((r) => r.arrayBuffer());
  const { data, info } = await sharp(Buffer.from(bytes), { ignoreIcc: true })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const marginPx = Math.floor((11 / 25.4) * 100) - 1;
  let [within, beyond] = [255, 255];
  for (let y = 0; y < info.height; y++)
    for (let x = 0; x < info.width; x++) {
      const inner = Math.min(x, y, info.width - 1 - x, info.height - 1 - y) >= marginPx;
      const v = data[(y * info.width + x) * info.channels];
      if (inner) within = Math.min(within, v);
      else beyond = Math.min(beyond, v);
    }
  expect(beyond).toBe(255);
  expect(within).toBeLessThan(60);
});

it.each([
  ['half a stop lighter throughout', '&steps=0.5,0.75,1', 'lift', /^½ stop more than meant$/],
  ['a quarter stop lighter throughout', '&steps=0.25,0.5,0.75', 'lift', /^¼ stop more than meant$/],
  ['a wider ladder', '&steps=0,0.5,1', 'ladder', /^lift none, ½ stop, \+1.00 stop$/],
  ['a ladder of contrast', '&part=contrast&steps=0,0.5,1', 'ladder', /^contrast as it is, \+[456], \+(9|10)$/],
])('strips printed %s are recognised, with the steps they have', async (_, asked, mistake, which) => {
  const { body } = await held(await scanOf(rakuen, studio, RIGHT, { seed: 3, asked }));
  expect(body.recognised.causes[0]).toMatchObject({ mistake, which: expect.stringMatching(which) });
  expect(body.recognised.clear).toBe(true);
});

it('strips that were sent without the profile are recognised', async () => {
  // The same crops through sRGB: the numbers a picture holds, sent to the printer as they stand.
  const { body: own } = await rakuen.call<Record<string, unknown>>('GET', `/api/conditions/${studio.conditionId}`);
  const { body: plain } = await rakuen.call<{ id: string }>('POST', '/api/conditions', {
    ...CONDITION,
    paperId: own.paperId,
    mediaSetting: 'Unmanaged',
    profile: '',
  });
  const profile = await rakuen.upload<{ id: string }>('/api/profiles', 'sRGB.icc', readFileSync(fixture('sRGB.icc')));
  await rakuen.call('PUT', `/api/conditions/${plain.id}/profile`, { profileId: profile.body.id });
  const scan = await scanOf(rakuen, { ...studio, conditionId: plain.id }, RIGHT, { seed: 4 });
  const { body } = await held(scan);
  expect(body.recognised.causes[0].mistake).toBe('no profile');
  expect(body.recognised.clear).toBe(true);
});

it('what can’t be used is refused with what is missing, and nothing of it is kept', async () => {
  const without = await held(await scanOf(rakuen, studio, RIGHT, { withCard: false }));
  expect(without).toMatchObject({ status: 422, body: { message: expect.stringContaining('the card') } });
  const white = await sharp({ create: { width: 300, height: 400, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  expect((await held(white)).status).toBe(422);
  expect((await held(Buffer.from('no picture'))).status).toBe(422);
  expect((await held(white, { readingId: studio.chartId })).status).toBe(404);
  expect((await held(white, { page: '7' })).status).toBe(404);
});
