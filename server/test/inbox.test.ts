import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn } from '@rakuen/core/simulation/stand-in';
import { readFileSync } from 'node:fs';
import { scatteredChart } from '../../core/test/sheets.ts';
import { blocks } from './files.ts';
import { condition, fixture, start, type Running } from './rakuen.ts';

interface File {
  id: string;
  name: string;
  kind: string;
  what: string;
  conditions: string[];
  belongs?: { conditionId?: string; paperId?: string; name: string; why: string };
  unclear: string[];
  certain: boolean;
  fault?: string;
  remedy?: string;
  importedAs?: string;
  conditionId?: string;
  told?: Record<string, unknown>;
}
let rakuen: Running;
beforeEach(async () => void (rakuen = await start()));
afterEach(async () => void (await rakuen.stop()));

const chart = scatteredChart(120);
/** A file of readings as an instrument writes it, with what is said in its head. */
const COATINGS = { Dove: 'matt', Heron: 'baryta', Lapwing: 'lustre', Plover: 'canvas', Curlew: 'uncoated' } as const;
function file(
  paper: keyof typeof COATINGS,
  light: 'M1' | 'M2' = 'M1',
  said: Record<string, string> = {},
  seed = 7,
  times = 1,
): string {
  const sheet = standIn({
    coating: COATINGS[paper],
    surface: 'smooth',
    brightenerClaim: 'moderate',
    weightGsm: 230,
    thicknessUm: 300,
    blackInk: 'matt black',
    mediaSetting: 'Enhanced matt',
    printMode: 'colour through a profile',
    blackOvercoat: false,
    sheetName: paper,
  });
  const head = Object.entries(said).map(([k, v]) => `${k}\t"${v}"`);
  const read = readChart(sheet, chart, light, seed);
  const patches = read.patches.map((p) => ({ ...p, reflectance: p.reflectance!.map((v) => times * v) }));
  return writeCgats({ ...read, patches }).replace(/^(CGATS\S*)\r?\n/, `$1\n${head.join('\n')}\n`);
}
const heads = (paper: string) => ({
  PAPER: paper,
  PAPER_MAKER: 'Ostermoor',
  PAPER_WEIGHT: '230',
  PRINTER: 'Corvane P10',
  INK_SET: 'Deepset pigment',
  BLACK_INK: 'Matt black',
  MEDIA_SETTING: 'Enhanced matt',
});
async function bring(name: string, bytes: string | Uint8Array): Promise<File> {
  const { body, status } = await rakuen.upload<File>('/api/inbox', name.replace(/^.*\//, ''), bytes, { path: name });
  expect([name, status]).toEqual([name, 201]);
  return body;
}
const list = async () => (await rakuen.call<{ files: File[] }>('GET', '/api/inbox')).body.files;
const importCertain = () => rakuen.call<{ files: File[] }>('POST', '/api/inbox/certain');
const importOne = (of: File, to: object) =>
  rakuen.call<File & { message: string; field?: string }>('POST', `/api/inbox/${of.id}/import`, {
    name: of.name,
    ...to,
  });

it('ten files of five papers into an empty studio: all that say what they are in one action, each to its own paper', async () => {
  const papers = Object.keys(COATINGS) as (keyof typeof COATINGS)[];
  for (const [i, paper] of papers.entries())
    for (const light of ['M1', 'M2'] as const)
      await bring(`box ${i}/${i}-${light}.txt`, file(paper, light, heads(paper), i));
  const before = await list();
  expect(before).toHaveLength(10);
  expect(before.every((f) => f.certain && f.unclear.length === 0)).toBe(true);
  expect(before[0].told).toMatchObject({ paper: 'Dove', maker: 'Ostermoor', weightGsm: 230 });
  const { files } = (await importCertain()).body;
  expect(files.map((f) => f.importedAs)).toEqual(papers.flatMap((p) => [`${p}, Enhanced matt`, `${p}, Enhanced matt`]));
  const conditions = (
    await rakuen.call<{ id: string; paper: { name: string; weightGsm: number } }[]>('GET', '/api/conditions')
  ).body;
  expect(conditions.map((c) => [c.paper.name, c.paper.weightGsm])).toEqual(papers.map((p) => [p, 230]));
  for (const { id, paper } of conditions) {
    const { readings } = (await rakuen.call<{ readings: { fileName: string }[] }>('GET', `/api/conditions/${id}`)).body;
    const i = papers.indexOf(paper.name as (typeof papers)[number]);
    expect(readings.map((r) => r.fileName)).toEqual([`${i}-M1.txt`, `${i}-M2.txt`]);
  }
});

it('what came in is there after the server was killed, and the same file twice waits once', async () => {
  await bring('a.txt', file('Dove'));
  await bring('folder/b.txt', file('Dove'));
  const { data } = rakuen;
  await rakuen.kill();
  rakuen = await start(data, []);
  expect((await list()).map((f) => [f.name, f.what])).toEqual([['a.txt', 'readings, 120 patches, M1']]);
});

it('what is nothing of a studio’s is refused with why, and a picture, a profile and a lamp say what they are', async () => {
  const refused = [
    await bring('notes.bin', new Uint8Array([0, 1, 2, 3, 4])),
    await bring('cut.txt', file('Dove').slice(0, 900)),
  ];
  for (const f of refused) expect([f.name, f.certain, Boolean(f.fault && f.remedy)]).toEqual([f.name, false, true]);
  expect(refused[1].fault).toMatch(/^Line \d+: /);
  expect((await importOne(refused[0], { conditionId: await condition(rakuen, 'Any') })).status).toBe(422);
  const lamp = Array.from({ length: 36 }, (_, i) => `${380 + i * 10},${(1 + i / 10).toFixed(2)}`).join('\n');
  const others = [
    await bring('p.tif', await blocks([[0.2, 0.4, 0.6]])),
    await bring('s.icc', readFileSync(fixture('sRGB.icc'))),
    await bring('l.csv', `nm,power\n${lamp}`),
  ];
  expect(others.map((f) => [f.kind, f.certain])).toEqual([
    ['picture', true],
    ['profile', true],
    ['lamp', true],
  ]);
  const { files } = (await importCertain()).body;
  expect(files.filter((f) => f.importedAs).map((f) => f.importedAs!.split(' ')[0])).toEqual([
    'picture',
    'profile',
    'lamp',
  ]);
  expect((await rakuen.call<object[]>('GET', '/api/pictures')).body).toHaveLength(1);
  expect((await rakuen.call<{ files: File[] }>('POST', '/api/inbox/clear')).body.files).toEqual([]);
});

it('by likeness: a file that names nothing goes where its colours are, and one that names another paper is asked about', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  expect((await rakuen.upload(`/api/conditions/${dove}/readings`, 'first.txt', file('Dove'))).status).toBe(201);
  const again = await bring('scan0042.txt', file('Dove', 'M1', {}, 9));
  expect(again).toMatchObject({ certain: true, belongs: { conditionId: dove } });
  expect(again.belongs!.why).toMatch(/looks like it: 0\.\d ΔE00 over \d+ common patches/);
  const other = await bring('heron.txt', file('Dove', 'M1', { PAPER: 'Heron' }, 10));
  expect(other).toMatchObject({ certain: false, belongs: { conditionId: dove } });
  expect(other.unclear[0]).toMatch(/The file says “Heron”, and it looks like Dove/);
});

it('what a file’s name says against what it looks like is asked about: another weight, another name', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  await rakuen.upload(`/api/conditions/${dove}/readings`, 'first.txt', file('Dove'));
  const said = async (name: string, seed: number) => {
    const { certain, unclear, belongs } = await bring(name, file('Dove', 'M1', {}, seed));
    expect(belongs!.conditionId).toBe(dove);
    return [certain, ...unclear];
  };
  expect(await said('Dove 300 g.txt', 21)).toEqual([true]);
  expect(await said('DSC_0042.txt', 22)).toEqual([true]);
  expect(await said('Dove 180 g.txt', 23)).toEqual([
    false,
    'The file says 180 g/m², and Dove is of 300: say which it is.',
  ]);
  expect(await said('Heron Canvas.txt', 24)).toEqual([
    false,
    'Its name says “Heron Canvas”, and it looks like Dove: say which it is.',
  ]);
});

it('a file that is kept as readings already is said to be, and is not certain', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  await rakuen.upload(`/api/conditions/${dove}/readings`, 'first.txt', file('Dove'));
  const again = await bring('other name.txt', file('Dove'));
  expect(again).toMatchObject({ certain: false });
  expect(again.unclear).toEqual([expect.stringMatching(/^These readings are kept already, for \S+ Dove, Coated/)]);
});

it('a paper that is stated without its printer and setting is not certain where nothing can be compared', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  const found = await bring('a.txt', file('Dove', 'M1', { PAPER: 'Dove' }));
  expect(found).toMatchObject({ certain: false, belongs: { conditionId: dove } });
  expect(found.unclear).toEqual(['Only its words point there: nothing is kept that it can be compared with.']);
});

it('a file that fails with “all that are certain” says why and waits', async () => {
  const broken = await bring('p.tif', (await blocks([[0.2, 0.4, 0.6]])).subarray(0, 60));
  const { files } = (await importCertain()).body;
  expect(files).toMatchObject([{ id: broken.id, certain: false, unclear: [expect.stringMatching(/\S/)] }]);
  expect(files[0].importedAs).toBeUndefined();
});

it('one file that is certain goes where it surely belongs without a word; one that is not is refused', async () => {
  const [sure, open] = [await bring('a.txt', file('Dove', 'M1', heads('Dove'))), await bring('b.txt', file('Heron'))];
  expect(await importOne(sure, {})).toMatchObject({ status: 200, body: { importedAs: 'Dove, Enhanced matt' } });
  expect(await importOne(open, {})).toMatchObject({ status: 400, body: { field: 'conditionId' } });
});

it('the action names its file: one meant for the last row files nothing', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  const [a, b] = [await bring('a.txt', file('Dove')), await bring('b.txt', file('Heron'))];
  expect(await importOne({ ...b, name: a.name }, { conditionId: dove })).toMatchObject({
    status: 409,
    body: { field: 'name' },
  });
  expect((await importOne(a, { conditionId: dove })).status).toBe(200);
  expect(await importOne(a, { conditionId: dove })).toMatchObject({ status: 409 });
  expect((await list()).map((f) => [f.name, f.importedAs])).toEqual([
    ['a.txt', 'Dove, Coated'],
    ['b.txt', undefined],
  ]);
});

it('readings that look like another print are held back with the figure; a paper that was added for them does not stay', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  await rakuen.upload(`/api/conditions/${dove}/readings`, 'first.txt', file('Dove'));
  const wrong = await bring('wrong.txt', file('Dove', 'M1', {}, 12));
  const printed = { printer: 'P', inkSet: 'I', blackInk: 'matt black', mediaSetting: 'Matt', resolution: '' };
  const paper = { maker: 'Vellacre', name: 'Heron', brightenerClaim: 'not stated', sizes: [], currency: 'EUR' };
  const refused = await importOne(wrong, { paper, printed });
  expect(refused).toMatchObject({ status: 409, body: { field: 'keep' } });
  expect(refused.body.message).toMatch(/looks like Dove/);
  const papers = async () => (await rakuen.call<{ name: string }[]>('GET', '/api/papers')).body.map((p) => p.name);
  expect(await papers()).toEqual(['Dove']);
  expect((await importOne(wrong, { paper, printed, keep: 'apart' })).status).toBe(200);
  expect(await papers()).toEqual(['Dove', 'Heron']);
});

it('a file put away comes back from the bin', async () => {
  const a = await bring('a.txt', file('Dove'));
  expect((await rakuen.call('DELETE', `/api/inbox/${a.id}`)).status).toBe(204);
  expect(await list()).toEqual([]);
  const [thrown] = (await rakuen.call<{ change: string; noun: string }[]>('GET', '/api/bin')).body;
  expect(thrown.noun).toBe('file in the inbox');
  await rakuen.call('POST', `/api/events/${thrown.change}/undo`);
  expect(await list()).toMatchObject([{ name: 'a.txt', what: 'readings, 120 patches, M1' }]);
});

it('a print that lies near another, and not as near as one read twice, is asked about unless its file names it', async () => {
  const dove = await condition(rakuen, 'Dove', 'matt');
  await rakuen.upload(`/api/conditions/${dove}/readings`, 'first.txt', file('Dove'));
  // Each band 3.5 % up: some 0.7 ΔE00, where one print read twice lies within 0.5.
  const near = await bring('scan7.txt', file('Dove', 'M1', {}, 31, 1.035));
  expect(near).toMatchObject({ certain: false, belongs: { conditionId: dove } });
  expect(near.belongs!.why).toMatch(/looks like it: 0\.[6-9] ΔE00/);
  expect(near.unclear).toEqual(['It is near Dove, and not as near as one print read twice: say whether it is that.']);
  expect(await bring('Dove second pass.txt', file('Dove', 'M1', {}, 32, 1.035))).toMatchObject({ certain: true });
});
