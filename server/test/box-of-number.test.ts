import { join } from 'node:path';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Edition {
  id: string;
  batch: string;
  numbers: { batch: string }[];
}
interface ApiFault {
  message: string;
  field?: string;
}

let rakuen: Running;
let baryta: string;
let pictureId: string;

beforeAll(async () => {
  rakuen = await start();
  baryta = await condition(rakuen, 'Deep Sheet', 'baryta');
  const grey = { create: { width: 120, height: 80, channels: 3 as const, background: { r: 30, g: 30, b: 30 } } };
  pictureId = (await picture(rakuen, 'grey.png', await sharp(grey).png().toBuffer())).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const found = async (over: object = {}) =>
  (
    await rakuen.call<Edition>('POST', '/api/editions', {
      pictureId,
      conditionId: baryta,
      name: `Edition ${Math.random()}`,
      size: 30,
      artist: 3,
      printer: 0,
      good: 1,
      widthMm: 300,
      heightMm: 200,
      batch: '',
      later: true,
      ...over,
    })
  ).body;
const editionOf = async (id: string) =>
  (await rakuen.call<Edition[]>('GET', '/api/editions')).body.find((e) => e.id === id)!;

describe('the box of a number', () => {
  const boxOf = async (batch: string) => {
    const { body: at } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${baryta}`);
    const box = { paperId: at.paperId, kind: 'sheet', label: 'A3', widthMm: 297, heightMm: 420, sheets: 25 };
    const { body } = await rakuen.call<{ id: string }>('POST', '/api/boxes', {
      ...box,
      batch,
      boughtOn: '2026-02-03',
      currency: 'EUR',
      note: '',
    });
    return body.id;
  };
  const printed = async (boxId?: string) => {
    const { body } = await rakuen.call<{ id: string }>('POST', '/api/prints/begin', {
      pictureId,
      conditionId: baryta,
    });
    const size = { widthMm: 300, heightMm: 200, copies: 1 };
    await rakuen.call('PATCH', `/api/prints/${body.id}`, { ...size, ...(boxId && { boxId }) });
    await rakuen.call('POST', `/api/prints/${body.id}/done`, {});
    return body.id;
  };
  const give = (id: string, input: object) =>
    rakuen.call<ApiFault & { batch: string; id: string }>('POST', `/api/editions/${id}/numbers`, {
      series: 'edition',
      ...input,
    });

  it('is that of its print: a sheet of another box is refused until somebody accepted it, and recorded as it is', async () => {
    const { id } = await found({ batch: 'spring' });
    const [own, other] = [await printed(await boxOf('spring')), await printed(await boxOf('autumn'))];
    expect((await give(id, { printId: own })).body.batch).toBe('spring');
    // Nothing is said of the box, and what is said is not true of it: both are refused.
    for (const said of [{}, { batch: 'spring' }]) {
      const refused = await give(id, { printId: other, ...said });
      expect(refused).toMatchObject({ status: 409, body: { field: 'batch' } });
      expect(refused.body.message).toContain('autumn');
    }
    const accepted = { batch: 'autumn', by: 'I. Orme', why: 'Held beside 1/30 in daylight.' };
    await rakuen.call('POST', `/api/editions/${id}/accepted`, accepted);
    expect((await give(id, { printId: other })).body.batch).toBe('autumn');
    expect((await editionOf(id)).numbers.map((n) => n.batch)).toEqual(['spring', 'autumn']);
  });

  it('that is not known is asked for where the edition’s is, and locks an edition that begins with it', async () => {
    const { id } = await found({ batch: 'spring' });
    const unknown = await printed();
    const asked = await give(id, { printId: unknown });
    expect(asked).toMatchObject({ status: 409, body: { field: 'batch' } });
    expect(asked.body.message).toContain('is not known');
    expect((await give(id, {})).status).toBe(409);
    expect((await give(id, { printId: unknown, batch: 'spring' })).body.batch).toBe('spring');
    const open = await found();
    await give(open.id, { printId: await printed(await boxOf('winter')) });
    expect(await editionOf(open.id)).toMatchObject({ batch: 'winter' });
    expect((await give(open.id, { printId: await printed(await boxOf('summer')) })).status).toBe(409);
  });

  it('is held by the database: no hand can write another, nor move a numbered print to another box', async () => {
    const { id } = await found({ batch: 'spring' });
    const print = await printed(await boxOf('autumn'));
    const own = await printed(await boxOf('spring'));
    await give(id, { printId: own });
    const autumn = await boxOf('autumn');
    const database = new Database(join(rakuen.data, 'rakuen.sqlite'));
    const insert = (printId: string, batch: string) =>
      database
        .prepare(
          `INSERT INTO numbers (id, editionId, series, number, printId, givenAt, batch)
           VALUES (?, ?, 'edition', 9, ?, '2026-03-04', ?)`,
        )
        .run(crypto.randomUUID(), id, printId, batch);
    expect(() => insert(print, 'spring')).toThrow('a number is of the box of its print');
    expect(() => insert(print, 'autumn')).toThrow('joins an edition only once it was accepted');
    expect(() => database.prepare('UPDATE prints SET boxId = ? WHERE id = ?').run(autumn, own)).toThrow(
      'a numbered print stays on its box',
    );
    database.close();
  });
});
