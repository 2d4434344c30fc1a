import fc from 'fast-check';
import type { Reading } from '../measurement/reading.ts';
import { readChart } from '../simulation/instrument.ts';
import { surfaceChart } from '../simulation/chart.ts';
import { CLASS_SHEETS, RELIEFS } from '../simulation/stand-in.ts';
import { PIGMENT_INKS } from '../simulation/inks.ts';
import { writeCsv } from './csv-write.ts';
import { suggestMapping, type ColumnMapping } from './column-mapping.ts';
import { looksDelimited, parseDelimited, readingFromDelimited } from './delimited.ts';
import { FormatError } from './format-error.ts';
import { readingsFromFile } from './reading-formats.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const fault = (of: () => unknown): FormatError => {
  try {
    of();
  } catch (error) {
    if (error instanceof FormatError) return error;
    throw error;
  }
  throw new Error('no fault');
};
const sheet = { ...CLASS_SHEETS.baryta, brightener: 0, relief: RELIEFS.smooth, weightGsm: 300, thicknessUm: 400 };
const reading = readChart({ sheet, inks: PIGMENT_INKS, blackInk: 'photo', inkLoad: 1 }, surfaceChart(3, 7, 2), 'M1', 1);

describe('CSV and TSV', () => {
  it('what is written as CSV is read back identically', () => {
    const csv = writeCsv(reading);
    expect(looksDelimited(bytes(csv))).toBe(true);
    const back = readingsFromFile(bytes(csv))[0].reading;
    expect(back.deviceSpace).toBe('RGB');
    expect(back.spectralGrid).toEqual(reading.spectralGrid);
    expect(back.patches.map((p) => p.reflectance!.map((r) => r.toFixed(6)))).toEqual(
      reading.patches.map((p) => p.reflectance!.map((r) => r.toFixed(6))),
    );
    // L*a*b* and XYZ follow from the spectra as they are written; from then on nothing moves.
    expect(writeCsv(readingsFromFile(bytes(writeCsv(back)))[0].reading)).toBe(writeCsv(back));
  });

  it('any names, commas and quotes among them, come back (fast-check)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc
            .string({ minLength: 1, maxLength: 12 })
            .filter((s) => s.trim() === s && !/\p{Cc}/u.test(s) && !s.startsWith("'")),
          { minLength: 1, maxLength: 5 },
        ),
        (names) => {
          const named: Reading = { ...reading, patches: names.map((id, i) => ({ ...reading.patches[i], id })) };
          expect(readingFromDelimited(bytes(writeCsv(named))).reading.patches.map((p) => p.id)).toEqual(names);
        },
      ),
    );
  });

  it.each([
    ['semicolons and decimal commas', 'name;L*;a*;b*\r\nP1;95,2;0,1;-2,4\r\nP2;10,5;0;0\r\n', 'semicolon'],
    ['tabs', 'name\tL*\ta*\tb*\nP1\t95.2\t0.1\t-2.4\nP2\t10.5\t0\t0\n', 'tab'],
    ['commas and quotes, old Macintosh line ends', 'name,L*,a*,b*\r"P1",95.2,0.1,-2.4\rP2,10.5,0,0\r', 'comma'],
  ])('%s', (_, text, delimiter) => {
    expect(parseDelimited(bytes(text)).delimiter).toBe(delimiter);
    expect(readingsFromFile(bytes(text))[0].reading.patches.map((p) => p.lab)).toEqual([
      [95.2, 0.1, -2.4],
      [10.5, 0, 0],
    ]);
  });

  it('columns named otherwise are mapped by hand', () => {
    const text = 'feld;hell;rot-grün;gelb-blau;bemerkung\n1;95,2;0,1;-2,4;x\n2;10;0;0;y\n';
    expect(suggestMapping(parseDelimited(bytes(text))).roles).not.toContain('lab.0');
    expect(fault(() => readingFromDelimited(bytes(text))).message).toMatch(/no colour/);
    const mapping: ColumnMapping = { roles: ['id', 'lab.0', 'lab.1', 'lab.2', ''] };
    expect(readingFromDelimited(bytes(text), mapping).reading.patches[0]).toMatchObject({
      id: '1',
      lab: [95.2, 0.1, -2.4],
    });
  });

  it('spectra without wavelengths in their names take a start and a step', () => {
    const values = Array.from({ length: 36 }, () => '0.5').join('\t');
    const text = `${values}\n${values}\n`;
    const roles = Array.from({ length: 36 }, () => 'nm' as const);
    expect(parseDelimited(bytes(text)).headed).toBe(false);
    expect(fault(() => readingFromDelimited(bytes(text), { roles })).remedy).toMatch(/first wavelength and the step/);
    const { reading: read } = readingFromDelimited(bytes(text), { roles, startNm: 380, stepNm: 10 });
    expect(read.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
    expect(read.patches[0].lab[0]).toBeCloseTo(76.07, 1);
    expect(Math.abs(read.patches[0].lab[1])).toBeLessThan(1e-6);
  });

  it.each<[string, string, ColumnMapping | undefined, RegExp]>([
    ['a cell too many', 'name,L*,a*,b*\nP1,1,2,3,4\n', undefined, /5 cells/],
    ['an open quote', 'name,L*,a*,b*\n"P1,1,2,3\n', undefined, /not closed/],
    ['no rows', 'name,L*,a*,b*\n\n', undefined, /no row/],
    ['no columns', 'hello\nworld\n', undefined, /columns/],
    ['a word among the numbers', 'name,L*,a*,b*\nP1,white,2,3\n', undefined, /“white” is not a number/],
    ['a role twice', 'a,b,c,d\n1,2,3,4\n', { roles: ['lab.0', 'lab.0', 'lab.1', 'lab.2'] }, /Two columns/],
    ['half a group', 'a,b,c,d\n1,2,3,4\n', { roles: ['lab.0', 'lab.1', '', ''] }, /b\* is not among/],
    ['one wavelength', 'a,b,c,450\n1,2,3,0.4\n', { roles: ['lab.0', 'lab.1', 'lab.2', 'nm'] }, /One wavelength/],
    ['a mapping for another file', 'a,b,c,d\n1,2,3,4\n', { roles: ['lab.0'] }, /knows 1 columns/],
  ])('%s: says what, where and what to do', (_, text, mapping, message) => {
    const error = fault(() => readingFromDelimited(bytes(text), mapping));
    expect(error.message).toMatch(message);
    expect(error.remedy.length).toBeGreaterThan(10);
  });

  it('CGATS and CxF are not taken for it', () => {
    expect(
      looksDelimited(bytes('CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID\tLAB_L\tLAB_A\tLAB_B\nEND_DATA_FORMAT\n')),
    ).toBe(false);
    expect(looksDelimited(bytes('<cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core">\n</cc:CxF>\n'))).toBe(
      false,
    );
  });

  it('noise never breaks it (fast-check)', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        try {
          readingFromDelimited(bytes(text));
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
    );
  });

  it('a sheet without names keeps its first row when patches are named in it', () => {
    const table = parseDelimited(new TextEncoder().encode('A1,0.1,0.2,0.3\nA2,0.4,0.5,0.6\nA3,0.7,0.8,0.9\n'));
    expect(table.headed).toBe(false);
    expect(table.rows.map((row) => row[0])).toEqual(['A1', 'A2', 'A3']);
    expect(parseDelimited(new TextEncoder().encode('patch,1,2,3\n1,0.4,0.5,0.6\n')).headed).toBe(true);
  });
});
