import Papa from 'papaparse';

export type CsvCell = string | number | boolean;

/**
 * A spreadsheet takes a text for a formula that begins with one of these, full-width signs and the pipe of old data links included; an
 * apostrophe before it keeps it text.
 */
const FORMULA = /^[=+\-@|\t\r\n\uff1d\uff0b\uff0d\uff20]/;

export const inert = (cell: CsvCell): string => {
  if (typeof cell !== 'string') return String(cell);
  const text = cell.trimStart();
  return FORMULA.test(cell) || FORMULA.test(text) ? `'${cell}` : cell;
};

/** Rows as CSV (RFC 4180): comma, CR LF, cells quoted where they need it; numbers as they are, and no text that a spreadsheet would run. */
export function csvOf(rows: readonly (readonly CsvCell[])[]): string {
  return `${Papa.unparse(
    rows.map((row) => row.map(inert)),
    { newline: '\r\n' },
  )}\r\n`;
}
