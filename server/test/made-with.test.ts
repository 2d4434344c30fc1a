import { createHash } from 'node:crypto';
import { PLAIN } from '@rakuen/core/proof/recipe';
import sharp from 'sharp';
import { read } from './sheet-read.ts';
import { pdfText } from './pdf-text.ts';
import { CONDITION, condition, PAPER, picture, start, type Running } from './rakuen.ts';

interface Print {
  id: string;
  code: string;
  revision: number;
  state: string;
  boxId?: string;
  settings: Record<string, unknown>;
  carriedFrom: Record<string, string>;
  unchecked?: string[];
  recipe?: { id: string; name: string; version: number; values: Record<string, unknown> };
  fileHash?: string;
  fileName?: string;
  profileHash?: string;
  pictureHash?: string;
  passed?: { checks: string[]; reason: string };
}
interface Look {
  print: Print;
  open: string[];
  since: { what: string; sentence: string }[];
  newerRecipe?: { id: string };
}
interface ApiFault {
  message: string;
  field?: string;
}
interface Run {
  id: string;
  items: { print: Print; looks: string[]; open: string[]; differs: { key: string; is: string; was: string }[] }[];
}

let rakuen: Running;
let pictureId: string;
let matt: string;
let gloss: string;
let png: Buffer;

beforeAll(async () => {
  rakuen = await start();
  matt = await condition(rakuen, 'Quiet Matt');
  const paper = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name: 'Loud Gloss' });
  const { body } = await rakuen.call<{ id: string }>('POST', '/api/conditions', {
    ...CONDITION,
    paperId: paper.body.id,
    mediaSetting: 'Gloss',
    resolution: '2880 dpi',
  });
  gloss = body.id;
  const grey = { create: { width: 120, height: 80, channels: 3 as const, background: { r: 90, g: 60, b: 30 } } };
  png = await sharp(grey).png().toBuffer();
  pictureId = (await picture(rakuen, 'dune.png', png, { title: 'Dune' })).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const begin = async (body: object) => (await rakuen.call<Print>('POST', '/api/prints/begin', body)).body;
const look = async (id: string) => (await rakuen.call<Look>('GET', `/api/prints/${id}/look`)).body;
const done = (id: string, body: object = {}) => rakuen.call<Print & ApiFault>('POST', `/api/prints/${id}/done`, body);
const settle = (id: string, body: object) => rakuen.call<Print & ApiFault>('PATCH', `/api/prints/${id}`, body);
const details = async (id: string) =>
  (
    await rakuen.call<{ entries: { id: string; details: Record<string, string> }[] }>('GET', '/api/ledger?kind=print')
  ).body.entries.find((e) => e.id === id)!.details;

describe('a print is marked as printed', () => {
  it('once what differs was checked: each open check is named, and nothing is booked meanwhile', async () => {
    const first = await begin({ pictureId, conditionId: matt });
    // Nothing was printed here: nothing differs, and nothing is asked for.
    expect((await look(first.id)).open).toEqual([]);
    expect((await done(first.id)).status).toBe(200);

    const next = await begin({ pictureId, conditionId: gloss });
    expect(next.unchecked).toEqual(['mediaSetting', 'resolution']);
    const refused = await done(next.id);
    expect(refused).toMatchObject({
      status: 409,
      body: { message: 'Not checked yet: media setting, resolution.', field: 'passReason' },
    });
    expect((await look(next.id)).print.state).toBe('waiting');
    await settle(next.id, { looked: ['mediaSetting'] });
    expect((await done(next.id)).body.message).toBe('Not checked yet: resolution.');
    await settle(next.id, { settings: { resolution: '1440 dpi' } });
    const made = await done(next.id);
    expect(made).toMatchObject({ status: 200, body: { state: 'printed' } });
    expect(made.body.passed).toBeUndefined();
  });

  it('or for a reason, which is recorded in the print, the ledger and its CSV', async () => {
    const print = await begin({ pictureId, conditionId: matt });
    expect((await done(print.id, { passReason: '  ' })).status).toBe(400);
    const made = await done(print.id, { passReason: 'the driver still had it' });
    expect(made.body.passed).toEqual({ checks: ['media setting', 'resolution'], reason: 'the driver still had it' });
    expect(await details(print.id)).toMatchObject({
      notChecked: 'media setting, resolution',
      notCheckedWhy: 'the driver still had it',
      code: made.body.code,
    });
    const csv = await (await fetch(`${rakuen.url}/api/ledger.csv?kind=print`)).text();
    expect(csv).toContain('the driver still had it');
  });

  it('on a run sheet after the nozzles, the side and the driver were checked; a like sheet after it asks for less', async () => {
    const ids = [];
    for (const conditionId of [gloss, gloss]) ids.push((await begin({ pictureId, conditionId })).id);
    const { body: planned } = await rakuen.call<Run>('POST', '/api/runs', { printer: 'Test Press', printIds: ids });
    const [one, two] = planned.items;
    expect(one.open).toEqual([
      'nozzle check',
      'coated side',
      'flat corners',
      'media setting',
      'colour management off',
      'resolution',
    ]);
    // The driver is checked for its media setting: the record asks for no second tick.
    expect(one.differs.map((d) => [d.key, d.is, d.was])).toEqual([
      ['resolution', '2880 dpi', '720 dpi'],
      ['resolution', '2880 dpi', '1440 dpi'],
    ]);
    // The second is compared with the first, which goes in before it.
    expect(two.differs.filter((d) => d.key === 'mediaSetting')).toEqual([]);
    expect(two.looks).not.toContain('media setting');
    const path = `/api/runs/${planned.id}/prints/${one.print.id}`;
    expect((await rakuen.call('POST', `${path}/done`, {})).status).toBe(409);
    expect((await done(one.print.id)).body.message).toContain('nozzle check');
    await rakuen.call('PUT', `/api/runs/${planned.id}/looked`, { looked: ['nozzle check'] });
    const looked = ['coated side', 'flat corners', 'media setting', 'colour management off'];
    await rakuen.call('PUT', `${path}/looked`, { looked });
    expect((await rakuen.call<ApiFault>('POST', `${path}/done`, {})).body.message).toBe('Not checked yet: resolution.');
    await settle(one.print.id, { looked: ['resolution'] });
    const after = await rakuen.call<Run>('POST', `${path}/done`, {});
    expect(after.status).toBe(200);
    expect(after.body.items.find((i) => i.print.id === two.print.id)!.open).toEqual(['coated side', 'flat corners']);
    await rakuen.call('POST', `/api/runs/${planned.id}/close`);
    await rakuen.call('DELETE', `/api/prints/${two.print.id}`);
  });
});

describe('the record of a print', () => {
  const values = { ...PLAIN, liftStops: 0.5, shadows: 0.3, contrast: 0.1, rendering: 'perceptual', borderMm: 20 };
  const recipe = (over: object = {}) =>
    rakuen.call<{ id: string; revision: number }>('PUT', '/api/recipes', {
      pictureId,
      conditionId: gloss,
      name: 'dusk',
      values: { ...values, ...over },
    });

  it('holds the whole recipe, the print file and the picture by their hashes; so do label and ledger', async () => {
    const saved = await recipe();
    const print = await begin({ pictureId, conditionId: gloss });
    expect(print.recipe).toMatchObject({ name: 'dusk', version: 1, values });
    expect(print.fileHash).toBeUndefined();
    // Changed after the print was begun, and written as a file: that is what is printed.
    await recipe({ liftStops: 0.25 });
    expect((await look(print.id)).newerRecipe?.id).toBe(saved.body.id);
    const file = await fetch(`${rakuen.url}/api/pictures/${pictureId}/print-files`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ conditionId: gloss, recipe: saved.body.id, space: 'srgb', ppi: 72 }),
    });
    expect(file.status).toBe(200);
    const bytes = Buffer.from(await file.arrayBuffer());
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'tiff', depth: 'ushort' });
    const hash = createHash('sha256').update(bytes).digest('hex');
    expect(file.headers.get('x-file-hash')).toBe(hash);
    const waiting = (await look(print.id)).print;
    expect(waiting).toMatchObject({ fileHash: hash, settings: { liftStops: 0.25 }, recipe: { version: 2 } });
    expect(waiting.fileName).toMatch(/Dune.*\.tif$/);
    expect(waiting.carriedFrom.liftStops).toBe(`the print file ${waiting.fileName}`);
    expect((await look(print.id)).newerRecipe).toBeUndefined();

    // A file in a working space was not made with the profile of the condition.
    expect(waiting.profileHash).toBeUndefined();
    await done(print.id, { passReason: 'no matter here' });
    const told = await details(print.id);
    const pictureHash = createHash('sha256').update(png).digest('hex');
    expect(told).toMatchObject({
      recipe: 'lift ¼ stop, contrast +1, shadows opened 3, perceptual, border 20 mm, equal all round',
      recipeName: 'dusk',
      recipeVersion: 2,
      printFileHash: hash,
      pictureHash,
    });
    expect(JSON.parse(told.recipeValues)).toEqual({ ...values, liftStops: 0.25 });
    const label = await fetch(`${rakuen.url}/api/prints/labels.pdf?prints=${print.id}`);
    const text = pdfText(Buffer.from(await label.arrayBuffer())).replaceAll(/\s+/g, ' ');
    expect(text).toContain('recipe “dusk” 2: lift ¼ stop, contrast +1, shadows opened 3');
    expect(text).toContain(print.code);
    // The recipe may go: the record stays.
    await recipe({ liftStops: 1 });
    expect((await look(print.id)).print.recipe).toMatchObject({ version: 2, values: { liftStops: 0.25 } });
  });

  it('of a print of an earlier day says nothing of what is in use today', async () => {
    const { settings } = await begin({ pictureId, conditionId: gloss });
    const input = (printedOn: string) => ({
      ...{ pictureId, conditionId: gloss, printedOn, widthMm: 300, heightMm: 200, copies: 1 },
      ...{ settings, carriedOver: [], verdict: 'good', verdictReason: '' },
    });
    const past = await rakuen.call<Print>('POST', '/api/prints', input('2026-01-05'));
    expect(past).toMatchObject({ status: 201 });
    expect([past.body.recipe, past.body.pictureHash]).toEqual([undefined, undefined]);
    const now = await rakuen.call<Print>('POST', '/api/prints', input(new Date().toLocaleDateString('sv')));
    expect(now.body.recipe?.name).toBe('dusk');
    for (const { body } of [past, now]) await rakuen.call('DELETE', `/api/prints/${body.id}`);
    for (const p of (await rakuen.call<Print[]>('GET', '/api/prints?state=waiting')).body)
      await rakuen.call('DELETE', `/api/prints/${p.id}`);
  });

  it('repeated, it keeps recipe and box and says what changed; the box is used once it is confirmed', async () => {
    const { body: at } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${gloss}`);
    const { body: box } = await rakuen.call<{ id: string }>('POST', '/api/boxes', {
      paperId: at.paperId,
      kind: 'sheet',
      label: 'A2',
      widthMm: 420,
      heightMm: 594,
      sheets: 3,
      batch: 'spring',
      boughtOn: '2026-02-03',
      currency: 'EUR',
    });
    const print = await begin({ pictureId, conditionId: gloss });
    await settle(print.id, { boxId: box.id });
    await done(print.id, { passReason: 'again' });
    await recipe({ liftStops: 1, shadows: 0.5 });
    const again = await begin({ printId: print.id });
    expect(again).toMatchObject({ boxId: box.id, recipe: { values: { liftStops: 1, shadows: 0.3 } } });
    const { since, open } = await look(again.id);
    expect(since).toEqual([
      {
        what: 'recipe',
        sentence: expect.stringMatching(
          /^The recipe was changed on .*: shadows opened 5 \(was opened 3\)\. This print keeps the recipe of that print\.$/,
        ),
      },
    ]);
    expect(open).toEqual(['box']);
    expect((await done(again.id)).body.message).toBe('Not checked yet: box.');
    await settle(again.id, { boxId: box.id });
    expect((await done(again.id)).status).toBe(200);
    // One sheet is left: it is not proposed for two, and said why for the one that asks for more.
    const third = await begin({ printId: print.id });
    expect((await settle(third.id, { copies: 2 })).body.message).toBe(
      'The box A2 holds 1 sheet; this print takes 2 sheets.',
    );
    await settle(third.id, { boxId: box.id });
    expect((await done(third.id)).status).toBe(200);
    const fourth = await begin({ printId: print.id });
    expect(fourth.boxId).toBeUndefined();
    expect((await look(fourth.id)).since.map((s) => s.sentence)).toContain(
      'The box of that print, A2, holds too little for this print.',
    );
    await rakuen.call('DELETE', `/api/prints/${fourth.id}`);
  });
});

describe('a box', () => {
  const boxOf = async (over: object) => {
    const { body: at } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${matt}`);
    const base = { paperId: at.paperId, kind: 'sheet', label: 'A3', widthMm: 297, heightMm: 420, sheets: 3, batch: '' };
    const { body } = await rakuen.call<{ id: string; revision: number; left: number }>('POST', '/api/boxes', {
      ...base,
      boughtOn: '2026-02-03',
      currency: 'EUR',
      ...over,
    });
    return body;
  };
  const leftIn = async (id: string) =>
    (await rakuen.call<{ id: string; left: number }[]>('GET', '/api/boxes')).body.find((b) => b.id === id)!.left;

  it('too small is refused with both sizes; ten at once get the three sheets that are in it', async () => {
    const small = await boxOf({ label: 'A5', widthMm: 148, heightMm: 210 });
    const print = await begin({ pictureId, conditionId: matt });
    expect(await settle(print.id, { boxId: small.id, widthMm: 300, heightMm: 200 })).toMatchObject({
      status: 409,
      body: { message: 'A print of 300 × 200 mm does not fit on A5.', field: 'boxId' },
    });
    const box = await boxOf({});
    const ids = [];
    for (let i = 0; i < 10; i++) {
      const { id } = await begin({ pictureId, conditionId: matt });
      expect((await settle(id, { boxId: box.id, widthMm: 300, heightMm: 200 })).status).toBe(200);
      ids.push(id);
    }
    const answers = await Promise.all(ids.map((id) => done(id, { passReason: 'at once' })));
    expect(answers.filter((a) => a.status === 200)).toHaveLength(3);
    expect(answers.filter((a) => a.status === 409)).toHaveLength(7);
    expect(await leftIn(box.id)).toBe(0);
    for (const p of (await rakuen.call<Print[]>('GET', '/api/prints?state=waiting')).body)
      await rakuen.call('DELETE', `/api/prints/${p.id}`);
  });

  it('is counted: what is left goes by it; a roll to its last metre; another window is told', async () => {
    const roll = await boxOf({ kind: 'roll', label: 'Roll 17', widthMm: 432, heightMm: 15_000, sheets: 1 });
    const count = (left: number, revision: number) =>
      rakuen.call<{ left: number; revision: number; countedAt: string }>(
        'PUT',
        `/api/boxes/${roll.id}/count`,
        { left },
        { 'If-Match': `"${revision}"` },
      );
    const counted = await count(650, roll.revision);
    expect(counted).toMatchObject({ status: 200, body: { left: 650, revision: roll.revision + 1 } });
    expect((await count(1, roll.revision)).status).toBe(412);
    const print = await begin({ pictureId, conditionId: matt });
    // 300 × 200 mm lies across: 200 mm a copy.
    const four = { boxId: roll.id, widthMm: 300, heightMm: 200, copies: 4 };
    expect((await settle(print.id, four)).body.message).toBe('The box Roll 17 holds 650 mm; this print takes 800 mm.');
    await settle(print.id, { ...four, copies: 3 });
    expect((await done(print.id, { passReason: 'last metre' })).status).toBe(200);
    expect(await leftIn(roll.id)).toBe(50);
    expect((await rakuen.call('PUT', `/api/boxes/${roll.id}/count`, { left: -1 })).status).toBe(400);
  });

  it('of a print is what its paper costs, and not the cheapest in the drawer; its feed is its own', async () => {
    const dear = await boxOf({ label: 'A3 dear', price: 90, sheets: 10 });
    await boxOf({ label: 'A3 cheap', price: 10, sheets: 10, boughtOn: '2025-01-01' });
    const print = await begin({ pictureId, conditionId: matt });
    await settle(print.id, {
      boxId: dear.id,
      widthMm: 300,
      heightMm: 200,
      settings: { feed: 'front straight path' },
    });
    interface Cost {
      cost: { lines: { name: string; amount: number }[] };
      paperFrom: string;
      minutes: number;
      minutesFrom: string;
    }
    const cost = async (query: string) =>
      (
        await rakuen.call<Cost>(
          'GET',
          `/api/costs?pictureId=${pictureId}&conditionId=${matt}&widthMm=300&heightMm=200${query}`,
        )
      ).body;
    const own = await cost(`&printId=${print.id}`);
    expect(own.cost.lines[0]).toEqual({ name: 'paper', amount: 9 });
    expect(own.paperFrom).toBe('a sheet of the box A3 dear, bought 2026-02-03');
    // 7 min by hand and 45 a square metre (practice; own estimate), five at the desk.
    expect([own.minutes, own.minutesFrom]).toEqual([7 + 45 * 0.06 + 5, 'estimated']);
    const any = await cost('');
    expect(any.paperFrom).toBe('the box it would be taken from: a sheet of the box A3 cheap, bought 2025-01-01');
  });
});

it('a sheet that was not read has no proof, says so, and is printed on all the same', async () => {
  const seen = await rakuen.call<ApiFault>('GET', `/api/pictures/${pictureId}/on/${matt}`);
  expect(seen).toMatchObject({ status: 409, body: { message: expect.stringContaining('Nothing was read') } });
  const print = await begin({ pictureId, conditionId: matt });
  expect((await done(print.id, { passReason: 'no matter' })).status).toBe(200);
  expect((await rakuen.call('GET', `/api/prints/${print.id}/proof`)).status).toBe(404);
});

it('the proof that was meant is kept with the print, goes with it into the bin and comes back', async () => {
  const id = await condition(rakuen, 'Read Sheet');
  const sent = await rakuen.upload(
    `/api/conditions/${id}/readings`,
    'r.cxf',
    read((s) => s, '2026-10-10', 4),
    {},
  );
  expect(sent.status).toBe(201);
  const print = await begin({ pictureId, conditionId: id });
  const made = await done(print.id, { passReason: 'no matter' });
  expect(made.status).toBe(200);
  const proof = async () => fetch(`${rakuen.url}/api/prints/${print.id}/proof`);
  const image = Buffer.from(await (await proof()).arrayBuffer());
  expect(await sharp(image).metadata()).toMatchObject({ format: 'jpeg', width: 120, height: 80 });
  // The picture is one colour: the image is near it, and darker sheets would not be.
  const { channels } = await sharp(image).stats();
  expect(Math.abs(channels[0].mean - 90)).toBeLessThan(25);
  expect((await rakuen.call('DELETE', `/api/prints/${print.id}`)).status).toBe(204);
  expect((await proof()).status).toBe(404);
  const bin = (await rakuen.call<{ change: string; noun: string }[]>('GET', '/api/bin')).body;
  await rakuen.call('POST', `/api/events/${bin.find((b) => b.noun === 'print')!.change}/undo`);
  expect(Buffer.from(await (await proof()).arrayBuffer()).equals(image)).toBe(true);
});

it('a second edition of the same picture, paper and size is refused, or called a second one everywhere', async () => {
  interface Edition {
    id: string;
    ordinal: number;
    numbers: { written: string }[];
  }
  const edition = {
    pictureId,
    conditionId: matt,
    name: 'Edition of 12',
    size: 12,
    artist: 1,
    printer: 0,
    good: 1,
    widthMm: 300,
    heightMm: 200,
    batch: '',
  };
  const create = (over: object = {}) =>
    rakuen.call<Edition & ApiFault>('POST', '/api/editions', { ...edition, ...over });
  expect((await create()).body.ordinal).toBe(1);
  expect(await create({ name: 'Once more', widthMm: 300.6 })).toMatchObject({
    status: 409,
    body: { message: '“Edition of 12” is an edition of this picture on this paper in this size.', field: 'later' },
  });
  expect((await create({ name: 'Large', widthMm: 450, heightMm: 300 })).body.ordinal).toBe(1);
  // Another setting of the printer is no other paper.
  const { paperId } = (await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${matt}`)).body;
  const { body: again } = await rakuen.call<{ id: string }>('POST', '/api/conditions', {
    ...CONDITION,
    paperId,
    mediaSetting: 'Another',
  });
  expect((await create({ conditionId: again.id })).status).toBe(409);
  const second = await create({ name: 'Once more', later: true });
  expect(second.body.ordinal).toBe(2);
  const number = await rakuen.call<{ id: string; written: string }>('POST', `/api/editions/${second.body.id}/numbers`, {
    series: 'edition',
  });
  expect(number.body.written).toBe('1/12, second edition');
  const certificate = await fetch(`${rakuen.url}/api/numbers/${number.body.id}/certificate.pdf`);
  expect(pdfText(Buffer.from(await certificate.arrayBuffer())).replaceAll(/\s+/g, ' ')).toContain(
    'Once more, second edition, edition of 12',
  );
  expect((await create({ name: 'And again', later: true })).body.ordinal).toBe(3);
});
