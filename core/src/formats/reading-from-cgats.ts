import { mapColumns } from './cgats-columns.ts';
import { readHeader } from './cgats-header.ts';
import { parseCgats } from './cgats.ts';
import type { ImportedReading } from './imported-reading.ts';
import { readingFromTable } from './reading-from-table.ts';

/**
 * A reading from a CGATS text file (ISO 28178 / CGATS.17). Of several tables the one with most patches is read.
 * @throws FormatError with line and column
 */
export function readingFromCgats(bytes: Uint8Array): ImportedReading {
  const file = parseCgats(bytes);
  const table = file.tables.reduce((most, t) => (t.rows.length > most.rows.length ? t : most));
  const map = mapColumns(table.columns, table.rowLines[0] - 1);
  const recognised = [`${table.identifier}, ${file.encoding}`];
  if (file.tables.length > 1) recognised.push(`the largest of ${file.tables.length} tables`);
  return readingFromTable(table, map, { recognised, header: readHeader(table.keywords) });
}
