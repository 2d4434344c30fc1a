import { wavelengthIn } from './cgats-columns.ts';
import Papa from 'papaparse';
import { decodeLines, type TextEncodingName } from './decode-text.ts';
import { mappedColumns, suggestMapping, type ColumnMapping, type NamedTable } from './column-mapping.ts';
import { readHeader, type HeaderFacts } from './cgats-header.ts';
import { FormatError } from './format-error.ts';
import type { ImportedReading } from './imported-reading.ts';
import { readingFromTable } from './reading-from-table.ts';

export interface Delimited extends NamedTable {
  readonly delimiter: 'tab' | 'semicolon' | 'comma';
  readonly encoding: TextEncodingName;
}

const SIGNS = { tab: '\t', semicolon: ';', comma: ',' } as const;
const MAX_COLUMNS = 2000;
const FEWEST_COLUMNS = 3;

/** Does the beginning of a file look like CSV or TSV: rows that fall into equally many parts? */
export function looksDelimited(bytes: Uint8Array): boolean {
  const text = new TextDecoder('windows-1252').decode(bytes.subarray(0, 4096));
  const lines = text.split(/\r\n|\r|\n/).filter((l) => l.trim() !== '');
  if (lines.length < 2 || /^(CGATS|ISO ?28178|IT8)/i.test(lines[0]!) || /^BEGIN_DATA/m.test(text)) return false;
  const delimiter = delimiterOf(lines[0]!);
  return delimiter !== undefined && partsOf(lines[1]!, delimiter) === partsOf(lines[0]!, delimiter);
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
  const delimiter = first < 0 ? undefined : delimiterOf(lines[first]!);
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
  const columns = headed ? cells[0]!.map((c, i) => c || `column ${i + 1}`) : cells[0]!.map((_, i) => `column ${i + 1}`);
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

const MIN_WAVELENGTHS = 8;
/** Whether most of a row are wavelengths that climb by one step. */
function namesWavelengths(row: readonly string[]): boolean {
  const nms = row.flatMap((c) => wavelengthIn(c) ?? []);
  const step = (nms[1] ?? 0) - (nms[0] ?? 0);
  return nms.length >= MIN_WAVELENGTHS && step > 0 && nms.every((nm, i) => i === 0 || nm - nms[i - 1]! === step);
}

/**
 * Whether the first row names the columns. One word before nothing but numbers, as in the rows below it, is a patch’s
 * own name: then the sheet has no names, and what its columns hold is asked.
 */
function namesColumns(cells: readonly (readonly string[])[]): boolean {
  const words = (row: readonly string[]) => row.flatMap((c, i) => (c !== '' && !isNumber(c) ? [i] : []));
  // Wavelengths are numbers too: a row of them that climbs by one step names columns.
  if (namesWavelengths(cells[0]!)) return true;
  const first = words(cells[0]!);
  if (first.length !== 1) return first.length > 0;
  const below = cells.slice(1).filter((row) => row.some((c) => c !== ''));
  return !(below.length > 0 && below.every((row) => words(row).join() === first.join()));
}

const isNumber = (text: string) => /^[-+]?(\d+([.,]\d*)?|[.,]\d+)(e[-+]?\d+)?$/i.test(text);
/** Spaces about a cell go, and the apostrophe a spreadsheet puts before text that looks like a formula. */
const plainCell = (text: string) => text.trim().replace(/^'(?=\s*[=+\-@|\t\uff1d\uff0b\uff0d\uff20])/, '');

/** Columns that say how all rows were measured: the same word in each. */
const HEADER_COLUMNS = ['MEASUREMENT_CONDITION', 'INSTRUMENTATION', 'INSTRUMENT', 'CREATED', 'SAMPLE_BACKING'];

/** What a table says of the measurement, by the names that a CGATS header gives it; a column that changes says nothing. */
function headerOf({ columns, rows }: Delimited): HeaderFacts {
  const keywords = new Map<string, string>();
  columns.forEach((name, i) => {
    const key = name.trim().toUpperCase().replace(/\s+/g, '_');
    const value = rows[0]?.[i];
    if (HEADER_COLUMNS.includes(key) && value && rows.every((row) => row[i] === value)) keywords.set(key, value);
  });
  return readHeader(keywords);
}

/** A reading from CSV or TSV, by a mapping of its columns; the suggested one where none is given. @throws FormatError */
export function readingFromDelimited(bytes: Uint8Array, mapping?: ColumnMapping): ImportedReading {
  const table = parseDelimited(bytes);
  const map = mappedColumns(table, mapping ?? suggestMapping(table));
  return readingFromTable(table, map, {
    recognised: [`${table.delimiter === 'tab' ? 'TSV' : 'CSV'}, ${table.encoding}, ${table.delimiter} between columns`],
    header: headerOf(table),
    deviceScale: mapping?.deviceScale,
  });
}
