import Papa from 'papaparse';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { csvOf } from '@rakuen/core/formats/csv-table';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import fc from 'fast-check';
import { SHEETS } from '../../core/test/sheets.ts';
import { blocks } from './files.ts';
import { CONDITION, PAPER, picture, start, type Running } from './rakuen.ts';

const parsed = (text: string): string[][] => Papa.parse<string[]>(text.trimEnd(), { delimiter: ',' }).data;
/** What a spreadsheet would run: a text that begins as a formula does, after whatever blanks. */
const runs = (cell: string) => /^\s*[=+\-@|\t\r\uff1d\uff0b\uff0d\uff20]/.test(cell) && Number.isNaN(Number(cell));

describe('a table as CSV', () => {
  it('no text a spreadsheet would run is left as it is, and none is lost; numbers stay numbers (fast-check)', () => {
    const start = fc.constantFrom(...'=+-@|\t\r ＝＋－＠a1"\''.split(''));
    const text = fc.tuple(start, fc.string()).map(([first, rest]) => first + rest);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(text, fc.double({ noNaN: true, noDefaultInfinity: true })), { minLength: 1 }),
        (rows) => {
          const back = Papa.parse<string[]>(csvOf(rows), { delimiter: ',' }).data.slice(0, rows.length);
          rows.forEach(([words, value], i) => {
            expect(runs(back[i][0])).toBe(false);
            expect([words, `'${words}`]).toContain(back[i][0]);
            expect(Number(back[i][1])).toBe(Number(String(value)));
          });
        },
      ),
    );
  });
});

describe('every table that is taken away', () => {
  let rakuen: Running;
  let ids: string[];
  let readingId: string;
  const NAMES = {
    paper: '=HYPERLINK("http://x";"y")',
    title: '+1+1',
    reason: '@SUM(A1)',
    setting: '-2+3',
    notes: '|calc',
  };

  beforeAll(async () => {
    rakuen = await start();
    const post = async (path: string, body: object) => {
      const answer = await rakuen.call<{ id: string; readings: { id: string }[] }>('POST', `/api/${path}`, body);
      expect([path, answer.status < 300]).toEqual([path, true]);
      return answer.body;
    };
    ids = [];
    for (const name of [NAMES.paper, `${NAMES.paper} II`]) {
      const paper = await post('papers', { ...PAPER, name, notes: NAMES.notes });
      const { id } = await post('conditions', { ...CONDITION, paperId: paper.id, mediaSetting: NAMES.setting });
      const chart = surfaceChart(3, 9, 1).map((p, i) => ({ ...p, id: i === 0 ? '=A1' : p.id }));
      const set = writeCgats(readChart(SHEETS.cotton, chart, 'M1', 1));
      const kept = await rakuen.upload<{ readings: { id: string }[] }>(
        `/api/conditions/${id}/readings`,
        'set.txt',
        set,
      );
      expect(kept.status).toBe(201);
      readingId = kept.body.readings[0].id;
      ids.push(id);
    }
    const pictureId = (
      await picture(
        rakuen,
        'p.tif',
        await blocks([
          [0.4, 0.4, 0.4],
          [0.2, 0.2, 0.2],
        ]),
        { title: NAMES.title },
      )
    ).job.pictureId!;
    await post('decisions', { pictureId, conditionId: ids[0], stamp: 'refused', reason: NAMES.reason });
  }, 240_000);
  afterAll(() => rakuen.stop());

  const table = async (path: string) => {
    const answer = await fetch(`${rakuen.url}/api/${path}`);
    expect([path, answer.status]).toEqual([path, 200]);
    expect(answer.headers.get('content-type')).toContain('text/csv');
    return parsed(await answer.text());
  };

  it.each([
    ['the ledger', (): string => 'ledger.csv', ['title', 'paper', 'reason']],
    ['the comparison', (): string => `comparison?as=csv&ids=${ids.join()}`, ['paper']],
    ['the readings', (): string => `readings/${readingId}/file?as=csv`, []],
  ] as const)('%s: holds what was written, and nothing a spreadsheet would run', async (_, path, holds) => {
    const rows = await table(path());
    expect(rows.length).toBeGreaterThan(1);
    const cells = rows.flat();
    expect(cells.filter(runs)).toEqual([]);
    for (const key of holds) expect(cells.some((cell) => cell.includes(NAMES[key]))).toBe(true);
    // A table whose rows are of one length is one a spreadsheet reads.
    expect(new Set(rows.map((r) => r.length)).size).toBe(1);
  });
});
