import sharp from 'sharp';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Place {
  conditionId: string;
  recipeId?: string;
  place: number;
  score: number;
  cost: number;
  reasons: { leaning: string; cost: number }[];
  figures: { chromaKept: number; shadowStepsKept: number; recipeDeltaE?: number };
}
interface Match {
  places: Place[];
  leftOut: unknown[];
  versions: { id: string; conditionId: string; name: string }[];
}

let rakuen: Running;
let cotton: string;
let pictureId: string;
let otherPicture: string;

beforeAll(async () => {
  rakuen = await start();
  cotton = await condition(rakuen, 'Quiet Sheet', 'cotton');
  const file = writeCgats(readChart(SHEETS.cotton, scatteredChart(300), 'M1', 5));
  await rakuen.upload(`/api/conditions/${cotton}/readings`, 'cotton.txt', file);
  const drawn = async (blue: number) => {
    const [w, h] = [120, 80];
    const bytes = Uint8Array.from({ length: w * h * 3 }, (_, k) => {
      const [x, y] = [Math.floor(k / 3) % w, Math.floor(k / 3 / w)];
      // Dark blues with steps among them, and a light band.
      return y > 60 ? [200, 196, 190][k % 3] : [6 + x / 8, 8 + x / 7, blue + x / 2][k % 3];
    });
    return sharp(bytes, { raw: { width: w, height: h, channels: 3 } })
      .png()
      .toBuffer();
  };
  pictureId = (await picture(rakuen, 'night.png', await drawn(30))).job.pictureId!;
  otherPicture = (await picture(rakuen, 'other.png', await drawn(60))).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const save = async (name: string, values: Partial<Recipe>, of = pictureId) =>
  (
    await rakuen.call<{ id: string }>('PUT', '/api/recipes', {
      pictureId: of,
      conditionId: cotton,
      name,
      values: { ...PLAIN, ...values },
    })
  ).body.id;
const match = async (recipeIds: string[]) =>
  rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: [cotton], recipeIds });

it('a version that changes nothing stands level with the picture as it is', async () => {
  const id = await save('Nothing done', {});
  const { body } = await match([id]);
  expect(body.versions).toEqual([{ id, conditionId: cotton, name: 'Nothing done', revision: 1 }]);
  const plain = body.places.find((p) => !p.recipeId)!;
  const version = body.places.find((p) => p.recipeId === id)!;
  expect([plain.place, version.place]).toEqual([1, 1]);
  expect(version.cost).toBeCloseTo(plain.cost, 3);
  expect(version.figures.recipeDeltaE).toBeCloseTo(0, 3);
}, 60_000);

it('two lifts and two renderings are places of their own, each with what it changes and what it saves', async () => {
  const [half, whole] = [await save('Half a stop', { liftStops: 0.5 }), await save('A stop', { liftStops: 1 })];
  const perceptual = await save('Drawn in', { rendering: 'perceptual' });
  const { body } = await match([half, whole, perceptual]);
  expect(body.places).toHaveLength(4);
  const of = (id?: string) => body.places.find((p) => p.recipeId === id)!;
  const change = (id: string) => of(id).reasons.find((r) => r.leaning === 'recipeChange')!.cost;
  // The more is lifted the more the picture is changed: 0.35 for each ΔE00.
  expect(of(whole).figures.recipeDeltaE!).toBeGreaterThan(1.5 * of(half).figures.recipeDeltaE!);
  expect(change(whole)).toBeCloseTo(0.35 * of(whole).figures.recipeDeltaE!, 9);
  // A lift takes the steps of the darks away from the black of the sheet.
  expect(of(half).figures.shadowStepsKept).toBeGreaterThan(of().figures.shadowStepsKept);
  // A rendering changes no pixel of the file, and prints it otherwise.
  expect(of(perceptual).figures.recipeDeltaE).toBeCloseTo(0, 3);
  expect(Math.abs(of(perceptual).cost - of().cost)).toBeGreaterThan(0.05);
}, 60_000);

it('a version is drawn as it would be printed, and another picture’s recipe is none of this one', async () => {
  const lifted = await save('A stop', { liftStops: 1 });
  const mean = async (recipe?: string) => {
    const answer = await fetch(
      `${rakuen.url}/api/pictures/${pictureId}/on/${cotton}?px=120${recipe ? `&recipe=${recipe}` : ''}`,
    );
    const { channels } = await sharp(Buffer.from(await answer.arrayBuffer())).stats();
    return channels[1].mean;
  };
  expect((await mean(lifted)) - (await mean())).toBeGreaterThan(3);
  const strange = await save('Theirs', { liftStops: 1 }, otherPicture);
  expect((await match([strange])).status).toBe(404);
  expect((await match([crypto.randomUUID()])).status).toBe(404);
  const answer = await fetch(`${rakuen.url}/api/pictures/${pictureId}/on/${cotton}?recipe=${strange}`);
  expect(answer.status).toBe(404);
}, 60_000);

it('a decision and a saved match keep the order of the papers: a version is worked on', async () => {
  const id = await save('A stop', { liftStops: 1 });
  const { body } = await rakuen.call<{ result: { places: { conditionId: string }[] } }>('POST', '/api/matches/kept', {
    pictureId,
    name: 'Tonight',
    conditionIds: [cotton],
    recipeIds: [id],
  });
  expect(body.result.places.map((p) => p.conditionId)).toEqual([cotton]);
}, 60_000);

it('a crop is a part of the picture as its file has it, and the same part as a paper prints it', async () => {
  const crop = async (path: string) => {
    const answer = await fetch(`${rakuen.url}/api/pictures/${pictureId}/${path}`);
    const image = sharp(Buffer.from(await answer.arrayBuffer()));
    return { ...(await image.metadata()), mean: (await image.stats()).channels.map((c) => c.mean) };
  };
  // The light band at the bottom: 200, 196, 190 in the file.
  const band = 'x=0.2&y=0.8&width=0.5&height=0.2&px=200';
  const own = await crop(`crop?${band}`);
  expect([own.width, own.height]).toEqual([60, 16]);
  [200, 196, 190].forEach((v, c) => expect(Math.abs(own.mean[c] - v)).toBeLessThan(2));
  const printed = await crop(`on/${cotton}?${band}`);
  expect([printed.width, printed.height]).toEqual([60, 16]);
  // A sheet whose white is darker than the screen’s shows it darker.
  expect(printed.mean[1]).toBeLessThan(own.mean[1]);
  const dark = await crop(`on/${cotton}?x=0&y=0&width=0.2&height=0.2`);
  expect(dark.mean[1]).toBeGreaterThan((await crop('crop?x=0&y=0&width=0.2&height=0.2')).mean[1] + 10);
});
