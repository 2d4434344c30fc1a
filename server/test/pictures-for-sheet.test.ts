import sharp from 'sharp';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Line {
  pictureId: string;
  exact: boolean;
  score: number;
  verdict: string;
  wouldHelp: string[];
  refused?: string;
}

let rakuen: Running;
let cotton: string;
let baryta: string;
const ids: string[] = [];

/** Pictures as a studio has them: nights, fog, colours, one of each made a little otherwise. */
const shades: ((x: number, y: number, n: number) => [number, number, number])[] = [
  (x, y, n) => [8 + 10 * Math.sin(x / (3 + n)), 8 + 8 * Math.sin(y / 4), 16 + 8 * Math.sin((x + y) / 6)],
  (x, y, n) => [190 + 20 * Math.sin(x / 20), 190 + 20 * Math.sin(x / 20), 192 + 2 * n + 18 * Math.sin(y / 30)],
  (x, y, n) => [255 * (x / 90), 255 * (y / 60), 60 + 20 * n],
  (x, y, n) => [(x * (7 + n)) % 256, (x * 7 + y * 3) % 256, (x * 7 + y * 5) % 256],
];

beforeAll(async () => {
  rakuen = await start();
  [cotton, baryta] = [
    await condition(rakuen, 'Quiet Sheet', 'cotton'),
    await condition(rakuen, 'Deep Sheet', 'baryta'),
  ];
  for (const [id, kind] of [
    [cotton, 'cotton'],
    [baryta, 'baryta'],
  ] as const)
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      `${kind}.txt`,
      writeCgats(readChart(SHEETS[kind], scatteredChart(300), 'M1', 5)),
    );
  for (let i = 0; i < 44; i++) {
    const [w, h] = [90, 60];
    const shade = shades[i % shades.length];
    const bytes = Uint8Array.from({ length: w * h * 3 }, (_, k) => {
      const at = Math.floor(k / 3);
      return Math.round(Math.max(0, Math.min(255, shade(at % w, Math.floor(at / w), Math.floor(i / 4))[k % 3])));
    });
    const png = await sharp(bytes, { raw: { width: w, height: h, channels: 3 } })
      .png()
      .toBuffer();
    ids.push((await picture(rakuen, `one-${i}.png`, png)).job.pictureId!);
  }
}, 240_000);
afterAll(() => rakuen.stop());

async function suits(over: object) {
  const answer = await fetch(`${rakuen.url}/api/matches/pictures`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(over),
  });
  const text = await answer.text();
  const lines = text
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Line & { pictures?: number });
  return { status: answer.status, type: answer.headers.get('content-type'), lines };
}
/** The last word on each picture. */
const lastOf = (lines: Line[]) => new Map(lines.filter((l) => l.pictureId).map((l) => [l.pictureId, l]));
const scoreOn = async (conditionId: string, pictureId: string) =>
  (
    await rakuen.call<{ places: { score: number; verdict: string }[] }>('POST', '/api/matches', {
      pictureId,
      conditionIds: [conditionId],
    })
  ).body.places[0];

it('every picture is judged on the sheet once; the best forty are then what the match itself says, to the last digit', async () => {
  const { status, type, lines } = await suits({ conditionId: cotton });
  expect([status, type]).toEqual([200, 'application/x-ndjson']);
  expect(lines.at(-1)).toEqual({ pictures: 44 });
  const last = lastOf(lines);
  expect(new Set(last.keys())).toEqual(new Set(ids));
  const exact = [...last.values()].filter((l) => l.exact);
  expect(exact).toHaveLength(40);
  // Those that are not computed again come after them, but for what few colours may be off by.
  const worst = Math.min(...exact.map((l) => l.score));
  for (const l of last.values()) if (!l.exact) expect(l.score).toBeLessThan(worst + 0.5);
  for (const l of [exact[0], exact[17], exact[39]]) {
    const place = await scoreOn(cotton, l.pictureId);
    expect(l.score).toBeCloseTo(place.score, 9);
    expect(l.verdict).toBe(place.verdict);
  }
  // By its gist a picture scores nearly the same.
  const first = new Map<string, Line>();
  for (const l of lines) if (l.pictureId && !first.has(l.pictureId)) first.set(l.pictureId, l);
  for (const l of exact) expect(Math.abs(first.get(l.pictureId)!.score - l.score)).toBeLessThan(0.5);
}, 120_000);

it('a cotton sheet prefers fog to a night, and says what would help the night; a baryta takes the night', async () => {
  const [night, fog] = [ids[0], ids[1]];
  const onCotton = lastOf((await suits({ conditionId: cotton, pictureIds: [night, fog] })).lines);
  expect(onCotton.size).toBe(2);
  expect(onCotton.get(fog)!.score).toBeGreaterThan(onCotton.get(night)!.score + 2);
  expect(onCotton.get(night)!.wouldHelp).toContain('shadows opened');
  expect(onCotton.get(fog)!.wouldHelp).not.toContain('shadows opened');
  const onBaryta = lastOf((await suits({ conditionId: baryta, pictureIds: [night] })).lines);
  expect(onBaryta.get(night)!.score).toBeGreaterThan(onCotton.get(night)!.score + 2);
});

it('each picture is judged where it will hang; a veto refuses one and says why; weights are heard', async () => {
  const [night, fog] = [ids[0], ids[1]];
  const patch = async (id: string, change: object) => {
    const { commission } = (await rakuen.call<{ commission: object }>('GET', `/api/pictures/${id}`)).body;
    expect(
      (await rakuen.call('PATCH', `/api/pictures/${id}`, { commission: { ...commission, ...change } })).status,
    ).toBe(200);
  };
  const bare = lastOf((await suits({ conditionId: baryta, pictureIds: [night] })).lines).get(night)!;
  await patch(fog, { vetoes: ['reflections'] });
  await patch(night, { glass: 'plain', light: 'D50', lux: 40 });
  const lines = lastOf((await suits({ conditionId: baryta, pictureIds: [night, fog] })).lines);
  expect(lines.get(fog)).toMatchObject({ refused: expect.stringMatching(/shine|sheen|gloss/i) });
  // A glass lays its reflection on the black: the night loses shadow steps behind it.
  expect(lines.get(night)!.score).toBeLessThan(bare.score - 0.05);
  const weighed = lastOf(
    (await suits({ conditionId: cotton, pictureIds: [ids[4]], weights: { shadowSteps: 4 } })).lines,
  );
  const plain = lastOf((await suits({ conditionId: cotton, pictureIds: [ids[4]] })).lines);
  expect(weighed.get(ids[4])!.score).toBeLessThan(plain.get(ids[4])!.score - 0.3);
});

it('what can’t be asked is refused at once: no such condition, one without readings', async () => {
  const unread = await condition(rakuen, 'Unread Sheet', 'cotton');
  const status = async (conditionId: string) =>
    (await rakuen.call('POST', '/api/matches/pictures', { conditionId })).status;
  expect(await status(unread)).toBe(409);
  expect(await status(crypto.randomUUID())).toBe(404);
  expect(await status('nothing')).toBe(400);
});

it('a gist is kept with its picture, and goes with it', async () => {
  const { lines } = await suits({ conditionId: cotton });
  expect(lines.at(-1)).toEqual({ pictures: 44 });
  const gone = ids[43];
  expect((await rakuen.call('DELETE', `/api/pictures/${gone}`)).status).toBe(204);
  const after = lastOf((await suits({ conditionId: cotton })).lines);
  expect([after.size, after.has(gone)]).toEqual([43, false]);
});
