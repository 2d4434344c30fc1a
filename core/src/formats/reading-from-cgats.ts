import { mapColumns } from './cgats-columns.ts';
import { mappedColumns, type ColumnMapping, type NamedTable } from './column-mapping.ts';
import { readHeader } from './cgats-header.ts';
import { parseCgats, type CgatsTable } from './cgats.ts';
import type { ImportedReading } from './imported-reading.ts';
import { readingFromTable } from './reading-from-table.ts';
import { withoutPairs } from './spectral-pairs.ts';

/**
 * Readings of a CGATS text file (ISO 28178 / CGATS.17): one a measurement condition. Tables of one condition and the same columns are one
 * chart that was split; a table without a header of its own is told by that of the first.
 * @param mapping what the columns hold, where their names don't tell
 * @throws FormatError with line and column
 */
export function readingsFromCgats(bytes: Uint8Array, mapping?: ColumnMapping): ImportedReading[] {
  const { tables, encoding } = parseCgats(bytes);
  const first = tables[0]!;
  const told = tables.map((table) => {
    const keywords = new Map([...first.keywords, ...table.keywords]);
    return { table: withoutPairs({ ...table, keywords }), header: readHeader(keywords) };
  });
  const groups = new Map<string, typeof told>();
  for (const one of told) {
    const key = `${one.header.condition ?? ''}|${one.table.columns.join()}`;
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  // Of tables in one condition with other columns (colour in one, spectra in the next) the one with most to tell is read.
  const best = new Map<string, typeof told>();
  for (const group of groups.values()) {
    const key = group[0]!.header.condition ?? '';
    const known = best.get(key);
    if (!known || group[0]!.table.columns.length > known[0]!.table.columns.length) best.set(key, group);
  }
  return [...best.values()].map((group) => {
    const { table, header } = group[0]!;
    const whole = joined(group.map((g) => g.table));
    const map = mapping
      ? mappedColumns({ ...table, headed: true }, mapping)
      : mapColumns(table.columns, table.rowLines[0]! - 1);
    const recognised = [`${table.identifier}, ${encoding}`];
    if (group.length > 1) recognised.push(`a chart in ${group.length} tables`);
    const imported = readingFromTable(whole, map, {
      recognised,
      header,
      deviceScale: mapping?.deviceScale ?? scaleStated(table.keywords),
    });
    return { ...imported, keywords: Object.fromEntries(table.keywords) };
  });
}

/** The table whose columns a hand is asked about: the first. @throws FormatError when the file is no CGATS */
export function cgatsTable(bytes: Uint8Array): NamedTable {
  const first = parseCgats(bytes).tables[0]!;
  return { ...withoutPairs(first), headed: true };
}

/** The first of them: most files hold one. @throws FormatError */
export const readingFromCgats = (bytes: Uint8Array): ImportedReading => readingsFromCgats(bytes)[0]!;

const joined = (tables: readonly CgatsTable[]): CgatsTable => ({
  ...tables[0]!,
  rows: tables.flatMap((t) => t.rows),
  rowLines: tables.flatMap((t) => t.rowLines),
});

/** DEVICE_SCALE in the header says what full ink, or full light, is written as. */
function scaleStated(keywords: ReadonlyMap<string, string>): number | undefined {
  const stated = Number(keywords.get('DEVICE_SCALE'));
  return stated > 0 ? stated : undefined;
}
