import { recordCode } from '@rakuen/core/print/record-code';
import { condition, picture, start, type Running } from './rakuen.ts';
import { blocks } from './files.ts';

interface Entry {
  id: string;
  kind: string;
  at: string;
  outcome: string;
  reason: string;
  paper: string;
  picture: string;
  sheet?: object;
  pictureId?: string;
  details: Record<string, unknown>;
}
interface Ledger {
  entries: Entry[];
  total: number;
}
interface Read {
  entered: number;
  known: number;
  leftOut: number;
  left: { entry: number; why: string }[];
  message?: string;
}

let rakuen: Running;
let pictureId: string;
let conditionId: string;
beforeAll(async () => {
  rakuen = await start();
  conditionId = await condition(rakuen, 'Told');
  const { job } = await picture(rakuen, 'p.tif', await blocks([[0.1, 0.2, 0.3]]));
  pictureId = job.pictureId!;
});
afterAll(async () => void (await rakuen.stop()));

const ledger = async () => (await rakuen.call<Ledger>('GET', '/api/ledger.json')).body;
const read = (what: unknown) => rakuen.upload<Read>('/api/ledger/read', 'ledger.json', JSON.stringify(what));

describe('notes in the ledger', () => {
  it('are found by their words, go into the bin and come back', async () => {
    const { body, status } = await rakuen.call<{ id: string }>('POST', '/api/notes', {
      text: 'The north window fools the eye in October.',
      by: 'I. Orme',
      pictureId,
    });
    expect(status).toBe(201);
    const found = async () => (await rakuen.call<Ledger>('GET', '/api/ledger?q=october')).body.entries;
    expect(await found()).toEqual([
      expect.objectContaining({
        id: body.id,
        kind: 'note',
        reason: expect.stringContaining('north window'),
        pictureId,
      }),
    ]);
    expect((await rakuen.call('DELETE', `/api/notes/${body.id}`)).status).toBe(204);
    expect(await found()).toHaveLength(0);
    const [{ change, noun }] = (await rakuen.call<{ change: string; noun: string }[]>('GET', '/api/bin')).body;
    expect(noun).toBe('note');
    await rakuen.call('POST', `/api/events/${change}/undo`);
    expect(await found()).toHaveLength(1);
  });

  it('follow the name of their paper; one about nothing that is there is refused', async () => {
    const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${conditionId}`);
    await rakuen.call('POST', '/api/notes', { text: 'Box three came bent.', paperId: body.paperId });
    const papers = await rakuen.call<{ id: string; name: string }[]>('GET', '/api/papers');
    const { name } = papers.body.find((p) => p.id === body.paperId)!;
    const [entry] = (await rakuen.call<{ entries: { paper: string }[] }>('GET', '/api/ledger?q=bent')).body.entries;
    expect(entry.paper).toContain(name);
    const none = { text: 'x', pictureId: '00000000-0000-4000-8000-000000000000' };
    expect((await rakuen.call('POST', '/api/notes', none)).status).toBe(404);
    expect((await rakuen.call('POST', '/api/notes', { text: '  ' })).status).toBe(400);
  });
});

describe('a ledger taken away as JSON', () => {
  let taken: Ledger;
  beforeAll(async () => {
    await rakuen.call('POST', '/api/decisions', {
      pictureId,
      conditionId,
      stamp: 'chosen',
      reason: 'It holds the blacks.',
    });
    // Entries come back equal: what the eye found on strips with them, which the match speaks of.
    const finding = { part: 'liftStops', value: 0.25, steps: '0, 0.25', light: 'D50' };
    const found = { text: 'Best of the strips: ¼ stop.', pictureId, conditionId, finding };
    expect((await rakuen.call('POST', '/api/notes', found)).status).toBe(201);
    const { body: print } = await rakuen.call<{ id: string }>('POST', '/api/prints/begin', { pictureId, conditionId });
    await rakuen.call('POST', `/api/prints/${print.id}/misprints`, { cause: 'head strike', sheets: 2, minutes: 5 });
    const done = await rakuen.call('POST', `/api/prints/${print.id}/done`, {});
    expect(done.status).toBeLessThan(300);
    taken = await ledger();
    expect(taken.entries.map((e) => e.details.finding).filter(Boolean)).toEqual([finding]);
    expect(new Set(taken.entries.map((e) => e.kind))).toEqual(new Set(['decision', 'print', 'misprint', 'note']));
  });

  it('changes nothing where it is here already', async () => {
    expect((await read(taken)).body).toEqual({
      entered: 0,
      known: taken.total,
      papers: 0,
      conditions: 0,
      leftOut: 0,
      left: [],
    });
    expect(await ledger()).toEqual(taken);
  });

  it('enters what is not here, as it was; read twice it enters it once', async () => {
    const ids = new Map(taken.entries.map((e) => [e.id, crypto.randomUUID()]));
    const other = {
      ...taken,
      entries: taken.entries.map((e) => ({
        ...e,
        id: ids.get(e.id)!,
        details: {
          ...e.details,
          ...(typeof e.details.printId === 'string' && { printId: ids.get(e.details.printId) }),
          ...(e.kind === 'print' && { code: recordCode(ids.get(e.id)!) }),
        },
      })),
    };
    expect((await read(other)).body).toMatchObject({ entered: taken.total, known: 0, leftOut: 0, left: [] });
    expect((await read(other)).body).toMatchObject({ entered: 0, known: taken.total });
    const now = await ledger();
    expect(now.total).toBe(2 * taken.total);
    for (const entry of other.entries) expect(now.entries.find((e) => e.id === entry.id)).toEqual(entry);
  });

  it('a misprint finds its print, though it was booked days before that came out', async () => {
    const [print] = taken.entries.filter((e) => e.kind === 'print');
    const [misprint] = taken.entries.filter((e) => e.kind === 'misprint');
    const [printId, id] = [crypto.randomUUID(), crypto.randomUUID()];
    const at = '2026-10-01T10:00:00.000Z';
    const entries = [
      { ...print, id: printId },
      { ...misprint, id, at, details: { ...misprint.details, printId } },
    ];
    expect((await read({ entries })).body).toMatchObject({ entered: 2 });
    expect((await ledger()).entries.find((e) => e.id === id)!.details.printId).toBe(printId);
    // And the other way round in the file.
    const again = entries.map((e) => ({ ...e, id: crypto.randomUUID() }));
    const turned = [{ ...again[1], details: { ...again[1].details, printId: again[0].id } }, again[0]];
    expect((await read({ entries: turned })).body).toMatchObject({ entered: 2 });
    expect((await ledger()).entries.find((e) => e.id === again[1].id)!.details.printId).toBe(again[0].id);
  });

  it('brings papers and print conditions into an empty studio, and pictures by their titles once they are there', async () => {
    const other = await start();
    const send = (what: unknown) => other.upload<Read>('/api/ledger/read', 'ledger.json', JSON.stringify(what));
    const ofPictures = taken.entries.filter((e) => e.pictureId);
    const first = (await send(taken)).body;
    expect(first).toMatchObject({ entered: taken.total - ofPictures.length, leftOut: ofPictures.length, papers: 1 });
    for (const { why } of first.left)
      expect(why).toMatch(/^The picture “p” is not here\. Import its file under this title/);
    await picture(other, 'p.tif', await blocks([[0.1, 0.2, 0.3]]));
    const second = (await send(taken)).body;
    expect(second).toMatchObject({ entered: ofPictures.length, leftOut: 0, papers: 0, conditions: 1 });
    const there = (await other.call<Ledger>('GET', '/api/ledger.json')).body;
    const plain = ({ entries }: Ledger) =>
      entries.map(({ id, at, kind, reason, outcome, paper, picture: title }) => ({
        ...{ id, at, kind, reason, outcome, paper, title },
      }));
    expect(plain(there)).toEqual(plain(taken));
    const { body: conditions } = await other.call<{ printer: string; mediaSetting: string }[]>(
      'GET',
      '/api/conditions',
    );
    expect(conditions).toMatchObject([{ printer: 'Test Press', mediaSetting: 'Coated', resolution: '720 dpi' }]);
    // Of another file of before nothing is known but names: said for each entry.
    const bare = taken.entries.map(({ sheet: _, ...e }) => ({ ...e, id: crypto.randomUUID() }));
    const third = await start();
    const { body: left } = await third.upload<Read>('/api/ledger/read', 'l.json', JSON.stringify({ entries: bare }));
    expect(left.entered + left.leftOut).toBe(bare.length);
    await Promise.all([other.stop(), third.stop()]);
  });

  it('names what it leaves out, and why', async () => {
    const [entry] = taken.entries.filter((e) => e.kind === 'decision');
    const gone = taken.entries.find((e) => e.kind === 'note')!;
    await rakuen.call('DELETE', `/api/notes/${gone.id}`);
    const elsewhere = '00000000-0000-4000-8000-000000000000';
    const { body } = await read({
      entries: [
        { ...entry, id: crypto.randomUUID(), pictureId: elsewhere, picture: 'Elsewhere' },
        { ...entry, id: crypto.randomUUID(), outcome: 'adored' },
        { ...entry, id: crypto.randomUUID(), kind: 'number' },
        { ...entry, id: crypto.randomUUID(), at: '2199-01-01T00:00:00Z' },
        gone,
        'nothing',
      ],
    });
    expect(body.entered).toBe(0);
    expect(body.left.map((l) => l.entry)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(body.left.map((l) => l.why)).toEqual([
      expect.stringMatching(/“Elsewhere” is not here\. Import its file under this title/),
      expect.stringMatching(/stamp/),
      expect.stringMatching(/whole studio/),
      expect.stringMatching(/at /),
      expect.stringMatching(/bin/),
      expect.stringMatching(/no entry/),
    ]);
  });

  it('whatever a file holds, it is answered with a reason', async () => {
    const [decision] = taken.entries.filter((e) => e.kind === 'decision');
    const [print] = taken.entries.filter((e) => e.kind === 'print');
    const [misprint] = taken.entries.filter((e) => e.kind === 'misprint');
    const id = () => crypto.randomUUID();
    const strange = [
      null,
      7,
      [],
      ...['__proto__', 'constructor', 'toString', 5].map((kind) => ({ ...decision, id: id(), kind })),
      { ...decision, id: id(), pictureId: {} },
      { ...decision, id: id(), conditionId: ['x'] },
      { ...decision, id: { a: 1 } },
      { ...decision, id: id(), at: 12 },
      { ...decision, id: id(), reason: { deep: 1 } },
      { ...decision, id: id(), details: [] },
      { ...decision, id: id(), details: { ...decision.details, outsideShare: 1.2 } },
      { ...decision, id: id(), details: { ...decision.details, lostShare: -0.1 } },
      { ...decision, id: id(), details: { ...decision.details, place: 0 } },
      { ...decision, id: id(), details: { ...decision.details, score: 11 } },
      { ...decision, id: id(), details: { ...decision.details, costDeltaE: -1 } },
      { ...print, id: id(), details: { ...print.details, minutes: -4 } },
      { ...print, id: id(), details: { ...print.details, widthMm: -5 } },
      { ...print, id: id(), details: { ...print.details, printer: { x: 1 } } },
      { ...print, id: id(), outcome: 'wonderful' },
      { ...misprint, id: id(), details: { ...misprint.details, sheets: 1e9 } },
      { ...misprint, id: id(), outcome: '' },
      { ...misprint, id: id(), pictureId: undefined },
    ];
    const { status, body } = await read({ entries: strange });
    expect(status).toBe(200);
    expect(body).toMatchObject({ entered: 0, known: 0 });
    expect(body.left).toHaveLength(strange.length);
    for (const { why } of body.left) expect(why).toMatch(/\w+/);
    // An amount without its currency is left, and the sheets are booked.
    const booked = { ...misprint, id: id(), details: { ...misprint.details, lost: 3, currency: 'beads' } };
    expect((await read({ entries: [booked] })).body).toMatchObject({ entered: 1 });
  });

  it.each([
    ['no JSON', '{'],
    ['of something else', '[1]'],
    ['too deep', '['.repeat(99)],
  ])('%s is refused', async (_, text) =>
    expect((await rakuen.upload<Read>('/api/ledger/read', 'x.json', text)).body).toMatchObject({
      statusCode: 422,
      message: expect.stringMatching(/no ledger/),
    }),
  );
});
