import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { condition, start, type Running } from './rakuen.ts';

let rakuen: Running;
let linden: string;
let hartwell: string;

type Sheet = keyof typeof SHEETS;
const file = (sheet: Sheet, seed: number, light: 'M0' | 'M1' | 'M2' = 'M1') =>
  writeCgats(readChart(SHEETS[sheet], scatteredChart(300), light, seed));

interface Placing {
  resembles: { conditionId: string; name: string; deltaE00: number; common: number }[];
  own?: { deltaE00: number; common: number };
  against?: string;
}
interface Answer {
  status: number;
  body: {
    message: string;
    remedy: string;
    field: string;
    current: Placing;
    placing: Placing;
    readings: { id: string; fileName: string; apart?: string; primary: boolean; leftOut: string[] }[];
    facts?: { readingId: string; figures: { white: { lab: number[] } } };
  };
}
/** Sends a file as the page does: no choice is made unless it is stated. */
async function send(path: string, name: string, text: string, fields: Record<string, string> = {}): Promise<Answer> {
  const form = new FormData();
  for (const [key, value] of Object.entries(fields)) form.append(key, value);
  form.append('file', new Blob([text]), name);
  const response = await fetch(`${rakuen.url}/api/${path}`, { method: 'POST', body: form });
  return { status: response.status, body: (await response.json()) as Answer['body'] };
}
const view = async (id: string) => (await rakuen.call<Answer['body']>('GET', `/api/conditions/${id}`)).body;
const kept = async () => [linden, hartwell].map(async (id) => (await view(id)).readings.length);

beforeAll(async () => {
  rakuen = await start();
  linden = await condition(rakuen, 'Linden Rag', 'cotton');
  hartwell = await condition(rakuen, 'Hartwell Baryta', 'baryta');
  expect((await send(`conditions/${linden}/readings`, 'one.txt', file('cotton', 1))).status).toBe(201);
  expect((await send(`conditions/${hartwell}/readings`, 'two.txt', file('baryta', 2))).status).toBe(201);
});
afterAll(async () => void (await rakuen.stop()));

describe('readings are compared with what is kept before they are', () => {
  it('a preview says what they resemble, by how much and over how many patches', async () => {
    const { body } = await send('readings/preview', 'again.txt', file('cotton', 3));
    expect(body.placing.resembles[0]).toMatchObject({ conditionId: linden, name: 'Linden Rag, Coated' });
    expect(body.placing.resembles[0].deltaE00).toBeLessThan(0.3);
    expect(body.placing.resembles[0].common).toBeGreaterThan(200);
    expect(body.placing.resembles[1].deltaE00).toBeGreaterThan(3);
    const meant = await send('readings/preview', 'again.txt', file('cotton', 3), { conditionId: linden });
    expect(meant.body.placing.against).toBeUndefined();
    expect(meant.body.placing.own!.deltaE00).toBeLessThan(0.3);
  });

  it('a file of another paper is refused with what it resembles, and nothing is kept', async () => {
    const before = await Promise.all(await kept());
    const { status, body } = await send(`conditions/${hartwell}/readings`, 'misfiled.txt', file('cotton', 4));
    expect(status).toBe(409);
    expect(body.message).toMatch(
      /^This looks like Linden Rag, Coated \(0\.\d ΔE00 over \d{3} common patches\), not Hartwell Baryta, Coated \(\d+\.\d\)\.$/,
    );
    expect(body.field).toBe('keep');
    expect(body.current.resembles[0].conditionId).toBe(linden);
    expect(await Promise.all(await kept())).toEqual(before);
  });

  it('kept against that it stands apart: no figure changes until somebody chooses it, or joins it', async () => {
    const before = (await view(hartwell)).facts;
    const { status, body } = await send(`conditions/${hartwell}/readings`, 'apart.txt', file('cotton', 5), {
      keep: 'apart',
    });
    expect(status).toBe(201);
    const reading = body.readings.find((r) => r.fileName === 'apart.txt')!;
    expect(reading.apart).toMatch(/^This looks like Linden Rag/);
    expect((await view(hartwell)).facts).toEqual(before);
    const { body: model } = await rakuen.call<{ sets: string[] }>('GET', `/api/conditions/${hartwell}/model`);
    expect(model.sets).toEqual(['two.txt']);
    const chosen = await rakuen.call<Answer['body']>('PUT', `/api/conditions/${hartwell}/figures-from`, {
      readingId: reading.id,
    });
    expect(chosen.body.facts!.readingId).toBe(reading.id);
    await rakuen.call('PUT', `/api/conditions/${hartwell}/figures-from`, {});
    expect((await view(hartwell)).facts).toEqual(before);
    const joined = await rakuen.call<Answer['body']>('DELETE', `/api/readings/${reading.id}/apart`);
    expect(joined.body.facts!.readingId).toBe(reading.id);
    await rakuen.call('DELETE', `/api/readings/${reading.id}`);
    expect((await view(hartwell)).facts).toEqual(before);
  });

  it('readings unlike what is kept there are refused; another box may differ, but not be another paper', async () => {
    const { status, body } = await send(`conditions/${linden}/readings`, 'mulberry.txt', file('uncoated', 6));
    expect([status, body.message]).toEqual([
      409,
      expect.stringMatching(/^This differs from what is kept for Linden Rag, Coated by \d+\.\d ΔE00 over \d+ common/),
    ]);
    const box = { batch: 'second box' };
    expect((await send(`conditions/${linden}/readings`, 'box.txt', file('uncoated', 6), box)).status).toBe(201);
    expect((await send(`conditions/${linden}/readings`, 'other.txt', file('baryta', 7), box)).status).toBe(409);
  });

  it('into a print condition of which nothing was read: the same print is refused unless the file names the paper', async () => {
    const fresh = await condition(rakuen, 'Kestrel Bright', 'baryta');
    const same = file('baryta', 8);
    const { status, body } = await send(`conditions/${fresh}/readings`, 'scan.txt', same);
    expect([status, body.message]).toEqual([
      409,
      expect.stringMatching(/looks like Hartwell Baryta, Coated .*; nothing was read of Kestrel Bright, Coated yet\.$/),
    ]);
    expect((await send(`conditions/${fresh}/readings`, 'kestrel-bright.txt', same)).status).toBe(201);
  });
});

describe('patches that somebody leaves out', () => {
  it('leave figures and model, are on record, and come back', async () => {
    const { readings, facts } = await view(hartwell);
    const [{ id }] = readings;
    const leave = (patches: string[]) =>
      rakuen.call<Answer['body']>('PUT', `/api/readings/${id}/left-out`, { patches });
    type Model = { error: { patches: number }; leftOutPatches: { readingId: string; patch: string }[] };
    const model = async () => (await rakuen.call<Model>('GET', `/api/conditions/${hartwell}/model`)).body;
    const before = await model();
    const { body } = await leave(['P20', 'P21', 'P20']);
    expect(body.readings.find((r) => r.id === id)!.leftOut).toEqual(['P20', 'P21']);
    const after = await model();
    expect(after.error.patches).toBe(before.error.patches - 2);
    expect(after.leftOutPatches).toEqual([
      { readingId: id, patch: 'P20' },
      { readingId: id, patch: 'P21' },
    ]);
    const { body: events } = await rakuen.call<{ change: string; undoable: boolean }[]>('GET', '/api/events');
    expect((await rakuen.call('POST', `/api/events/${events[0].change}/undo`)).status).toBeLessThan(300);
    expect((await model()).error.patches).toBe(before.error.patches);
    expect((await view(hartwell)).facts).toEqual(facts);
  });
});
