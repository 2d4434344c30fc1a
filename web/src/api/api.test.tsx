/** @jest-environment ./web/test/dom-environment.mjs */
import type { PaperInput } from '@rakuen/contract/papers';
import { freshStore, refused, serve, type FreshStore } from '../../test/studio.tsx';
import { api, form, from } from './api.ts';

const PAPER: PaperInput = {
  maker: 'Testmill',
  name: 'Rag',
  brightenerClaim: 'none',
  sizes: [],
  currency: 'EUR',
  notes: '',
};
const add = (store: FreshStore, over: object = {}) =>
  store.dispatch(api.endpoints.addPaper.initiate({ ...PAPER, ...over }));

describe('what is sent to the server', () => {
  it('a double click is one deed; the same deed later is another, under another key', async () => {
    const asked = serve(() => ({ id: 'p' }));
    const store = freshStore();
    await Promise.all([add(store), add(store)]);
    expect(asked).toHaveLength(1);
    await add(store);
    const keys = asked.map((a) => a.headers.get('Idempotency-Key'));
    expect(keys.every(Boolean)).toBe(true);
    expect(new Set(keys).size).toBe(2);
  });

  it('two different deeds at once are two', async () => {
    const asked = serve(() => ({ id: 'p' }));
    const store = freshStore();
    await Promise.all([add(store), add(store, { name: 'Baryta' })]);
    expect(asked.map((a) => (a.body as { name: string }).name).sort()).toEqual(['Baryta', 'Rag']);
  });

  it('where the line breaks it is asked once again, under the same key: what was done is not done twice', async () => {
    let broken = 1;
    const asked = serve(() => {
      if (broken-- > 0) throw new TypeError('fetch failed');
      return { id: 'p' };
    });
    expect(await add(freshStore())).toMatchObject({ data: { id: 'p' } });
    expect(asked).toHaveLength(2);
    expect(asked[0].headers.get('Idempotency-Key')).toBe(asked[1].headers.get('Idempotency-Key'));
  });

  it('a server that does not answer is worded, with what to do; nothing is asked for ever', async () => {
    const asked = serve(() => {
      throw new TypeError('fetch failed');
    });
    const { error } = await add(freshStore());
    expect(error).toMatchObject({ statusCode: 503, message: 'Rakuen does not answer.', remedy: expect.any(String) });
    expect(asked).toHaveLength(2);
  });

  it('a refusal reaches the screen as the server words it, and is not repeated', async () => {
    const asked = serve(() => refused(409, { message: 'There is such a paper.', remedy: 'Choose another name.' }));
    const { error } = await add(freshStore());
    expect(error).toMatchObject({ statusCode: 409, message: 'There is such a paper.', remedy: 'Choose another name.' });
    expect(asked).toHaveLength(1);
  });

  it('an answer nobody can read is said to be one', async () => {
    serve(() => new Response('<html>', { status: 200, headers: { 'content-type': 'application/json' } }));
    expect((await add(freshStore())).error).toMatchObject({
      statusCode: 500,
      message: 'The answer could not be read.',
    });
  });

  it('a change says from which revision it was made', async () => {
    const asked = serve(() => ({ id: 'p', revision: 5 }));
    await freshStore().dispatch(api.endpoints.changePaper.initiate({ id: 'p', revision: 4, paper: PAPER }));
    expect(asked[0]).toMatchObject({ method: 'PUT', path: 'papers/p' });
    expect(asked[0].headers.get('If-Match')).toBe('"4"');
    expect(from(12)).toEqual({ 'If-Match': '"12"' });
  });

  it('a file goes after what is said of it, and what is not said is left out', () => {
    const file = new File(['x'], 'readings.txt');
    const body = form(file, { batch: 'second box', instrument: undefined, printedAt: '' });
    expect([...body.keys()]).toEqual(['batch', 'file']);
    expect(body.get('batch')).toBe('second box');
  });
});

describe('what lies on the table', () => {
  const TABLE = { conditionIds: ['a'], pictureIds: [] };

  it('two like deeds at once are two: hands swapped twice hold what they held; the last answer is what lies there', async () => {
    let table = { conditionIds: ['a', 'b'], pictureIds: [], leftHand: 'a', rightHand: 'b' };
    const answers: (() => void)[] = [];
    const asked = serve(({ method }) => {
      if (method === 'GET') return table;
      table = { ...table, leftHand: table.rightHand, rightHand: table.leftHand };
      const then = table;
      return new Promise((done) => answers.push(() => done(then)));
    });
    const store = freshStore();
    await store.dispatch(api.endpoints.table.initiate());
    const left = () => api.endpoints.table.select()(store.getState()).data?.leftHand;
    const swap = () => store.dispatch(api.endpoints.atTable.initiate({ deed: 'swap hands' }));
    const [first, second] = [swap(), swap()];
    expect(left()).toBe('a');
    while (answers.length < 2) await new Promise((done) => setTimeout(done, 5));
    answers[0]();
    await first;
    // The first answer does not undo what the hand has done since.
    expect(left()).toBe('a');
    answers[1]();
    await second;
    expect(left()).toBe('a');
    expect(new Set(asked.slice(1).map((a) => a.headers.get('Idempotency-Key'))).size).toBe(2);
  });

  it('moves at once, before the server has answered; a refusal moves it back', async () => {
    let answer: (value: unknown) => void = () => undefined;
    serve(({ method }) => (method === 'GET' ? TABLE : new Promise((done) => (answer = done))));
    const store = freshStore();
    await store.dispatch(api.endpoints.table.initiate());
    const lying = () => api.endpoints.table.select()(store.getState()).data?.conditionIds;
    const deed = store.dispatch(api.endpoints.atTable.initiate({ deed: 'lay paper', id: 'b' }));
    expect(lying()).toEqual(['a', 'b']);
    await new Promise((done) => setTimeout(done, 20));
    answer(refused(404, { message: 'No such print condition.' }));
    await deed;
    expect(lying()).toEqual(['a']);
  });
});
