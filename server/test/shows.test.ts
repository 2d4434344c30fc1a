import sharp from 'sharp';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import type { ShowHead, ShowInput, ShowPlanView, ShowView } from '@rakuen/contract/shows';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

let rakuen: Running;
/** Print conditions by sheet, and their papers. */
const sheets: Record<string, { id: string; paperId: string }> = {};
const pictures: string[] = [];

const shades: ((x: number, y: number) => [number, number, number])[] = [
  (x, y) => [8 + 10 * Math.sin(x / 3), 8 + 8 * Math.sin(y / 4), 16 + 8 * Math.sin((x + y) / 6)],
  (x, y) => [190 + 20 * Math.sin(x / 20), 190 + 20 * Math.sin(x / 20), 192 + 18 * Math.sin(y / 30)],
  (x, y) => [255 * (x / 90), 255 * (y / 60), 60],
  (x, y) => [(x * 7) % 256, (x * 7 + y * 3) % 256, (x * 7 + y * 5) % 256],
];

beforeAll(async () => {
  rakuen = await start();
  for (const [kind, name] of [
    ['cotton', 'Quiet Sheet'],
    ['baryta', 'Deep Sheet'],
  ] as const) {
    const id = await condition(rakuen, name, kind);
    const file = writeCgats(readChart(SHEETS[kind], scatteredChart(300), 'M1', 5));
    await rakuen.upload(`/api/conditions/${id}/readings`, `${kind}.txt`, file);
    const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${id}`);
    sheets[kind] = { id, paperId: body.paperId };
  }
  const unread = await condition(rakuen, 'Unread Sheet', 'cotton');
  const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${unread}`);
  sheets.unread = { id: unread, paperId: body.paperId };
  for (const [i, shade] of shades.entries()) {
    const [w, h] = [90, 60];
    const bytes = Uint8Array.from({ length: w * h * 3 }, (_, k) => {
      const at = Math.floor(k / 3);
      return Math.round(Math.max(0, Math.min(255, shade(at % w, Math.floor(at / w))[k % 3])));
    });
    const png = await sharp(bytes, { raw: { width: w, height: h, channels: 3 } })
      .png()
      .toBuffer();
    pictures.push((await picture(rakuen, `shown-${i}.png`, png)).job.pictureId!);
  }
}, 240_000);
afterAll(() => rakuen.stop());

const input = (over: Partial<ShowInput> = {}): ShowInput => ({
  name: `Winter ${Math.random()}`,
  place: 'North gallery',
  maxLoss: 0.3,
  sameSurface: false,
  sameWhite: false,
  allPapers: true,
  pictureIds: [...pictures],
  papers: [],
  ...over,
});
const add = async (over: Partial<ShowInput> = {}) =>
  (await rakuen.call<ShowView>('POST', '/api/shows', input(over))).body;
const planOf = async (id: string, over: object = {}) => {
  const { status, body } = await rakuen.call<ShowPlanView>('POST', `/api/shows/${id}/plan`, over);
  expect(status).toBe(200);
  return body;
};
const put = (show: ShowView, over: Partial<ShowInput>, revision = show.revision) => {
  const { id, createdAt: _, revision: __, ...own } = show;
  return rakuen.call<ShowView>('PUT', `/api/shows/${id}`, { ...own, ...over }, { 'If-Match': `"${revision}"` });
};
/** Score of a picture on a condition, as a match of its own gives it. */
async function matched(pictureId: string): Promise<Map<string, number>> {
  const { body } = await rakuen.call<{ places: { conditionId: string; score: number }[] }>('POST', '/api/matches', {
    pictureId,
    conditionIds: [sheets.cotton.id, sheets.baryta.id],
  });
  return new Map(body.places.map((p) => [p.conditionId, p.score]));
}

it('scores of all colours are those of a match of each picture, and of a hundred colours within half a point', async () => {
  const { id } = await add();
  const exact = await planOf(id, { exact: true });
  expect(exact.papers.map((p) => p.name)).toEqual(['Deep Sheet', 'Quiet Sheet']);
  expect(exact.leftOut).toMatchObject([{ paperId: sheets.unread.paperId, why: 'Nothing was measured of it yet.' }]);
  const about = await planOf(id);
  expect([exact.exactScores, about.exactScores]).toEqual([true, false]);
  for (const [i, pictureId] of pictures.entries()) {
    const own = await matched(pictureId);
    expect(exact.pictures[i].pictureId).toBe(pictureId);
    exact.papers.forEach((paper, s) => {
      const score = own.get(paper.conditionIds[0])!;
      expect(exact.pictures[i].scores[s]).toBeCloseTo(score, 6);
      expect(exact.pictures[i].conditions[s]).toBe(paper.conditionIds[0]);
      expect(Math.abs(about.pictures[i].scores[s]! - score)).toBeLessThan(0.5);
    });
  }
}, 60_000);

it('the plan follows from its scores: means, losses, the fewest papers, what a drop costs', async () => {
  const { id } = await add({ maxLoss: 10 });
  const { papers, pictures: rows, choices, fewest, drops, additions, exactSearch } = await planOf(id, { exact: true });
  const mean = (of: number[]) => of.reduce((sum, v) => sum + v, 0) / of.length;
  const alone = papers.map((_, s) => mean(rows.map((r) => r.scores[s] ?? 0)));
  const both = mean(rows.map((r) => Math.max(...r.scores.map((s) => s ?? 0))));
  expect(exactSearch).toBe(true);
  expect(choices[0].paperIds).toEqual([papers[alone[0] > alone[1] ? 0 : 1].paperId]);
  expect(choices[0].meanScore).toBeCloseTo(Math.max(...alone), 9);
  expect(choices[0].meanLoss).toBeCloseTo(both - Math.max(...alone), 9);
  // With a loss of ten points one paper is enough, and dropping it loses all of it.
  expect(fewest).toBe(0);
  expect(drops).toHaveLength(1);
  expect(drops[0].byMean).toBeCloseTo(-Math.max(...alone), 9);
  if (both - Math.max(...alone) > 1e-9) expect(additions[0].byMean).toBeCloseTo(both - Math.max(...alone), 9);
}, 60_000);

it('a chosen paper is in every choice and a vetoed one in none; a paper alone is considered where not all are', async () => {
  const veto = await add({ papers: [{ paperId: sheets.baryta.paperId, standing: 'vetoed' }] });
  for (const { paperIds } of (await planOf(veto.id)).choices) expect(paperIds).toEqual([sheets.cotton.paperId]);
  const chosen = await add({ papers: [{ paperId: sheets.cotton.paperId, standing: 'chosen' }] });
  for (const { paperIds } of (await planOf(chosen.id)).choices) expect(paperIds).toContain(sheets.cotton.paperId);
  const one = await add({ allPapers: false, papers: [{ paperId: sheets.cotton.paperId, standing: 'considered' }] });
  expect((await planOf(one.id)).papers.map((p) => p.paperId)).toEqual([sheets.cotton.paperId]);
  const nothing = await add({ allPapers: false, pictureIds: [] });
  expect(await planOf(nothing.id)).toMatchObject({ choices: [], pictures: [], papers: [] });
}, 60_000);

it('cotton and baryta do not share a surface: with that wish no choice holds both, and what the wish costs is said', async () => {
  const wish = await planOf((await add({ sameSurface: true, maxLoss: 0 })).id, { exact: true });
  for (const { paperIds } of wish.choices) expect(paperIds).toHaveLength(1);
  expect(wish.meanWithoutWish).toBeGreaterThanOrEqual(wish.choices.at(-1)!.meanScore);
  const held = await add({
    sameSurface: true,
    papers: ['cotton', 'baryta'].map((k) => ({ paperId: sheets[k].paperId, standing: 'chosen' as const })),
  });
  expect((await planOf(held.id)).unlike).toHaveLength(1);
}, 60_000);

it('where the show hangs stands in place of where each picture would: scores are those of a match there', async () => {
  const show = await add({ light: 'A', glass: 'plain', lux: 80 });
  const plan = await planOf(show.id, { exact: true });
  const own = await matched(pictures[0]);
  const { body: before } = await rakuen.call<{ commission: object }>('GET', `/api/pictures/${pictures[0]}`);
  const there = { ...before.commission, light: 'A', glass: 'plain', lux: 80 };
  await rakuen.call('PATCH', `/api/pictures/${pictures[0]}`, { commission: there });
  const moved = await matched(pictures[0]);
  await rakuen.call('PATCH', `/api/pictures/${pictures[0]}`, { asFound: ['commission'] });
  plan.papers.forEach(({ conditionIds: [id] }, s) => {
    expect(plan.pictures[0].scores[s]).toBeCloseTo(moved.get(id)!, 6);
    expect(Math.abs(moved.get(id)! - own.get(id)!)).toBeGreaterThan(1e-3);
  });
}, 60_000);

it('order, papers and place are kept; an older revision is refused with what stands there now', async () => {
  const show = await add({ name: 'Salt' });
  const turned = [...pictures].reverse();
  const first = await put(show, {
    pictureIds: turned,
    papers: [{ paperId: sheets.cotton.paperId, standing: 'chosen' }],
  });
  expect([first.status, first.body.revision > show.revision]).toEqual([200, true]);
  expect((await rakuen.call<ShowView>('GET', `/api/shows/${show.id}`)).body.pictureIds).toEqual(turned);
  const late = await put(show, { place: 'South gallery' });
  expect(late.status).toBe(412);
  expect((late.body as unknown as { current: ShowView }).current.pictureIds).toEqual(turned);
  const { body: heads } = await rakuen.call<ShowHead[]>('GET', '/api/shows');
  expect(heads.find((h) => h.id === show.id)).toMatchObject({
    name: 'Salt',
    place: 'North gallery',
    pictures: 4,
    pictureIds: turned,
    chosenPapers: ['Quiet Sheet'],
  });
});

it('refuses a name twice, a picture twice, and what is not there', async () => {
  await add({ name: 'Ice' });
  const codes = [
    input({ name: 'ICE ' }),
    input({ pictureIds: [pictures[0], pictures[0]] }),
    input({ pictureIds: [crypto.randomUUID()] }),
    input({ light: 'moon' }),
    input({ maxLoss: 11 }),
    input({ papers: [{ paperId: sheets.cotton.paperId, standing: 'liked' as 'chosen' }] }),
  ].map(async (body) => (await rakuen.call('POST', '/api/shows', body)).status);
  expect(await Promise.all(codes)).toEqual([409, 422, 404, 404, 400, 400]);
  expect((await rakuen.call('POST', `/api/shows/${crypto.randomUUID()}/plan`, {})).status).toBe(404);
});

it('a picture that is removed leaves the show, and stands in its place again when it is restored', async () => {
  const show = await add({ name: 'Tide' });
  await rakuen.call('DELETE', `/api/pictures/${pictures[1]}`);
  const less = (await rakuen.call<ShowView>('GET', `/api/shows/${show.id}`)).body;
  expect(less.pictureIds).toEqual([pictures[0], pictures[2], pictures[3]]);
  const [gone] = (await rakuen.call<{ change: string }[]>('GET', '/api/bin')).body;
  expect((await rakuen.call('POST', `/api/events/${gone.change}/undo`)).status).toBe(204);
  expect((await rakuen.call<ShowView>('GET', `/api/shows/${show.id}`)).body.pictureIds).toEqual(pictures);
  expect((await rakuen.call('DELETE', `/api/shows/${show.id}`)).status).toBe(204);
  const [removed] = (await rakuen.call<{ change: string; name: string }[]>('GET', '/api/bin')).body;
  expect(removed.name).toBe('Tide');
  await rakuen.call('POST', `/api/events/${removed.change}/undo`);
  expect((await rakuen.call<ShowView>('GET', `/api/shows/${show.id}`)).body.pictureIds).toEqual(pictures);
});

it('one commission for many pictures is one operation that can be undone; a ground stays each picture’s own', async () => {
  const commissionOf = async (id: string) =>
    (await rakuen.call<{ commission: Record<string, unknown>; commissioned: boolean }>('GET', `/api/pictures/${id}`))
      .body;
  const one = { ...(await commissionOf(pictures[0])).commission, originalGround: [94, 0, 2] };
  await rakuen.call('PATCH', `/api/pictures/${pictures[0]}`, { commission: one });
  const commission = {
    longSideMm: 900,
    shortSideMm: 300,
    format: 'roll',
    priceClass: 'economical',
    viewingMm: 2000,
    copies: 2,
    handled: false,
    light: 'A',
    glass: 'plain',
    lux: 80,
    mustLast: true,
    vetoes: ['plastic'],
    originalGround: [80, 1, 12],
  };
  const ask = (pictureIds: string[], over: object = {}) =>
    rakuen.call<{ changed: number }>('PUT', '/api/pictures/commissions', {
      pictureIds,
      commission: { ...commission, ...over },
    });
  expect((await ask([...pictures, crypto.randomUUID()])).status).toBe(404);
  expect((await ask(pictures, { format: 'scroll' })).status).toBe(400);
  expect((await commissionOf(pictures[1])).commissioned).toBe(false);
  expect((await ask(pictures)).body).toEqual({ changed: 4 });
  expect((await ask(pictures)).body).toEqual({ changed: 0 });
  const { originalGround: _, ...rest } = commission;
  expect((await commissionOf(pictures[0])).commission).toEqual({ ...rest, originalGround: [94, 0, 2] });
  expect((await commissionOf(pictures[1])).commission).toEqual(rest);
  const [{ change }] = (await rakuen.call<{ change: string }[]>('GET', '/api/events')).body;
  expect((await rakuen.call('POST', `/api/events/${change}/undo`)).status).toBe(204);
  expect((await commissionOf(pictures[1])).commissioned).toBe(false);
  expect((await commissionOf(pictures[0])).commission).toEqual(one);
});
