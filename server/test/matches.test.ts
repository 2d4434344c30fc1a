import sharp from 'sharp';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { pdfText } from './pdf-text.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Match {
  places: {
    conditionId: string;
    place: number;
    score: number;
    reasons: { leaning: string; cost: number; sentence: string }[];
    figures: { blackL: number; marks: unknown[] };
    judged: unknown[];
  }[];
  leftOut: { conditionId: string; why: string }[];
  candidates: { sheet: { id: string }; figures: object }[];
}
interface Picture {
  id: string;
  title: string;
  caption: string;
  commission: Record<string, unknown> & { longSideMm: number; vetoes: string[] };
  commissioned: boolean;
  marks: { kind: string; x: number; y: number; lab: number[]; detailL: number }[];
  marksByHand: boolean;
  hints: string[];
  hintsByHand: boolean;
}

let rakuen: Running;
let baryta: string;
let cotton: string;
let pictureId: string;

beforeAll(async () => {
  rakuen = await start();
  [baryta, cotton] = [
    await condition(rakuen, 'Deep Sheet', 'baryta'),
    await condition(rakuen, 'Quiet Sheet', 'cotton'),
  ];
  for (const [id, kind] of [
    [baryta, 'baryta'],
    [cotton, 'cotton'],
  ] as const)
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      `${kind}.txt`,
      writeCgats(readChart(SHEETS[kind], scatteredChart(300), 'M1', 5)),
    );
  const [w, h] = [240, 160];
  const values = Uint8Array.from({ length: w * h * 3 }, (_, i) => {
    const [x, y] = [Math.floor(i / 3) % w, Math.floor(i / 3 / w)];
    return x > 230 && y > 150 ? [250, 20, 10][i % 3] : 12 + 10 * Math.sin(x / 3) * Math.sin(y / 3) + (y > 80 ? 30 : 0);
  });
  const jpeg = await sharp(values, { raw: { width: w, height: h, channels: 3 } })
    .withXmp(
      '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title><rdf:Alt><rdf:li>Low water</rdf:li></rdf:Alt></dc:title><dc:description><rdf:Alt><rdf:li>Seen from the quay.</rdf:li></rdf:Alt></dc:description></rdf:Description></rdf:RDF></x:xmpmeta>',
    )
    .jpeg({ quality: 95 })
    .toBuffer();
  pictureId = (await picture(rakuen, 'low-water.jpg', jpeg)).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const view = async () => (await rakuen.call<Picture>('GET', `/api/pictures/${pictureId}`)).body;
const match = async (over: object = {}) =>
  (await rakuen.call<Match>('POST', '/api/matches', { pictureId, ...over })).body;

it('a picture takes title and caption from its file, and begins with a commission nobody had to fill in', async () => {
  const p = await view();
  expect(p).toMatchObject({
    title: 'Low water',
    caption: 'Seen from the quay.',
    commissioned: false,
    marksByHand: false,
  });
  expect(p.commission.longSideMm).toBeGreaterThan(0);
  expect(p.marks.map((m) => m.kind)).toContain('colour');
});

it('is looked at behind another glass without its commission being changed; the figures are those it would have there', async () => {
  const figures = (m: Match) => Object.fromEntries(m.candidates.map((c) => [c.sheet.id, c.figures]));
  const { commission } = (await rakuen.call<{ commission: { glass: string } }>('GET', `/api/pictures/${pictureId}`))
    .body;
  const glass = commission.glass === 'plain' ? 'none' : 'plain';
  const [here, there] = [figures(await match()), figures(await match({ glass }))];
  expect(there).not.toEqual(here);
  expect((await view()).commission).toEqual(commission);
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, glass } });
  expect(figures(await match())).toEqual(there);
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission });
  expect((await rakuen.call('POST', '/api/matches', { pictureId, glass: 'fog' })).status).toBe(400);
});

it('a sheet that was not read with and without UV says that its brightener is estimated where it bears on it, in match and proof', async () => {
  const { commission } = await view();
  const change = (over: object) =>
    rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, ...over } });
  const readWith = await condition(rakuen, 'Twice Read', 'cotton');
  for (const light of ['M1', 'M2'] as const)
    await rakuen.upload(
      `/api/conditions/${readWith}/readings`,
      `${light}.txt`,
      writeCgats(readChart(SHEETS.cotton, scatteredChart(300), light, 5)),
    );
  const said = async () => {
    const { places } = await match({ conditionIds: [cotton, readWith] });
    return [cotton, readWith].map((id) =>
      /estimated from one spectrum \(b\* of its white there/.test(
        JSON.stringify(places.find((p) => p.conditionId === id)),
      ),
    );
  };
  interface Laid {
    brightenerUnknown?: boolean;
    estimatedWhite?: { between: [number, number]; startsLate: boolean };
    seen: { white: number[] };
  }
  const laid = async (id: string, light: string) =>
    (await rakuen.call<Laid>('GET', `/api/conditions/${id}/laid?light=${light}&glass=none`)).body;
  await change({ light: 'D50', glass: 'none' });
  expect(await said()).toEqual([false, false]);
  for (const where of [
    { light: 'led-warm', glass: 'none' },
    { light: 'D50', glass: 'museum' },
  ]) {
    await change(where);
    expect(await said()).toEqual([true, false]);
  }
  await change({});
  expect((await laid(cotton, 'D50')).estimatedWhite).toBeUndefined();
  const [told, read] = [await laid(cotton, 'led-warm'), await laid(readWith, 'led-warm')];
  expect([told.brightenerUnknown, read.brightenerUnknown, read.estimatedWhite]).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
  // It is one and the same paper: what is told of the one holds what was read of the other.
  const [low, high] = told.estimatedWhite!.between;
  expect(read.seen.white[2]).toBeGreaterThan(low - 0.1);
  expect(read.seen.white[2]).toBeLessThan(high + 0.1);
  expect(told.seen.white[2]).toBeGreaterThan(low);
  expect(told.seen.white[2]).toBeLessThan(high);
  expect(Math.abs(told.seen.white[2] - read.seen.white[2])).toBeLessThan(1);
  expect((await rakuen.call('DELETE', `/api/conditions/${readWith}`)).status).toBeLessThan(300);
});

it('a sheet that was only weighed is left out with its reason, and keeps no other from its place', async () => {
  const weighed = await condition(rakuen, 'Weighed Sheet', 'cotton');
  const seen = { takenAt: '2026-11-20T10:00:00Z', by: 'Ines', instrument: '', light: '', note: '' };
  const { status } = await rakuen.call('POST', `/api/conditions/${weighed}/observations`, {
    observations: [{ kind: 'weight', value: { grams: [19.1, 19.12], widthMm: 210, heightMm: 297 }, ...seen }],
  });
  expect(status).toBe(201);
  const { places, leftOut } = await match();
  expect(places).toHaveLength(2);
  expect(leftOut).toEqual([{ conditionId: weighed, why: 'Nothing was measured of it yet.' }]);
  expect((await rakuen.call('DELETE', `/api/conditions/${weighed}`)).status).toBe(204);
});

it('a part of a picture comes with the file’s own pixels', async () => {
  const lab = async (query: string) => {
    const answer = await fetch(`${rakuen.url}/api/pictures/${pictureId}/lab${query}`);
    if (!answer.ok) return { status: answer.status, widthPx: 0, heightPx: 0, at: () => [] as number[] };
    const bytes = Buffer.from(await answer.arrayBuffer());
    const [widthPx, heightPx] = [bytes.readUInt32LE(0), bytes.readUInt32LE(4)];
    const at = (x: number, y: number) => [0, 1, 2].map((c) => bytes.readInt16LE(8 + 2 * ((y * widthPx + x) * 3 + c)));
    return { status: answer.status, widthPx, heightPx, at };
  };
  const whole = await lab('');
  const part = await lab('?x=0.5&y=0.25&width=0.5&height=0.5');
  const [left, top] = [Math.floor(whole.widthPx / 2), Math.floor(whole.heightPx / 4)];
  expect(part.widthPx).toBe(whole.widthPx - left);
  for (const [x, y] of [
    [0, 0],
    [3, 2],
    [part.widthPx - 1, part.heightPx - 1],
  ])
    expect(part.at(x, y)).toEqual(whole.at(left + x, top + y));
  expect((await lab('?x=1.5&y=0&width=0.5&height=0.5')).status).toBe(400);
  // A part that would reach beyond the picture ends with it.
  expect((await lab('?x=0.9&y=0.9&width=0.5&height=0.5')).status).toBe(200);
});

it('the second of two windows at a picture is told, and shown what the first wrote', async () => {
  const path = `/api/pictures/${pictureId}`;
  const { revision, title } = (await rakuen.call<{ revision: number; title: string }>('GET', path)).body;
  const from = { 'If-Match': `"${revision}"` };
  const first = await rakuen.call<{ revision: number }>('PATCH', path, { title: 'From the first window' }, from);
  expect(first).toMatchObject({ status: 200, body: { revision: revision + 1 } });
  expect(await rakuen.call('PATCH', path, { title: 'From the second' }, from)).toMatchObject({
    status: 412,
    body: { current: { title: 'From the first window', revision: revision + 1 } },
  });
  await rakuen.call('PATCH', path, { title });
});

it('sheets are ranked by the model, where the picture will hang; glass draws the blacks together', async () => {
  const bare = await match();
  expect(bare.places.map((p) => p.conditionId)).toEqual([baryta, cotton]);
  expect(bare.candidates).toHaveLength(2);
  for (const { reasons, score } of bare.places) {
    expect(score).toBeGreaterThan(0);
    expect(score).toBeLessThanOrEqual(10);
    for (const r of reasons) expect(r.cost).toBeGreaterThanOrEqual(0);
  }
  const { commission } = await view();
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, glass: 'plain', lux: 100 } });
  expect(await view()).toMatchObject({ commissioned: true, commission: { glass: 'plain' } });
  const black = (m: Match, id: string) => m.places.find((p) => p.conditionId === id)!.figures.blackL;
  const glazed = await match();
  expect(black(glazed, cotton) - black(glazed, baryta)).toBeLessThan(black(bare, cotton) - black(bare, baryta));
  // Readings without UV apart tell every lamp, for they hold spectra.
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { asFound: ['commission'] });
  expect((await view()).commissioned).toBe(false);
});

it('a veto refuses with its reason; a school turns the order and never a veto', async () => {
  const { commission } = await view();
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, vetoes: ['reflections'] } });
  const { places, leftOut } = await match({ weights: { darkroomGreys: 5, depth: 5 } });
  expect(places.map((p) => p.conditionId)).toEqual([cotton]);
  expect(leftOut).toEqual([{ conditionId: baryta, why: expect.stringMatching(/^No gloss was asked for/) }]);
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { asFound: ['commission'] });
});

it('marks and hints are set by hand and come back as found; what can’t be is refused by its field', async () => {
  const { marks } = await view();
  const moved = marks.map((m, i) => (i === 0 ? { ...m, x: 0.25, word: 'the quay' } : m));
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { marks: moved, hints: ['water'] });
  expect(await view()).toMatchObject({ marksByHand: true, hintsByHand: true, hints: ['water'] });
  expect((await match()).places[0].figures.marks[0]).toMatchObject({ x: 0.25 });
  expect((await view()).marks[0]).toMatchObject({ word: 'the quay' });
  // The lab is sent to look where the printmaker says, by the printmaker’s word.
  expect(
    pdfText(
      new Uint8Array(
        await (await fetch(`${rakuen.url}/api/pictures/${pictureId}/order.pdf?conditionId=${baryta}`)).arrayBuffer(),
      ),
    ),
  ).toContain('the quay');
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { asFound: ['marks', 'hints'] });
  expect((await view()).marks).toEqual(marks);
  for (const bad of [
    { marks: [{ ...marks[0], x: 2 }] },
    { hints: ['rain'] },
    { commission: { ...(await view()).commission, lux: -1 } },
    { commission: { ...(await view()).commission, vetoes: ['brightener', 'brightener'] } },
    { commission: { ...(await view()).commission, originalGround: [90, 0] } },
  ])
    expect((await rakuen.call('PATCH', `/api/pictures/${pictureId}`, bad)).status).toBe(400);
  expect((await view()).commissioned).toBe(false);
});

it('a match is kept with what it rested on, and opened again as it stood', async () => {
  const kept = await rakuen.call<{ id: string; result: { places: { name: string; score: number }[] } }>(
    'POST',
    '/api/matches/kept',
    { pictureId, name: 'first look', weights: { money: 0 } },
  );
  expect(kept.status).toBe(201);
  const before = kept.body.result.places;
  expect(before.map((p) => p.name)).toEqual([
    expect.stringMatching(/Deep Sheet/),
    expect.stringMatching(/Quiet Sheet/),
  ]);
  const { commission } = await view();
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, glass: 'plain' } });
  const [again] = (await rakuen.call<(typeof kept.body)[]>('GET', `/api/pictures/${pictureId}/matches`)).body;
  expect(again.result.places).toEqual(before);
  await rakuen.call('PATCH', `/api/pictures/${pictureId}`, { asFound: ['commission'] });
  expect((await rakuen.call('DELETE', `/api/matches/kept/${kept.body.id}`)).status).toBe(204);
});

it('of fifty schools founded at once under one name there is one; its weights are numbers', async () => {
  const founded = await Promise.all(
    Array.from({ length: 50 }, () =>
      rakuen.call('POST', '/api/schools', { name: 'Harbour school', weights: { depth: 2 } }),
    ),
  );
  expect(founded.filter((f) => f.status === 201)).toHaveLength(1);
  expect(founded.filter((f) => f.status === 409)).toHaveLength(49);
  expect((await rakuen.call<unknown[]>('GET', '/api/schools')).body).toHaveLength(1);
  for (const weights of [{ depth: 'much' }, { depth: -1 }, 'none'])
    expect((await rakuen.call('POST', '/api/schools', { name: 'Other', weights })).status).toBe(400);
  expect((await rakuen.call('POST', '/api/schools', { name: 'quiet RAG', weights: {} })).status).toBe(409);
});

it('a picture is drawn on a sheet, and a sheet is laid out for a proof', async () => {
  const drawn = await fetch(`${rakuen.url}/api/pictures/${pictureId}/on/${cotton}?light=A&glass=museum&px=200`);
  expect([drawn.status, drawn.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
  expect(Number(drawn.headers.get('x-beyond-screen'))).toBeLessThanOrEqual(1);
  const laid = await rakuen.call<{ bare: { nodes: number; lab: string } }>('GET', `/api/conditions/${baryta}/laid`);
  expect(Buffer.from(laid.body.bare.lab, 'base64')).toHaveLength(33 ** 3 * 6);
  expect((await rakuen.call('GET', `/api/conditions/${baryta}/laid?light=moon`)).status).toBe(404);
  // Only the profile's name is known here: there is nothing to embed.
  const copy = await rakuen.call<{ remedy: string }>('GET', `/api/pictures/${pictureId}/copy?conditionId=${baryta}`);
  expect([copy.status, copy.body.remedy]).toEqual([409, expect.stringContaining('Profile')]);
});

it('what the eye found on strips is said with its sheet, the newest word of each part; it counts for nothing, and one that is of no sheet is refused', async () => {
  const asked = { pictureId, conditionIds: [baryta, cotton] };
  const { body: before } = await rakuen.call<Match>('POST', '/api/matches', asked);
  const found = (value: number, over: object = {}) =>
    rakuen.call('POST', '/api/notes', {
      text: `Best of the strips: ${value}.`,
      by: 'N. Ito',
      pictureId,
      conditionId: cotton,
      finding: { part: 'liftStops', value, steps: '0, 0.25, 0.5', light: 'D50' },
      ...over,
    });
  expect((await found(0.25)).status).toBe(201);
  expect((await found(0.5)).status).toBe(201);
  const { body: after } = await rakuen.call<Match>('POST', '/api/matches', asked);
  const at = (id: string) => after.places.find((p) => p.conditionId === id)!;
  expect(at(cotton).judged).toMatchObject([{ by: 'N. Ito', finding: { value: 0.5, light: 'D50' } }]);
  expect(at(baryta).judged).toEqual([]);
  expect(after.places.map(({ place, score }) => [place, score])).toEqual(
    before.places.map(({ place, score }) => [place, score]),
  );
  expect((await found(0.5, { conditionId: undefined })).status).toBe(422);
  expect((await found(9)).status).toBe(400);
  const opened = { part: 'shadows', value: -1, steps: '0, -1' };
  expect((await found(0, { finding: opened })).status).toBe(422);
  expect((await found(0, { finding: { part: 'sharpening', value: 1, steps: '1' } })).status).toBe(400);
});

it('a decision keeps place and score as they stood', async () => {
  const { status, body } = await rakuen.call<{ place: number; score: number }>('POST', '/api/decisions', {
    pictureId,
    conditionId: baryta,
    stamp: 'chosen',
    reason: 'The water stays dark.',
  });
  expect([status, body.place]).toEqual([201, 1]);
  expect(body.score).toBeGreaterThan(1);
});

it('what was chosen is held against the schools; of too few no weights are fitted', async () => {
  interface Learned {
    decisions: number;
    chance: number;
    leftOut: number;
    schools: { key: string; hits: number }[];
    own?: object;
  }
  const learned = async () => (await rakuen.call<Learned>('GET', '/api/matches/learned')).body;
  const before = await learned();
  const { places } = await match();
  const first = places[0].conditionId;
  const made = await rakuen.call<{ id: string }>('POST', '/api/decisions', {
    pictureId,
    conditionId: first,
    stamp: 'chosen',
    reason: 'It leads.',
  });
  const after = await learned();
  expect(after.decisions).toBeGreaterThanOrEqual(before.decisions);
  expect(after.decisions).toBeGreaterThan(0);
  expect(after.own).toBeUndefined();
  expect(after.chance).toBeCloseTo(after.decisions / places.length, 6);
  // The order that leads without a side taken is the start’s own.
  expect(after.schools.find((s) => s.key === 'start')!.hits).toBeGreaterThan(0);
  await rakuen.call('DELETE', `/api/decisions/${made.body.id}`);
});

it('a lamp that was removed lights no match any more, even where every sheet was seen in it before', async () => {
  const rows = Array.from({ length: 36 }, (_, i) => `${380 + i * 10},${(1 + i / 10).toFixed(2)}`);
  const lamp = await rakuen.upload<{ id: string }>('/api/lights', 'lamp.csv', ['nm,power', ...rows].join('\n'), {
    name: 'Lamp over the table',
  });
  const { commission } = (await rakuen.call<Picture>('GET', `/api/pictures/${pictureId}`)).body;
  const hung = (light: unknown) =>
    rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission: { ...commission, light } });
  expect((await hung(lamp.body.id)).status).toBe(200);
  const ask = () => rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: [baryta, cotton] });
  expect((await ask()).body.places).toHaveLength(2);
  expect((await rakuen.call('DELETE', `/api/lights/${lamp.body.id}`)).status).toBe(204);
  expect(await ask()).toMatchObject({ status: 404, body: { field: 'light' } });
  expect((await hung(commission.light)).status).toBe(200);
});

it('tells how many sheets lie there while they are learned, can be left, and is asked for again', async () => {
  const ids: string[] = [];
  for (let i = 0; i < 5; i++) {
    const id = await condition(rakuen, `Unlearned ${i}`, 'cotton');
    const set = writeCgats(readChart(SHEETS.cotton, scatteredChart(460), 'M1', 60 + i));
    await rakuen.upload(`/api/conditions/${id}/readings`, `new-${i}.txt`, set);
    ids.push(id);
  }
  const work = crypto.randomUUID();
  const far = async () => (await rakuen.call<{ done: number; total: number }>('GET', `/api/under-way/${work}`)).body;
  expect(await far()).toEqual({ done: 0, total: 0 });
  const ask = () => rakuen.call<Match>('POST', '/api/matches', { pictureId, conditionIds: ids, work });
  const asked = ask();
  const seen: number[] = [];
  for (let now = await far(); now.done < 1; now = await far()) {
    if (now.total > 0) seen.push(now.total);
    await new Promise((done) => setTimeout(done, 20));
  }
  expect(new Set(seen)).toEqual(new Set([5]));
  expect((await rakuen.call('DELETE', `/api/under-way/${work}`)).status).toBe(204);
  expect(await asked).toMatchObject({
    status: 409,
    body: { remedy: expect.stringContaining('what was learned until then is kept') },
  });
  expect(await far()).toEqual({ done: 0, total: 0 });
  const again = await ask();
  expect([again.status, again.body.places.length]).toEqual([200, 5]);
}, 240_000);
