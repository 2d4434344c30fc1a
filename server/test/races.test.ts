import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { condition, CONDITION, fixture, PAPER, picture, start, type Running } from './rakuen.ts';

/**
 * Every change the API knows, asked for many times at once: none answers 500, and nothing is made twice that may be but
 * once. A dozen at once in every run; `RACE=50 npm run jest -- server/test/races` is the long one.
 */
const AT_ONCE = Number(process.env.RACE ?? 12);

type Answer = { status: number; body: { id?: string; message?: string } };
interface Race {
  /** As the API describes it. */
  readonly route: string;
  /** Makes what is raced over and gives the one request, asked by the i-th of fifty. */
  readonly ask: () => Promise<(i: number) => Promise<Answer>>;
  /** How many of the fifty may be granted; any number where it is not said. */
  readonly granted?: number;
}

let rakuen: Running;
let pictureId: string;
let scan: Buffer;
let conditionId: string;
let paperId: string;
const READINGS = readFileSync(fixture('fogra29l.cgats.txt'), 'latin1');
let made = 0;
const name = () => `Raced ${made++}`;
const post = (path: string, body?: object) => rakuen.call<Answer['body']>('POST', `/api/${path}`, body);
const put = (path: string, body: object) => rakuen.call<Answer['body']>('PUT', `/api/${path}`, body);
const remove = (path: string) => rakuen.call<Answer['body']>('DELETE', `/api/${path}`);
/** Makes a thing that must come about. @returns its id */
const COMMISSION = {
  longSideMm: 400,
  viewingMm: 800,
  copies: 1,
  handled: false,
  light: 'D50',
  glass: 'none',
  lux: 300,
  mustLast: false,
  vetoes: [],
};
const showOf = (called: string) => ({
  name: called,
  place: '',
  maxLoss: 1,
  sameSurface: false,
  sameWhite: false,
  allPapers: false,
  pictureIds: [],
  papers: [],
});
const make = async (path: string, body: object): Promise<string> => {
  const answer = await post(path, body);
  if (answer.status >= 300) throw new Error(`${path}: ${answer.status} ${answer.body.message}`);
  return answer.body.id!;
};
const send = async (path: string, file: string, bytes: string | Uint8Array, fields: Record<string, string> = {}) =>
  rakuen.upload<Answer['body']>(`/api/${path}`, file, bytes, fields);

beforeAll(async () => {
  rakuen = await start();
  const grey = await sharp({ create: { width: 60, height: 40, channels: 3, background: { r: 90, g: 80, b: 70 } } })
    .png()
    .toBuffer();
  pictureId = (await picture(rakuen, 'grey.png', grey)).job.pictureId!;
  scan = await sharp(Buffer.from(Array.from({ length: 220 * 220 }, (_, i) => 120 + ((i * 7919) % 23))), {
    raw: { width: 220, height: 220, channels: 1 },
  })
    .png()
    .toBuffer();
  conditionId = await condition(rakuen, 'Raced over');
  await send(`conditions/${conditionId}/readings`, 'read.txt', READINGS);
  paperId = (await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${conditionId}`)).body.paperId;
});
afterAll(async () => void (await rakuen.stop()));

const CHART = { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 };
const SEEN = { takenAt: '2026-11-20T10:00:00Z', by: 'Ines', instrument: '', light: 'D50', note: '' };
const chart = () => make('charts', { name: name(), spec: CHART });
const session = async () =>
  make('sessions', {
    conditionId,
    chartId: await chart(),
    instrument: 'Simulated bench spectrophotometer',
    passes: 1,
    printedAt: '2026-01-02T10:00:00.000Z',
    batch: name(),
    rehearsal: 'none',
  });
const readSession = async () => {
  const id = await session();
  while ((await post(`sessions/${id}/read`)).status === 200);
  return id;
};
const begun = () => make('prints/begin', { pictureId, conditionId });
const printed = async () => {
  const id = await begun();
  await rakuen.call('PATCH', `/api/prints/${id}`, { widthMm: 100, heightMm: 100, copies: 1 });
  const done = await post(`prints/${id}/done`, {});
  if (done.status >= 300) throw new Error(done.body.message);
  return id;
};
const printInput = async () => {
  const { body } = await rakuen.call<{ settings: object }>(
    'GET',
    `/api/prints/proposal?pictureId=${pictureId}&conditionId=${conditionId}`,
  );
  return {
    pictureId,
    conditionId,
    printedOn: '2026-11-20',
    widthMm: 100,
    heightMm: 80,
    copies: 1,
    settings: body.settings,
    carriedOver: [],
    verdict: 'good',
    verdictReason: '',
  };
};
const EDITION = { artist: 0, printer: 0, good: 0, widthMm: 100, heightMm: 100, batch: '' };
const edition = (more: object = {}) =>
  make('editions', { ...EDITION, pictureId, conditionId, name: name(), later: true, ...more });
const clientOf = (called: string) => ({ name: called, contact: '', wishes: '', notes: '' });
const placeOf = (called: string) => ({ name: called, address: '', notes: '' });
const client = () => make('clients', clientOf(name()));
const orderOf = (clientId: string) => ({
  clientId,
  name: 'Raced',
  notes: '',
  lines: [{ pictureId, conditionId, widthMm: 100, heightMm: 100, copies: 1 }],
});
const order = async () => make('orders', orderOf(await client()));
const run = async () => {
  const print = await begun();
  const { body } = await rakuen.call<{ id: string; items: { print: { id: string } }[] }>('POST', '/api/runs', {
    printer: CONDITION.printer,
    printIds: [print],
  });
  return { id: body.id, print, path: `runs/${body.id}/prints/${print}` };
};
/** A run is closed before the next is planned: the printer has but one. */
const onRun =
  (ask: (r: Awaited<ReturnType<typeof run>>, i: number) => Promise<Answer>, close = true) =>
  async () => {
    const r = await run();
    let left = AT_ONCE;
    return async (i: number) => {
      const answer = await ask(r, i);
      if (--left === 0 && close) await post(`runs/${r.id}/close`);
      return answer;
    };
  };
const eye = async () =>
  make('eye', {
    conditionIds: [conditionId, await condition(rakuen, name())],
    criterion: 'deeper black',
    times: 2,
    observer: 'Ines',
    light: 'D50',
  });
const pack = async () =>
  make('packs', {
    name: name(),
    widthMm: 210,
    heightMm: 297,
    types: [{ conditionId, sheets: 4 }],
    testPage: true,
    crops: [],
  });
const profile = async () => (await send('profiles', 'work.icc', readFileSync(fixture('sRGB.icc')))).body.id!;
const box = () => ({
  paperId,
  kind: 'sheet',
  label: name(),
  widthMm: 210,
  heightMm: 297,
  sheets: 25,
  batch: '',
  boughtOn: '2026-11-01',
  currency: 'EUR',
  price: 50,
  note: '',
});
const RATES = {
  currency: 'EUR',
  perHour: 30,
  inkPerMl: 0.5,
  solidMlPerM2: 10,
  finishing: 3,
  asOf: '2026-11-01',
};
const PLAIN = { liftStops: 0, contrast: 0, shadows: 0, saturation: 0, sharpening: 0, radiusMm: 0.2 };
const LAYOUT = {
  stock: { kind: 'sheet', widthMm: 210, heightMm: 297, top: 3, right: 3, bottom: 3, left: 3 },
  pieces: [{ name: 'a', widthMm: 50, heightMm: 50, copies: 1, mayTurn: true, border: 'equal', borderMm: 0 }],
  gapMm: 3,
};
const trial = async () => {
  await rakuen.call('POST', '/api/conditions', { ...CONDITION, mediaSetting: name(), paperId });
  return { conditionId, reason: 'Open shadows.', by: 'Ines', light: 'D50' };
};
const always = (ask: (i: number) => Promise<Answer>) => () => Promise.resolve(ask);
const once = (makeIt: () => Promise<string>, ask: (id: string, i: number) => Promise<Answer>) => async () => {
  const id = await makeIt();
  return (i: number) => ask(id, i);
};

const RACES: Race[] = [
  {
    route: 'PUT /api/settings',
    ask: async () => {
      const { body } = await rakuen.call<object>('GET', '/api/settings');
      return () => put('settings', body);
    },
  },
  {
    route: 'POST /api/papers',
    granted: 1,
    ask: once(
      async () => name(),
      (n) => post('papers', { ...PAPER, name: n }),
    ),
  },
  {
    route: 'PUT /api/papers/{id}',
    ask: once(
      () => make('papers', { ...PAPER, name: name() }),
      (id, i) => put(`papers/${id}`, { ...PAPER, name: `Renamed ${id}`, notes: String(i) }),
    ),
  },
  {
    route: 'DELETE /api/papers/{id}',
    granted: 1,
    ask: once(
      () => make('papers', { ...PAPER, name: name() }),
      (id) => remove(`papers/${id}`),
    ),
  },
  { route: 'POST /api/conditions', ask: always(() => post('conditions', { ...CONDITION, paperId })) },
  {
    route: 'PUT /api/conditions/{id}',
    ask: once(
      () => condition(rakuen, name()),
      async (id) => {
        const { body } = await rakuen.call<{ paperId: string }>('GET', `/api/conditions/${id}`);
        return put(`conditions/${id}`, { ...CONDITION, paperId: body.paperId });
      },
    ),
  },
  {
    route: 'DELETE /api/conditions/{id}',
    granted: 1,
    ask: once(
      () => condition(rakuen, name()),
      (id) => remove(`conditions/${id}`),
    ),
  },
  {
    route: 'POST /api/readings/preview',
    ask: always(() => send('readings/preview', 'read.txt', READINGS)),
  },
  {
    route: 'POST /api/conditions/{id}/readings',
    granted: 1,
    ask: once(
      () => condition(rakuen, name()),
      (id) => send(`conditions/${id}/readings`, 'read.txt', READINGS),
    ),
  },
  {
    route: 'PUT /api/conditions/{id}/figures-from',
    ask: always(() => put(`conditions/${conditionId}/figures-from`, {})),
  },
  {
    route: 'PUT /api/readings/{id}/left-out',
    ask: always(async (i) => {
      const { body } = await rakuen.call<{ readings: { id: string }[] }>('GET', `/api/conditions/${conditionId}`);
      return put(`readings/${body.readings[0].id}/left-out`, { patches: [String(i)] });
    }),
  },
  {
    route: 'DELETE /api/readings/{id}/apart',
    ask: always(async () => {
      const { body } = await rakuen.call<{ readings: { id: string }[] }>('GET', `/api/conditions/${conditionId}`);
      return remove(`readings/${body.readings[0].id}/apart`);
    }),
  },
  {
    route: 'DELETE /api/readings/{id}',
    granted: 1,
    ask: async () => {
      const id = await condition(rakuen, name());
      await send(`conditions/${id}/readings`, 'read.txt', READINGS);
      const { body } = await rakuen.call<{ readings: { id: string }[] }>('GET', `/api/conditions/${id}`);
      return () => remove(`readings/${body.readings[0].id}`);
    },
  },
  {
    route: 'POST /api/conditions/{id}/observations',
    ask: always(() =>
      post(`conditions/${conditionId}/observations`, {
        observations: [{ ...SEEN, kind: 'curl', value: { grade: 1 } }],
      }),
    ),
  },
  {
    route: 'DELETE /api/observations/{id}',
    granted: 1,
    ask: async () => {
      const id = await condition(rakuen, name());
      const { body } = await rakuen.call<{ observations: { id: string }[] }>(
        'POST',
        `/api/conditions/${id}/observations`,
        { observations: [{ ...SEEN, kind: 'curl', value: { grade: 1 } }] },
      );
      return () => remove(`observations/${body.observations[0].id}`);
    },
  },
  {
    route: 'POST /api/conditions/{id}/scans',
    ask: always(() =>
      send(`conditions/${conditionId}/scans`, 'scan.png', scan, { by: 'Ines', ppi: '300', instrument: 'Flatbed' }),
    ),
  },
  {
    route: 'POST /api/conditions/{id}/scans/simulated',
    ask: always(() => post(`conditions/${conditionId}/scans/simulated`, { by: 'Ines' })),
  },
  {
    route: 'POST /api/conditions/{id}/bench',
    ask: always(() => post(`conditions/${conditionId}/bench`, { kind: 'weight' })),
  },
  {
    route: 'POST /api/charts',
    ask: once(
      async () => name(),
      (n) => post('charts', { name: n, spec: CHART }),
    ),
  },
  { route: 'POST /api/charts/card', granted: AT_ONCE, ask: always(() => post('charts/card')) },
  {
    route: 'POST /api/pictures/{id}/strips/scan',
    granted: 0,
    ask: once(chart, (chartId) =>
      send(`pictures/${pictureId}/strips/scan`, 'no.png', 'no scan', { conditionId, chartId, readingId: chartId }),
    ),
  },
  { route: 'DELETE /api/charts/{id}', granted: 1, ask: once(chart, (id) => remove(`charts/${id}`)) },
  {
    route: 'POST /api/sessions',
    ask: once(chart, (chartId) =>
      post('sessions', {
        conditionId,
        chartId,
        instrument: 'Simulated bench spectrophotometer',
        passes: 1,
        printedAt: '2026-01-02T10:00:00.000Z',
        batch: '',
        rehearsal: 'none',
      }),
    ),
  },
  { route: 'DELETE /api/sessions/{id}', granted: 1, ask: once(session, (id) => remove(`sessions/${id}`)) },
  { route: 'POST /api/sessions/{id}/read', ask: once(session, (id) => post(`sessions/${id}/read`)) },
  { route: 'POST /api/sessions/{id}/undo', ask: once(readSession, (id) => post(`sessions/${id}/undo`)) },
  {
    route: 'POST /api/sessions/{id}/again',
    granted: 1,
    ask: once(readSession, (id) => post(`sessions/${id}/again`, { strip: 0, pass: 0 })),
  },
  {
    route: 'POST /api/sessions/{id}/mend',
    granted: 0,
    ask: once(readSession, (id) => post(`sessions/${id}/mend`, { strip: 0, pass: 0, mend: 'keep' })),
  },
  {
    route: 'POST /api/sessions/{id}/patches',
    ask: once(session, (id, i) => post(`sessions/${id}/patches`, { patch: i, pass: 0, out: true })),
  },
  { route: 'POST /api/sessions/{id}/lay', ask: once(session, (id) => post(`sessions/${id}/lay`, { sheet: 1 })) },
  { route: 'POST /api/sessions/{id}/calibrate', ask: once(session, (id) => post(`sessions/${id}/calibrate`)) },
  {
    route: 'POST /api/sessions/{id}/finish',
    granted: 1,
    ask: once(readSession, (id) => post(`sessions/${id}/finish`, { takeDriftOut: false })),
  },
  {
    route: 'POST /api/papers/bundle',
    granted: 1,
    ask: async () => {
      const id = await make('papers', { ...PAPER, name: name() });
      const { body } = await rakuen.call<object>('GET', `/api/papers/${id}/bundle`);
      await remove(`papers/${id}`);
      return () => send('papers/bundle', 'paper.json', JSON.stringify(body));
    },
  },
  {
    route: 'POST /api/lights',
    ask: always(() => send('lights', 'lamp.csv', lamp(), { name: 'Raced lamp' })),
  },
  {
    route: 'PATCH /api/lights/{id}',
    ask: async () => {
      const { id } = (await send('lights', 'lamp.csv', lamp(), { name: name() })).body;
      return (i) => rakuen.call<Answer['body']>('PATCH', `/api/lights/${id}`, { uv: i % 2 ? 'led' : 'daylight' });
    },
  },
  {
    route: 'DELETE /api/lights/{id}',
    granted: 1,
    ask: once(
      async () => (await send('lights', 'lamp.csv', lamp(), { name: name() })).body.id!,
      (id) => remove(`lights/${id}`),
    ),
  },
  {
    // A set of four inks has no way back: none is written.
    route: 'POST /api/conditions/{id}/profiles',
    granted: 0,
    ask: always(() => post(`conditions/${conditionId}/profiles`, {})),
  },
  {
    route: 'POST /api/profile-jobs/{id}/cancel',
    granted: 0,
    ask: always(() => post('profile-jobs/00000000-0000-4000-8000-000000000000/cancel')),
  },
  {
    route: 'PUT /api/conditions/{id}/profile',
    ask: once(profile, (profileId) => put(`conditions/${conditionId}/profile`, { profileId })),
  },
  {
    route: 'POST /api/conditions/{id}/next-patches',
    ask: always(() => post(`conditions/${conditionId}/next-patches`, { count: 10 })),
  },
  { route: 'POST /api/profiles', ask: always(() => send('profiles', 'work.icc', readFileSync(fixture('sRGB.icc')))) },
  {
    // It is used by a print condition.
    route: 'DELETE /api/profiles/{id}',
    granted: 0,
    ask: once(profile, (id) => remove(`profiles/${id}`)),
  },
  { route: 'POST /api/profiles/{id}/strip', ask: once(profile, (id) => post(`profiles/${id}/strip`)) },
  {
    // Of a profile for three channels and readings of four inks nothing can be said.
    route: 'POST /api/profiles/{id}/checks',
    granted: 0,
    ask: once(profile, (id) => post(`profiles/${id}/checks`, { readingId: '00000000-0000-4000-8000-000000000000' })),
  },
  {
    // Likewise.
    route: 'POST /api/profiles/{id}/check-files',
    granted: 0,
    ask: once(profile, (id) => send(`profiles/${id}/check-files`, 'read.txt', READINGS)),
  },
  {
    route: 'POST /api/trials',
    ask: async () => {
      const input = await trial();
      return () => post('trials', input);
    },
  },
  {
    route: 'DELETE /api/trials/{id}',
    granted: 1,
    ask: once(
      async () => make('trials', await trial()),
      (id) => remove(`trials/${id}`),
    ),
  },
  {
    route: 'POST /api/eye',
    ask: once(
      () => condition(rakuen, name()),
      (other) =>
        post('eye', {
          conditionIds: [conditionId, other],
          criterion: 'deeper black',
          times: 1,
          observer: 'Ines',
          light: 'D50',
        }),
    ),
  },
  { route: 'DELETE /api/eye/{id}', granted: 1, ask: once(eye, (id) => remove(`eye/${id}`)) },
  {
    route: 'POST /api/eye/{id}/choices',
    granted: 1,
    ask: once(eye, (id) => post(`eye/${id}/choices`, { turn: 0, said: 'left' })),
  },
  {
    route: 'DELETE /api/eye/{id}/choices/last',
    granted: 1,
    ask: once(
      async () => {
        const id = await eye();
        await post(`eye/${id}/choices`, { turn: 0, said: 'left' });
        return id;
      },
      (id) => remove(`eye/${id}/choices/last`),
    ),
  },
  {
    route: 'POST /api/packs',
    ask: always(() =>
      post('packs', {
        name: 'Raced pack',
        widthMm: 210,
        heightMm: 297,
        types: [{ conditionId, sheets: 4 }],
        testPage: true,
        crops: [],
      }),
    ),
  },
  {
    route: 'POST /api/packs/look',
    granted: AT_ONCE,
    ask: always(() => post('packs/look', { widthMm: 210, heightMm: 297, sheets: 2, testPage: true, crops: [] })),
  },
  {
    route: 'POST /api/packs/{id}/sheets',
    ask: once(pack, (id, i) => post(`packs/${id}/sheets`, { sheet: `${conditionId}/0`, printed: i % 2 === 0 })),
  },
  { route: 'DELETE /api/packs/{id}', granted: 1, ask: once(pack, (id) => remove(`packs/${id}`)) },
  { route: 'POST /api/pictures', ask: always(() => send('pictures', 'none.png', 'no picture')) },
  {
    // There is no such job any more.
    route: 'DELETE /api/pictures/jobs/{id}',
    granted: 0,
    ask: always(() => remove('pictures/jobs/00000000-0000-4000-8000-000000000000')),
  },
  {
    route: 'PATCH /api/pictures/{id}',
    ask: always((i) => rakuen.call<Answer['body']>('PATCH', `/api/pictures/${pictureId}`, { title: `Title ${i}` })),
  },
  {
    route: 'PUT /api/pictures/commissions',
    ask: always((i) =>
      rakuen.call<Answer['body']>('PUT', '/api/pictures/commissions', {
        pictureIds: [pictureId],
        commission: { ...COMMISSION, lux: 100 + i },
      }),
    ),
  },
  {
    route: 'DELETE /api/pictures/{id}',
    granted: 1,
    ask: once(
      async () => {
        const shade = { r: made++ % 255, g: 10, b: 10 };
        const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: shade } })
          .png()
          .toBuffer();
        return (await picture(rakuen, 'again.png', bytes)).job.pictureId!;
      },
      (id) => remove(`pictures/${id}`),
    ),
  },
  { route: 'POST /api/matches', ask: always(() => post('matches', { pictureId, conditionIds: [conditionId] })) },
  {
    route: 'DELETE /api/under-way/{id}',
    ask: always(() => remove(`under-way/${crypto.randomUUID()}`)),
  },
  {
    route: 'POST /api/matches/pictures',
    ask: always(() => post('matches/pictures', { conditionId, pictureIds: [pictureId] })),
  },
  {
    route: 'POST /api/shows',
    granted: 1,
    ask: once(
      async () => name(),
      (n) => post('shows', showOf(n)),
    ),
  },
  {
    route: 'PUT /api/shows/{id}',
    granted: 1,
    ask: once(
      () => make('shows', showOf(name())),
      (id, i) =>
        rakuen.call<Answer['body']>('PUT', `/api/shows/${id}`, showOf(`${name()} ${i}`), { 'If-Match': '"1"' }),
    ),
  },
  {
    route: 'DELETE /api/shows/{id}',
    granted: 1,
    ask: once(
      () => make('shows', showOf(name())),
      (id) => remove(`shows/${id}`),
    ),
  },
  {
    route: 'POST /api/shows/{id}/plan',
    ask: once(
      () => make('shows', showOf(name())),
      (id) => post(`shows/${id}/plan`, {}),
    ),
  },
  { route: 'POST /api/matches/kept', ask: always(() => post('matches/kept', { pictureId, name: 'raced' })) },
  {
    route: 'DELETE /api/matches/kept/{id}',
    granted: 1,
    ask: once(
      () => make('matches/kept', { pictureId, name: name() }),
      (id) => remove(`matches/kept/${id}`),
    ),
  },
  {
    route: 'POST /api/schools',
    granted: 1,
    ask: once(
      async () => name(),
      (n) => post('schools', { name: n, weights: {} }),
    ),
  },
  {
    route: 'DELETE /api/schools/{id}',
    granted: 1,
    ask: once(
      () => make('schools', { name: name(), weights: {} }),
      (id) => remove(`schools/${id}`),
    ),
  },
  {
    route: 'POST /api/decisions',
    ask: always((i) => post('decisions', { pictureId, conditionId, stamp: 'chosen', reason: `Raced ${i}.` })),
  },
  {
    route: 'DELETE /api/decisions/{id}',
    granted: 1,
    ask: once(
      () => make('decisions', { pictureId, conditionId, stamp: 'chosen', reason: 'Quiet greys.' }),
      (id) => remove(`decisions/${id}`),
    ),
  },
  {
    route: 'PUT /api/recipes',
    ask: always((i) =>
      put('recipes', { pictureId, conditionId, name: 'raced', values: { ...PLAIN, contrast: i / 100 } }),
    ),
  },
  {
    route: 'DELETE /api/recipes/{id}',
    granted: 1,
    ask: async () => {
      const { body } = await put('recipes', { pictureId, conditionId, name: name(), values: PLAIN });
      return () => remove(`recipes/${body.id}`);
    },
  },
  {
    route: 'POST /api/prints',
    ask: async () => {
      const input = await printInput();
      return () => post('prints', input);
    },
  },
  {
    route: 'PATCH /api/prints/{id}',
    ask: once(begun, (id, i) =>
      rakuen.call<Answer['body']>('PATCH', `/api/prints/${id}`, { widthMm: 100 + i, heightMm: 100, copies: 1 }),
    ),
  },
  {
    route: 'PUT /api/prints/{id}',
    ask: async () => {
      const [id, input] = [await printed(), await printInput()];
      return () => put(`prints/${id}`, input);
    },
  },
  { route: 'DELETE /api/prints/{id}', granted: 1, ask: once(begun, (id) => remove(`prints/${id}`)) },
  {
    route: 'POST /api/prints/{id}/misprints',
    granted: AT_ONCE,
    ask: once(printed, (id) => post(`prints/${id}/misprints`, { cause: 'fed askew', sheets: 1 })),
  },
  {
    route: 'POST /api/prints/{id}/photographs',
    granted: 1,
    ask: once(printed, (id) => send(`prints/${id}/photographs`, 'scan.png', scan, { kind: 'scan' })),
  },
  {
    route: 'DELETE /api/prints/photographs/{id}',
    granted: 1,
    ask: once(
      async () => (await send(`prints/${await printed()}/photographs`, 'scan.png', scan, { kind: 'scan' })).body.id!,
      (id) => remove(`prints/photographs/${id}`),
    ),
  },
  {
    route: 'POST /api/pictures/{id}/print-files',
    ask: always(() => post(`pictures/${pictureId}/print-files`, { conditionId, space: 'srgb', ppi: 72 })),
  },
  {
    route: 'POST /api/prints/begin',
    granted: AT_ONCE,
    ask: always(() => post('prints/begin', { pictureId, conditionId })),
  },
  {
    route: 'POST /api/prints/{id}/done',
    granted: 1,
    ask: once(
      async () => {
        const id = await begun();
        await rakuen.call('PATCH', `/api/prints/${id}`, { widthMm: 100, heightMm: 100, copies: 1 });
        return id;
      },
      (id) => post(`prints/${id}/done`, { passReason: 'a race' }),
    ),
  },
  {
    route: 'DELETE /api/prints/misprints/{id}',
    granted: 1,
    ask: once(
      async () => make(`prints/${await printed()}/misprints`, { cause: 'fed askew', sheets: 1 }),
      (id) => remove(`prints/misprints/${id}`),
    ),
  },
  { route: 'PUT /api/rates', ask: always((i) => put('rates', { ...RATES, perHour: 30 + i })) },
  {
    route: 'POST /api/editions',
    granted: 1,
    ask: once(
      async () => name(),
      (n) => post('editions', { ...EDITION, pictureId, conditionId, name: n, later: true }),
    ),
  },
  {
    route: 'PUT /api/editions/{id}',
    ask: once(edition, (id) =>
      put(`editions/${id}`, { ...EDITION, pictureId, conditionId, name: `Of ${id}`, later: true }),
    ),
  },
  { route: 'DELETE /api/editions/{id}', granted: 1, ask: once(edition, (id) => remove(`editions/${id}`)) },
  {
    route: 'POST /api/editions/{id}/numbers',
    granted: 5,
    ask: once(
      () => edition({ size: 5 }),
      (id) => post(`editions/${id}/numbers`, { series: 'edition' }),
    ),
  },
  {
    route: 'POST /api/editions/{id}/accepted',
    ask: once(
      () => edition({ batch: 'spring' }),
      (id) => post(`editions/${id}/accepted`, { batch: 'autumn', by: 'I. Orme', why: 'Held beside 1/30.' }),
    ),
  },
  {
    route: 'POST /api/editions/{id}/numbers/many',
    granted: 2,
    ask: once(
      () => edition({ size: 5 }),
      (id) => post(`editions/${id}/numbers/many`, { series: 'edition', count: 2 }),
    ),
  },
  {
    route: 'POST /api/clients',
    granted: 1,
    ask: once(
      async () => name(),
      (called) => post('clients', clientOf(called)),
    ),
  },
  {
    route: 'PUT /api/clients/{id}',
    ask: once(client, (id) => put(`clients/${id}`, clientOf(`Of ${id}`))),
  },
  { route: 'DELETE /api/clients/{id}', granted: 1, ask: once(client, (id) => remove(`clients/${id}`)) },
  {
    route: 'POST /api/places',
    granted: 1,
    ask: once(
      async () => name(),
      (called) => post('places', placeOf(called)),
    ),
  },
  {
    route: 'PUT /api/places/{id}',
    ask: once(
      () => make('places', placeOf(name())),
      (id) => put(`places/${id}`, placeOf(`Of ${id}`)),
    ),
  },
  {
    route: 'DELETE /api/places/{id}',
    granted: 1,
    ask: once(
      () => make('places', placeOf(name())),
      (id) => remove(`places/${id}`),
    ),
  },
  {
    route: 'POST /api/orders',
    ask: once(client, (clientId) => post('orders', orderOf(clientId))),
  },
  {
    route: 'PUT /api/orders/{id}',
    ask: async () => {
      const clientId = await client();
      const id = await make('orders', orderOf(clientId));
      return () => put(`orders/${id}`, orderOf(clientId));
    },
  },
  { route: 'DELETE /api/orders/{id}', granted: 1, ask: once(order, (id) => remove(`orders/${id}`)) },
  {
    route: 'POST /api/orders/{id}/deliver',
    granted: 1,
    ask: once(
      async () => {
        const id = await order();
        const { body } = await rakuen.call<{ lines: { id: string }[] }>('GET', `/api/orders/${id}`);
        const print = await make('prints/begin', { orderLineId: body.lines[0].id, conditionId });
        await post(`prints/${print}/done`, { passReason: 'a race' });
        return id;
      },
      (id) => post(`orders/${id}/deliver`, {}),
    ),
  },
  {
    route: 'POST /api/orders/{id}/cancel',
    granted: 1,
    ask: once(order, (id) => post(`orders/${id}/cancel`)),
  },
  { route: 'POST /api/orders/{id}/reopen', ask: once(order, (id) => post(`orders/${id}/reopen`)) },
  {
    route: 'POST /api/moves',
    granted: 1,
    ask: once(printed, (id) => post('moves', { printId: id, to: 'sold' })),
  },
  {
    route: 'DELETE /api/moves/{id}',
    granted: 1,
    ask: once(
      async () => make('moves', { printId: await printed(), to: 'lent' }),
      (id) => remove(`moves/${id}`),
    ),
  },
  { route: 'POST /api/layouts', ask: always(() => post('layouts', LAYOUT)) },
  { route: 'POST /api/layouts/pdf', ask: always(() => post('layouts/pdf', LAYOUT)) },
  {
    route: 'POST /api/runs',
    granted: 1,
    ask: async () => {
      const print = await begun();
      let left = AT_ONCE;
      let planned: string | undefined;
      return async () => {
        const answer = await post('runs', { printer: CONDITION.printer, printIds: [print] });
        planned ??= answer.status === 201 ? answer.body.id : undefined;
        if (--left === 0) await post(`runs/${planned}/close`);
        return answer;
      };
    },
  },
  { route: 'PUT /api/runs/{id}/looked', ask: onRun((r) => put(`runs/${r.id}/looked`, { looked: ['nozzle check'] })) },
  {
    route: 'PUT /api/runs/{id}/prints/{printId}/looked',
    ask: onRun((r) => put(`${r.path}/looked`, { looked: ['gloves'] })),
  },
  {
    route: 'POST /api/runs/{id}/prints/{printId}/done',
    granted: 1,
    ask: onRun((r) => post(`${r.path}/done`, { minutes: 5, passReason: 'a race' })),
  },
  {
    route: 'POST /api/runs/{id}/prints/{printId}/misprints',
    ask: onRun((r) => post(`${r.path}/misprints`, { cause: 'fed askew', sheets: 1 })),
  },
  { route: 'POST /api/runs/{id}/close', ask: onRun((r) => post(`runs/${r.id}/close`), false) },
  {
    route: 'POST /api/boxes',
    ask: async () => {
      const b = box();
      return () => post('boxes', b);
    },
  },
  {
    route: 'PUT /api/boxes/{id}',
    ask: async () => {
      const b = box();
      const id = await make('boxes', b);
      return () => put(`boxes/${id}`, b);
    },
  },
  {
    route: 'PUT /api/boxes/{id}/count',
    ask: async () => {
      const id = await make('boxes', box());
      return () => put(`boxes/${id}/count`, { left: 3 });
    },
  },
  {
    route: 'DELETE /api/boxes/{id}',
    granted: 1,
    ask: once(
      () => make('boxes', box()),
      (id) => remove(`boxes/${id}`),
    ),
  },
  { route: 'POST /api/notes', ask: always((i) => post('notes', { text: `Seen ${i} times.`, pictureId })) },
  {
    route: 'DELETE /api/notes/{id}',
    granted: 1,
    ask: once(
      () => make('notes', { text: 'Gone soon.' }),
      (id) => remove(`notes/${id}`),
    ),
  },
  { route: 'POST /api/inbox', ask: always(() => send('inbox', 'lamp.csv', lamp())) },
  { route: 'POST /api/inbox/certain', ask: always(() => post('inbox/certain')) },
  { route: 'POST /api/inbox/clear', ask: always(() => post('inbox/clear')) },
  {
    route: 'POST /api/inbox/{id}/import',
    granted: 1,
    ask: once(
      async () => (await send('inbox', 'imported.csv', `${lamp()}\n`)).body.id!,
      (id) => post(`inbox/${id}/import`, { name: 'imported.csv' }),
    ),
  },
  {
    route: 'DELETE /api/inbox/{id}',
    granted: 1,
    ask: once(
      async () => (await send('inbox', 'gone.csv', `${lamp()}\n\n`)).body.id!,
      (id) => remove(`inbox/${id}`),
    ),
  },
  {
    route: 'POST /api/ledger/read',
    ask: async () => {
      const { body } = await rakuen.call<{ entries: { kind: string }[] }>('GET', '/api/ledger.json');
      const entries = body.entries.slice(0, 5).map((e) => ({ ...e, id: crypto.randomUUID() }));
      return () => send('ledger/read', 'ledger.json', JSON.stringify({ entries }));
    },
  },
  { route: 'POST /api/table/deeds', ask: always(() => post('table/deeds', { deed: 'lay paper', id: conditionId })) },
  {
    route: 'POST /api/events/{change}/undo',
    granted: 1,
    ask: async () => {
      const id = await make('papers', { ...PAPER, name: name() });
      await remove(`papers/${id}`);
      const { body } = await rakuen.call<{ change: string }[]>('GET', '/api/bin');
      return () => post(`events/${body[0].change}/undo`);
    },
  },
  { route: 'POST /api/backups', ask: always(() => post('backups')) },
  { route: 'POST /api/backups/restore', granted: 0, ask: always(() => send('backups/restore', 'no.zip', 'no backup')) },
];

const lamp = () =>
  ['nm,power', ...Array.from({ length: 81 }, (_, i) => `${380 + 5 * i},${(1 + i / 81).toFixed(3)}`)].join('\n');

it('a studio has one card for its scanner, however many ask for it at once', async () => {
  await Promise.all(Array.from({ length: AT_ONCE }, () => post('charts/card')));
  const { body } = await rakuen.call<{ spec: { purpose: string } }[]>('GET', '/api/charts');
  expect(body.filter((c) => c.spec.purpose === 'card')).toHaveLength(1);
});

it('every change the API knows is raced over', async () => {
  const { body } = await rakuen.call<{ paths: Record<string, Record<string, unknown>> }>('GET', '/api/docs-json');
  const changes = Object.entries(body.paths).flatMap(([path, by]) =>
    Object.keys(by).flatMap((method) => (method === 'get' ? [] : [`${method.toUpperCase()} ${path}`])),
  );
  expect(changes.filter((c) => !RACES.some((r) => r.route === c))).toEqual([]);
});

it.each(RACES.map((r) => [r.route, r] as const))('%s', async (_, { ask, granted }) => {
  const one = await ask();
  const answers = await Promise.all(Array.from({ length: AT_ONCE }, (__, i) => one(i)));
  const failed = answers.filter((a) => a.status >= 500 && a.status !== 503);
  expect(failed.map((a) => a.body.message)).toEqual([]);
  const yes = answers.filter((a) => a.status < 300).length;
  const told = { yes, refused: refusals(answers) };
  if (granted !== undefined) expect(told).toMatchObject({ yes: granted });
  // What is refused to all is no race.
  else expect(told).not.toMatchObject({ yes: 0 });
});

/** Why the others were not granted, for whoever reads a failure. */
const refusals = (answers: Answer[]) =>
  [...new Set(answers.filter((a) => a.status >= 300).map((a) => `${a.status} ${a.body.message}`))].slice(0, 3);
