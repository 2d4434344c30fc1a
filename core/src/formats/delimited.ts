import Papa from 'papaparse';
import { decodeLines, type TextEncodingName } from './decode-text.ts';
import { mapColumns, noColour, wavelengthIn, type ColumnMap } from './cgats-columns.ts';
import { FormatError } from './format-error.ts';
import type { ImportedReading } from './imported-reading.ts';
import { readingFromTable, type DataTable } from './reading-from-table.ts';

/** What a column of a spreadsheet may hold. */
export const COLUMN_ROLES = {
  '': 'leave out',
  id: 'name of the patch',
  'rgb.0': 'device red',
  'rgb.1': 'device green',
  'rgb.2': 'device blue',
  'cmyk.0': 'device cyan',
  'cmyk.1': 'device magenta',
  'cmyk.2': 'device yellow',
  'cmyk.3': 'device black',
  'lab.0': 'L*',
  'lab.1': 'a*',
  'lab.2': 'b*',
  'xyz.0': 'X',
  'xyz.1': 'Y',
  'xyz.2': 'Z',
  nm: 'reflectance at a wavelength',
} as const;
export type ColumnRole = keyof typeof COLUMN_ROLES;

/** Which column holds what, and the wavelengths of spectral columns whose names give none. */
export interface ColumnMapping {
  readonly roles: readonly ColumnRole[];
  readonly startNm?: number;
  readonly stepNm?: number;
}

export interface Delimited extends DataTable {
  readonly delimiter: 'tab' | 'semicolon' | 'comma';
  readonly encoding: TextEncodingName;
  /** The first line names the columns. */
  readonly headed: boolean;
}

const SIGNS = { tab: '\t', semicolon: ';', comma: ',' } as const;
const MAX_COLUMNS = 2000;
const FEWEST_COLUMNS = 3;

/** Does the beginning of a file look like CSV or TSV: rows that fall into equally many parts? */
export function looksDelimited(bytes: Uint8Array): boolean {
  const text = new TextDecoder('windows-1252').decode(bytes.subarray(0, 4096));
  const lines = text.split(/\r\n|\r|\n/).filter((l) => l.trim() !== '');
  if (lines.length < 2 || /^(CGATS|ISO ?28178|IT8)/i.test(lines[0]) || /^BEGIN_DATA/m.test(text)) return false;
  const delimiter = delimiterOf(lines[0]);
  return delimiter !== undefined && partsOf(lines[1], delimiter) === partsOf(lines[0], delimiter);
}

const partsOf = (line: string, delimiter: keyof typeof SIGNS) =>
  (Papa.parse<string[]>(line, { delimiter: SIGNS[delimiter] }).data[0] ?? []).length;

function delimiterOf(line: string): keyof typeof SIGNS | undefined {
  return (['tab', 'semicolon', 'comma'] as const).find((d) => line.split(SIGNS[d]).length >= FEWEST_COLUMNS);
}

/**
 * Reads CSV (RFC 4180) or TSV: comma, semicolon or tab, quoted cells, decimal commas where the comma is not the delimiter.
 * @throws FormatError naming the line
 */
export function parseDelimited(bytes: Uint8Array): Delimited {
  const { lines, encoding } = decodeLines(bytes);
  const first = lines.findIndex((l) => l.trim() !== '');
  const delimiter = first < 0 ? undefined : delimiterOf(lines[first]);
  if (!delimiter)
    throw new FormatError({
      message: 'The first line does not fall into columns.',
      line: Math.max(0, first) + 1,
      remedy: 'Save the sheet as CSV or as text with tabs.',
    });
  const { data, errors } = Papa.parse<string[]>(lines.slice(first).join('\n'), {
    delimiter: SIGNS[delimiter],
    skipEmptyLines: false,
  });
  const quote = errors.find((e) => e.type === 'Quotes');
  if (quote)
    throw new FormatError({
      message: 'A quotation mark is opened and not closed.',
      line: first + 1 + (quote.row ?? 0),
      remedy: 'Save the sheet as CSV again.',
    });
  const cells = data.map((row) => row.map(plainCell));
  const headed = namesColumns(cells);
  const columns = headed ? cells[0].map((c, i) => c || `column ${i + 1}`) : cells[0].map((_, i) => `column ${i + 1}`);
  if (columns.length > MAX_COLUMNS)
    throw new FormatError({
      message: `The file has ${columns.length} columns; ${MAX_COLUMNS} is the most.`,
      line: first + 1,
      remedy: 'Export fewer columns.',
    });
  const rows: string[][] = [];
  const rowLines: number[] = [];
  cells.forEach((row, i) => {
    if ((headed && i === 0) || row.every((c) => c === '')) return;
    if (row.length !== columns.length) {
      throw new FormatError({
        message: `The row has ${row.length} cells; the first has ${columns.length}.`,
        line: first + 1 + i,
        field: columns[Math.min(row.length, columns.length - 1)],
        remedy: 'Look for a cell that holds the delimiter without quotes.',
      });
    }
    rows.push(row);
    rowLines.push(first + 1 + i);
  });
  if (rows.length === 0)
    throw new FormatError({
      message: 'There is no row below the column names.',
      line: first + 1,
      remedy: 'Export the readings again.',
    });
  return { columns, rows, rowLines, delimiter, encoding, headed };
}

/**
 * Whether the first row names the columns. One word before nothing but numbers, as in the rows below it, is a patch’s own name: then the sheet
 * has no names, and what its columns hold is asked.
 */
function namesColumns(cells: readonly (readonly string[])[]): boolean {
  const words = (row: readonly string[]) => row.flatMap((c, i) => (c !== '' && !isNumber(c) ? [i] : []));
  const first = words(cells[0]);
  if (first.length !== 1) return first.length > 0;
  const below = cells.slice(1).filter((row) => row.some((c) => c !== ''));
  return !(below.length > 0 && below.every((row) => words(row).join() === first.join()));
}

const isNumber = (text: string) => /^[-+]?(\d+([.,]\d*)?|[.,]\d+)(e[-+]?\d+)?$/i.test(text);
/** Spaces about a cell go, and the apostrophe a spreadsheet puts before text that looks like a formula. */
const plainCell = (text: string) => text.trim().replace(/^'(?=\s*[=+\-@|\t\uff1d\uff0b\uff0d\uff20])/, '');

/** The mapping the names of the columns suggest; whatever is not understood is left out. */
export function suggestMapping(table: Delimited): ColumnMapping {
  const roles = table.columns.map((): ColumnRole => '');
  if (!table.headed) return { roles };
  let map: Partial<ColumnMap> = {};
  try {
    map = mapColumns(table.columns);
  } catch {
    // A group without one of its columns: the hand will see which.
    table.columns.forEach((name, i) => wavelengthIn(name) !== undefined && (roles[i] = 'nm'));
  }
  if (map.id !== undefined) roles[map.id] = 'id';
  else if (/name|patch|sample|id|field/i.test(table.columns[0])) roles[0] = 'id';
  for (const group of ['rgb', 'cmyk', 'lab', 'xyz'] as const)
    map[group]?.forEach((column, i) => (roles[column] = `${group}.${i}` as ColumnRole));
  map.spectrum?.forEach(({ column }) => (roles[column] = 'nm'));
  return { roles };
}

/** Columns by role. @throws FormatError when a role is given twice, a group is incomplete, or there is no colour */
function columnsOf(table: Delimited, mapping: ColumnMapping): ColumnMap {
  const { roles, startNm, stepNm } = mapping;
  const line = table.rowLines[0] - 1 || 1;
  if (roles.length !== table.columns.length)
    throw new FormatError({
      message: `The mapping knows ${roles.length} columns; the file has ${table.columns.length}.`,
      line,
      remedy: 'Say again which column holds what.',
    });
  const at = (role: ColumnRole): number | undefined => {
    const places = roles.flatMap((r, i) => (r === role ? [i] : []));
    if (places.length > 1)
      throw new FormatError({
        message: `Two columns are said to hold ${COLUMN_ROLES[role]}.`,
        line,
        field: places.map((p) => table.columns[p]).join(', '),
        remedy: 'Leave one of them out.',
      });
    return places[0];
  };
  const group = (name: 'rgb' | 'cmyk' | 'lab' | 'xyz'): number[] | undefined => {
    const parts = (Object.keys(COLUMN_ROLES) as ColumnRole[]).filter((r) => r.startsWith(`${name}.`));
    const found = parts.map(at);
    if (found.every((f) => f === undefined)) return undefined;
    const lacking = parts.filter((_, i) => found[i] === undefined);
    if (lacking.length > 0)
      throw new FormatError({
        message: `${lacking.map((r) => COLUMN_ROLES[r]).join(' and ')} ${lacking.length === 1 ? 'is' : 'are'} not among the columns.`,
        line,
        field: lacking.map((r) => COLUMN_ROLES[r]).join(', '),
        remedy: 'Say which column holds it, or leave the others of its group out.',
      });
    return found as number[];
  };
  const spectral = roles.flatMap((r, column) => (r === 'nm' ? [column] : []));
  const named = spectral.map((column) => wavelengthIn(table.columns[column]));
  const spectrum = spectral.map((column, i) => {
    const nm = named.every((n) => n !== undefined)
      ? named[i]
      : startNm !== undefined && stepNm !== undefined
        ? startNm + i * stepNm
        : undefined;
    if (nm === undefined)
      throw new FormatError({
        message: 'The spectral columns are not named by their wavelength.',
        line,
        field: table.columns[column],
        remedy: 'State the first wavelength and the step.',
      });
    return { column, nm };
  });
  const map: ColumnMap = {
    id: at('id'),
    rgb: group('rgb'),
    cmyk: group('cmyk'),
    lab: group('lab'),
    xyz: group('xyz'),
    spectrum: spectrum.sort((p, q) => p.nm - q.nm),
  };
  if (spectrum.length === 1)
    throw new FormatError({
      message: 'One wavelength is no spectrum.',
      line,
      field: table.columns[spectral[0]],
      remedy: 'Map the other wavelengths too, or leave it out.',
    });
  if (!map.lab && !map.xyz && spectrum.length === 0) throw noColour(line);
  return map;
}

/** A reading from CSV or TSV, by a mapping of its columns; the suggested one where none is given. @throws FormatError */
export function readingFromDelimited(bytes: Uint8Array, mapping?: ColumnMapping): ImportedReading {
  const table = parseDelimited(bytes);
  const map = columnsOf(table, mapping ?? suggestMapping(table));
  return readingFromTable(table, map, {
    recognised: [`${table.delimiter === 'tab' ? 'TSV' : 'CSV'}, ${table.encoding}, ${table.delimiter} between columns`],
    header: {},
  });
}
