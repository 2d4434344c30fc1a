import Database from 'better-sqlite3';
import { join } from 'node:path';
import sharp from 'sharp';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Move {
  id: string;
  to: string;
  copies: number;
  standing: number;
  who: string;
  where: string;
  what: string;
  number?: string;
  on: string;
  daysOverdue: number;
  numberId?: string;
  orderId?: string;
  price?: number;
  currency?: string;
}
interface Order {
  id: string;
  revision: number;
  state: string;
  deliveredOn?: string;
  lines: { id: string; copies: number; printed: number; waiting: number }[];
}
interface Print {
  id: string;
  copies: number;
  widthMm: number;
  heightMm: number;
  orderLineId?: string;
}
interface Look {
  order?: { name: string; client: string };
  whereabouts: { neverMoved: number; moves: Move[] };
}
interface Edition {
  id: string;
  numbers: { id: string; written: string; moves: Move[] }[];
}
interface ApiFault {
  id: string;
  message: string;
  field?: string;
}

let rakuen: Running;
let pictureId: string;
let conditionId: string;
let made = 0;

beforeAll(async () => {
  rakuen = await start();
  conditionId = await condition(rakuen, 'Quiet Sheet');
  const grey = { create: { width: 120, height: 80, channels: 3 as const, background: { r: 30, g: 30, b: 30 } } };
  const png = await sharp(grey).png().toBuffer();
  pictureId = (await picture(rakuen, 'grey.png', png, { title: 'Salt road' })).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const post = <T = ApiFault>(path: string, body: object = {}) => rakuen.call<T>('POST', `/api/${path}`, body);
const client = async (name = `Client ${made++}`, wishes = '') =>
  (await post('clients', { name, contact: '', wishes, notes: '' })).body.id;
const place = async (over: object = {}) =>
  (await post('places', { name: `Place ${made++}`, address: '', notes: '', ...over })).body.id;
/** A print that was made, of so many copies. */
async function printed(copies: number, begin: object = { pictureId, conditionId }): Promise<string> {
  const { id } = (await post<Print>('prints/begin', begin)).body;
  await rakuen.call('PATCH', `/api/prints/${id}`, { copies });
  expect((await post(`prints/${id}/done`, { passReason: 'a test' })).status).toBe(200);
  return id;
}
const move = (input: object) => post<Move & ApiFault>('moves', input);
const look = async (id: string) => (await rakuen.call<Look>('GET', `/api/prints/${id}/look`)).body;
const orderOf = (clientId: string, lines: object[], over: object = {}) => ({
  clientId,
  name: `Order ${made++}`,
  notes: '',
  lines: lines.map((l) => ({ pictureId, widthMm: 300, heightMm: 200, copies: 1, ...l })),
  ...over,
});
const ledger = async (q: string) =>
  (
    await rakuen.call<{ entries: { kind: string; id: string; outcome: string; details: Record<string, unknown> }[] }>(
      'GET',
      `/api/ledger?q=${encodeURIComponent(q)}`,
    )
  ).body.entries;

describe('clients and their places', () => {
  it('are kept with wishes, light and glass; one of a name, and from the revision that was read', async () => {
    const id = await client('Halden Rooms', 'No gloss.');
    const hall = await place({ clientId: id, light: 'D50', glass: 'museum', lux: 120, name: 'Hall' });
    const { body: places } = await rakuen.call<{ id: string; lux: number; glass: string }[]>('GET', '/api/places');
    expect(places.find((p) => p.id === hall)).toMatchObject({ lux: 120, glass: 'museum', light: 'D50', copies: 0 });
    expect(await post('clients', { name: 'halden rooms', contact: '', wishes: '', notes: '' })).toMatchObject({
      status: 409,
      body: { field: 'name' },
    });
    const changed = { name: 'Halden Rooms', contact: 'Kai 3', wishes: 'No gloss.', notes: '' };
    const put = (from: string) => rakuen.call<ApiFault>('PUT', `/api/clients/${id}`, changed, { 'If-Match': from });
    expect((await put('"1"')).status).toBe(200);
    expect((await put('"1"')).status).toBe(412);
  });

  it('what an order or a print names can’t be removed; what nothing names goes to the bin and comes back', async () => {
    const named = await client();
    await post('orders', orderOf(named, []));
    const refused = await rakuen.call<ApiFault>('DELETE', `/api/clients/${named}`);
    expect(refused).toMatchObject({ status: 409, body: { message: 'This client is named by 1 order.' } });
    const free = await client('Nobody yet');
    expect((await rakuen.call('DELETE', `/api/clients/${free}`)).status).toBe(204);
    const [{ change }] = (await rakuen.call<{ change: string }[]>('GET', '/api/bin')).body;
    expect((await post(`events/${change}/undo`)).status).toBeLessThan(300);
    const { body } = await rakuen.call<{ id: string }[]>('GET', '/api/clients');
    expect(body.map((c) => c.id)).toContain(free);
  });
});

describe('an order', () => {
  it('counts what was printed for it; its print has its size and what is left to print, and names it', async () => {
    const who = await client('Ferry Office');
    const { body: order } = await post<Order>('orders', orderOf(who, [{ widthMm: 450, heightMm: 300, copies: 5 }]));
    const [line] = order.lines;
    const first = (await post<Print>('prints/begin', { orderLineId: line.id, conditionId })).body;
    expect(first).toMatchObject({ widthMm: 450, heightMm: 300, copies: 5, orderLineId: line.id });
    await rakuen.call('PATCH', `/api/prints/${first.id}`, { copies: 2 });
    await post(`prints/${first.id}/done`, { passReason: 'a test' });
    const again = (await post<Print>('prints/begin', { orderLineId: line.id, conditionId })).body;
    expect(again.copies).toBe(3);
    const now = (await rakuen.call<Order>('GET', `/api/orders/${order.id}`)).body;
    expect(now.lines[0]).toMatchObject({ copies: 5, printed: 2, waiting: 1 });
    expect((await look(first.id)).order).toMatchObject({ client: 'Ferry Office' });
    await rakuen.call('DELETE', `/api/prints/${again.id}`);
  });

  it('when it is delivered every copy in the studio is recorded as sold to the client there, numbers too; what left before stays where it is', async () => {
    const who = await client('Lock Keeper');
    const where = await place({ clientId: who });
    const { body: order } = await post<Order>('orders', orderOf(who, [{ copies: 4 }], { placeId: where }));
    expect((await post(`orders/${order.id}/deliver`)).status).toBe(409);
    const id = await printed(4, { orderLineId: order.lines[0].id, conditionId });
    await move({ printId: id, to: 'given', withWhom: 'a neighbour' });
    const edition = (
      await post<Edition>('editions', {
        ...{ pictureId, conditionId, name: 'Locks', size: 9, artist: 0, printer: 0, good: 0, batch: '', later: true },
        ...{ widthMm: 300, heightMm: 200 },
      })
    ).body;
    await post(`editions/${edition.id}/numbers`, { series: 'edition', printId: id });
    const delivered = await post<Order>(`orders/${order.id}/deliver`, { on: '2026-03-04' });
    expect(delivered.body).toMatchObject({ state: 'delivered', deliveredOn: '2026-03-04' });
    const { whereabouts } = await look(id);
    expect(whereabouts.neverMoved).toBe(0);
    const sold = whereabouts.moves.filter((m) => m.to === 'sold');
    expect(sold.map((m) => [m.copies, Boolean(m.numberId), m.who, m.on, m.orderId])).toEqual([
      [2, false, 'Lock Keeper', '2026-03-04', order.id],
      [1, true, 'Lock Keeper', '2026-03-04', order.id],
    ]);
    expect(whereabouts.moves.find((m) => m.to === 'given')).toMatchObject({ standing: 1, who: 'a neighbour' });
    const { body: clients } = await rakuen.call<{ id: string; copies: number }[]>('GET', '/api/clients');
    expect(clients.find((c) => c.id === who)!.copies).toBe(3);
    // It is closed: nothing more is printed for it, nor delivered twice.
    expect((await post(`orders/${order.id}/deliver`)).status).toBe(409);
    expect((await post('prints/begin', { orderLineId: order.lines[0].id, conditionId })).status).toBe(409);
  });

  it('that is removed leaves its prints, and comes back with its lines and with what was printed', async () => {
    const { body: order } = await post<Order>('orders', orderOf(await client(), [{ copies: 2 }]));
    const id = await printed(2, { orderLineId: order.lines[0].id, conditionId });
    expect((await rakuen.call('DELETE', `/api/orders/${order.id}`)).status).toBe(204);
    expect((await look(id)).order).toBeUndefined();
    const [{ change }] = (await rakuen.call<{ change: string }[]>('GET', '/api/bin')).body;
    expect((await post(`events/${change}/undo`)).status).toBeLessThan(300);
    const back = (await rakuen.call<Order>('GET', `/api/orders/${order.id}`)).body;
    expect(back.lines[0]).toMatchObject({ copies: 2, printed: 2 });
  });

  it('a price without its currency, a picture that is not there and a line of another order are refused', async () => {
    const who = await client();
    expect((await post('orders', orderOf(who, [], { price: 900 }))).body).toMatchObject({ field: 'currency' });
    const stray = '00000000-0000-4000-8000-000000000000';
    expect((await post('orders', orderOf(who, [{ pictureId: stray }]))).status).toBe(404);
    expect((await post('orders', orderOf(who, [{ id: stray }]))).status).toBe(404);
  });
});

describe('where a print is', () => {
  it('follows copies out and back; none is in two places', async () => {
    const id = await printed(3);
    const gallery = await client('Gable House');
    const out = (
      await move({ printId: id, to: 'consigned', copies: 2, clientId: gallery, until: '2026-04-01', on: '2026-02-01' })
    ).body;
    expect(out).toMatchObject({ standing: 2, who: 'Gable House', what: 'Salt road' });
    expect(out.daysOverdue).toBeGreaterThan(200);
    const more = await move({ printId: id, to: 'sold', copies: 2 });
    expect(more).toMatchObject({ status: 409, body: { message: 'Only 1 copy is there.', field: 'copies' } });
    await move({
      printId: id,
      fromId: out.id,
      to: 'sold',
      copies: 1,
      price: 800,
      currency: 'EUR',
      withWhom: 'A. Buyer',
    });
    await move({ printId: id, fromId: out.id, to: 'studio', copies: 1 });
    expect(await move({ printId: id, fromId: out.id, to: 'studio' })).toMatchObject({ status: 409 });
    const { whereabouts } = await look(id);
    expect(whereabouts.neverMoved).toBe(1);
    expect(whereabouts.moves.map((m) => [m.to, m.copies, m.standing])).toEqual([
      ['consigned', 2, 0],
      ['sold', 1, 1],
      ['studio', 1, 1],
    ]);
    expect((await rakuen.call<ApiFault>('DELETE', `/api/moves/${out.id}`)).body.message).toBe(
      'These copies went on from there.',
    );
  });

  it('a numbered print has its own history; a copy that left without a number gets none', async () => {
    const id = await printed(3);
    const { body: edition } = await post<Edition>('editions', {
      ...{ pictureId, conditionId, name: `Numbered ${made++}`, size: 7, artist: 0, printer: 0, good: 0, batch: '' },
      ...{ widthMm: (await rakuen.call<Look & { print: Print }>('GET', `/api/prints/${id}/look`)).body.print.widthMm },
      ...{
        heightMm: (await rakuen.call<Look & { print: Print }>('GET', `/api/prints/${id}/look`)).body.print.heightMm,
      },
      later: true,
    });
    await move({ printId: id, to: 'given' });
    const many = await post<{ written: string; id: string }[] & ApiFault>(`editions/${edition.id}/numbers/many`, {
      series: 'edition',
      printId: id,
      count: 3,
    });
    expect(many).toMatchObject({
      status: 409,
      body: { message: expect.stringContaining('left the studio') as string },
    });
    // All of them or none.
    const of = async () =>
      (await rakuen.call<Edition[]>('GET', '/api/editions')).body.find((e) => e.id === edition.id)!.numbers;
    expect(await of()).toEqual([]);
    const two = await post<{ written: string; id: string }[]>(`editions/${edition.id}/numbers/many`, {
      series: 'edition',
      printId: id,
      count: 2,
    });
    expect(two.body.map((n) => n.written.slice(0, 3))).toEqual(['1/7', '2/7']);
    const numberId = two.body[0].id;
    const lent = (await move({ numberId, to: 'lent', withWhom: 'The archive', until: '2027-01-31' })).body;
    expect(lent).toMatchObject({ number: two.body[0].written, what: `Salt road ${two.body[0].written}` });
    expect(await move({ numberId, to: 'sold' })).toMatchObject({
      status: 409,
      body: { message: 'No copy is there any more.' },
    });
    await move({ numberId, fromId: lent.id, to: 'destroyed', note: 'Water.' });
    const [first, second] = await of();
    expect(first.moves.map((m) => [m.to, m.standing])).toEqual([
      ['lent', 0],
      ['destroyed', 1],
    ]);
    expect(second.moves).toEqual([]);
    const gone = await move({ numberId, fromId: first.moves[1].id, to: 'studio' });
    expect(gone).toMatchObject({ status: 409, body: { message: 'This copy was destroyed.' } });
  });

  it('a print that is removed comes back with where its copies were', async () => {
    const id = await printed(2);
    const out = (await move({ printId: id, to: 'lent', withWhom: 'School' })).body;
    await move({ printId: id, fromId: out.id, to: 'studio' });
    expect((await rakuen.call('DELETE', `/api/prints/${id}`)).status).toBeLessThan(300);
    const [{ change }] = (await rakuen.call<{ change: string }[]>('GET', '/api/bin')).body;
    const undone = await post(`events/${change}/undo`);
    expect([undone.status, undone.body.message]).toEqual([expect.any(Number), undefined]);
    expect((await look(id)).whereabouts.moves.map((m) => m.to)).toEqual(['lent', 'studio']);
  });

  it('is found in the ledger by the client, under the name the client has now', async () => {
    const who = await client('Ostwind Bureau');
    const { body: order } = await post<Order>('orders', orderOf(who, [{ copies: 1 }]));
    const id = await printed(1, { orderLineId: order.lines[0].id, conditionId });
    expect((await ledger('Ostwind')).map((e) => e.kind)).toEqual(['print']);
    const sold = (await move({ printId: id, to: 'sold', clientId: who, price: 250.5, currency: 'EUR' })).body;
    const entries = await ledger('Ostwind');
    expect(entries.map((e) => e.kind).sort()).toEqual(['move', 'print']);
    expect(entries.find((e) => e.kind === 'move')).toMatchObject({
      outcome: 'sold',
      details: { to: 'Ostwind Bureau', price: 250.5, currency: 'EUR', copies: 1 },
    });
    expect(entries.find((e) => e.kind === 'print')!.details).toMatchObject({ client: 'Ostwind Bureau' });
    await rakuen.call('PUT', `/api/clients/${who}`, { name: 'Westwind Bureau', contact: '', wishes: '', notes: '' });
    expect(await ledger('Ostwind')).toEqual([]);
    expect(await ledger('Westwind')).toHaveLength(2);
    await rakuen.call('DELETE', `/api/moves/${sold.id}`);
    expect((await ledger('Westwind')).map((e) => e.kind)).toEqual(['print']);
  });

  it('of one year or of several, the ledger says how many entries each has', async () => {
    const id = await printed(1);
    await move({ printId: id, to: 'lent', withWhom: 'Jubileum', on: '2024-12-31' });
    const { moves } = (await look(id)).whereabouts;
    await move({ printId: id, fromId: moves[0].id, to: 'studio', withWhom: 'Jubileum', on: '2025-01-01' });
    const { body } = await rakuen.call<{ years: object[] }>('GET', '/api/ledger?q=Jubileum&kind=move');
    expect(body.years).toEqual([
      { year: '2025', entries: 1 },
      { year: '2024', entries: 1 },
    ]);
  });

  it('the database itself holds no copy twice, whoever writes', async () => {
    const id = await printed(2);
    const database = new Database(join(rakuen.data, 'rakuen.sqlite'));
    const insert = (copies: number, fromId: string | null = null, over = '') =>
      database
        .prepare(
          `INSERT INTO moves (id, recordedAt, printId, fromId, "to", copies, "on"${over && ', price'}) VALUES (?, 'now', ?, ?, 'sold', ?, '2026-03-01'${over})`,
        )
        .run(`direct ${made++}`, id, fromId, copies);
    try {
      expect(() => insert(3)).toThrow('fewer copies are in the studio');
      expect(() => insert(1, null, ', 12')).toThrow(/CHECK/);
      insert(2);
      expect(() => insert(1)).toThrow('fewer copies are in the studio');
      expect(() => database.prepare('UPDATE prints SET copies = 1 WHERE id = ?').run(id)).toThrow('left the studio');
    } finally {
      database.close();
    }
  });
});
