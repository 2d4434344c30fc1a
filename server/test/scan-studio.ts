import sharp from 'sharp';
import { designOwnChart } from '@rakuen/core/chart/chart-design';
import { rasteriseChart } from '@rakuen/core/chart/raster';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { CARD_COLOURS } from '@rakuen/core/scan/card';
import { readChart } from '@rakuen/core/simulation/instrument';
import type { PressModel } from '@rakuen/core/simulation/printer';
import { flatbed } from '../../core/test/flatbed.ts';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { CONDITION, condition, picture, type Api } from './rakuen.ts';

/** A print as it was meant, and in another media setting of the same paper that is known too. */
export const RIGHT = SHEETS.baryta;
export const UNDER_INKED: PressModel = { ...RIGHT, inkLoad: 0.75 };
const CARD = designOwnChart('card', CARD_COLOURS, { sheet: 'card', patchMm: 8, dpi: 300, seed: 1 });
const PPI = 100;

const reading = (press: PressModel, seed: number) => writeCgats(readChart(press, scatteredChart(300), 'M1', seed));

export interface ScanStudio {
  readonly conditionId: string;
  readonly pictureId: string;
  readonly chartId: string;
  readonly readingId: string;
}

/** A paper in two media settings, its profile, a picture of even fields, and a card that was printed and read. */
export async function scanStudio(rakuen: Api): Promise<ScanStudio> {
  const conditionId = await condition(rakuen, 'Deep Sheet', 'baryta');
  await rakuen.upload(`/api/conditions/${conditionId}/readings`, 'deep.txt', reading(RIGHT, 5));
  const { body: own } = await rakuen.call<Record<string, unknown>>('GET', `/api/conditions/${conditionId}`);
  const { body: other } = await rakuen.call<{ id: string }>('POST', '/api/conditions', {
    ...CONDITION,
    paperId: own.paperId,
    mediaSetting: 'Thin gloss',
    profile: '',
  });
  await rakuen.upload(`/api/conditions/${other.id}/readings`, 'thin.txt', reading(UNDER_INKED, 6));
  const settings = { name: 'press.icc', version: 4, grid: 17, greys: 'paper', light: 'D50' };
  const job = await rakuen.call<{ id: string }>('POST', `/api/conditions/${conditionId}/profiles`, settings);
  for (let state = 'waiting'; state === 'waiting' || state === 'reading';) {
    await new Promise((done) => setTimeout(done, 50));
    state = (await rakuen.call<{ state: string }>('GET', `/api/profile-jobs/${job.body.id}`)).body.state;
  }
  const [made] = (await rakuen.call<{ id: string; source: string }[]>('GET', '/api/profiles')).body.filter(
    (p) => p.source === 'made',
  );
  await rakuen.call('PUT', `/api/conditions/${conditionId}/profile`, { profileId: made.id });

  // A picture of even fields: sky, wall, skin, leaf and greys.
  const fields = ['#8fb3d9', '#e02a20', '#d9a58a', '#2f6a25', '#303030', '#d8b020', '#1c2450', '#e8e4da'].map((c) =>
    [1, 3, 5].map((i) => parseInt(c.slice(i, i + 2), 16)),
  );
  const [w, h] = [320, 200];
  const values = Uint8Array.from({ length: w * h * 3 }, (_, i) => {
    const [x, y] = [Math.floor(i / 3) % w, Math.floor(i / 3 / w)];
    return fields[(Math.floor(x / 40) + 3 * Math.floor(y / 25)) % 8][i % 3];
  });
  const png = await sharp(values, { raw: { width: w, height: h, channels: 3 } })
    .png()
    .toBuffer();
  const pictureId = (await picture(rakuen, 'fields.png', png)).job.pictureId!;

  // The card is printed on a sheet of its own and read.
  const chartId = (await rakuen.call<{ id: string }>('POST', '/api/charts/card')).body.id;
  const card = await condition(rakuen, 'Card Sheet', 'baryta');
  const patches = CARD.strips.flatMap((s) =>
    s.patches.map(({ id, rgb16 }) => ({ id, rgb: rgb16.map((v) => v / 65_535) as [number, number, number] })),
  );
  const { body } = await rakuen.upload<{ readings: { id: string }[] }>(
    `/api/conditions/${card}/readings`,
    'card.txt',
    writeCgats(readChart(RIGHT, patches, 'M1', 9)),
  );
  return { conditionId, pictureId, chartId, readingId: body.readings[0].id };
}

/** The strips as Rakuen writes them, printed and laid on the glass beside the card, a little askew. */
export async function scanOf(
  rakuen: Api,
  { pictureId, conditionId }: Pick<ScanStudio, 'pictureId' | 'conditionId'>,
  printed: PressModel,
  { withCard = true, seed = 1, asked = '' } = {},
): Promise<Uint8Array> {
  const answer = await fetch(
    `${rakuen.url}/api/pictures/${pictureId}/strips.tif?conditionId=${conditionId}&ppi=${PPI}${asked}`,
    {
      headers: { connection: 'close' },
    },
  );
  if (answer.status !== 200) throw new Error(await answer.text());
  const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()), { ignoreIcc: true })
    .toColourspace('rgb16')
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  const strips = {
    widthPx: info.width,
    heightPx: info.height,
    dpi: PPI,
    data: new Uint16Array(data.buffer, data.byteOffset, data.length / 2),
  };
  const sheets = [{ raster: strips, printed, xMm: 4, yMm: 6, turnDeg: 1.2 }];
  const card = { raster: rasteriseChart(CARD, 0), printed: RIGHT, xMm: 20, yMm: 172, turnDeg: -0.8 };
  const { width, height, data: rgb } = flatbed(withCard ? [...sheets, card] : sheets, 220, 297, PPI, seed);
  return sharp(rgb, { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
}
