import { FormatError } from './format-error.ts';
import type { DataTable } from './reading-from-table.ts';

const NM = /^SPECTRAL_NM$/i;
const VALUE = /^SPECTRAL_(DEC|PCT)$/i;

/**
 * Some writers name every spectral column alike and put the wavelength beside each value: SPECTRAL_NM SPECTRAL_DEC
 * SPECTRAL_NM SPECTRAL_DEC … Such a table is given back with one column a wavelength; any other as it is.
 * @throws FormatError where a row has other wavelengths than the first
 */
export function withoutPairs<T extends DataTable>(table: T): T {
  const pairs = table.columns.flatMap((name, i) =>
    NM.test(name) && VALUE.test(table.columns[i + 1] ?? '') ? [{ nm: i, value: i + 1 }] : [],
  );
  if (pairs.length < 2) return table;
  const first = table.rows[0]!;
  table.rows.forEach((row, r) => {
    const odd = pairs.find(({ nm }) => Number(row[nm]) !== Number(first[nm]));
    if (odd)
      throw new FormatError({
        message: `The row gives ${row[odd.nm]} nm where the first row has ${first[odd.nm]} nm.`,
        line: table.rowLines[r],
        field: table.columns[odd.nm],
        remedy: 'All patches must be read at the same wavelengths.',
      });
  });
  const names = new Map(pairs.map(({ nm, value }) => [value, `SPECTRAL_NM_${Number(first[nm])}`]));
  const dropped = new Set(pairs.map(({ nm }) => nm));
  const kept = table.columns.map((_, i) => i).filter((i) => !dropped.has(i));
  return {
    ...table,
    columns: kept.map((i) => names.get(i) ?? table.columns[i]),
    rows: table.rows.map((row) => kept.map((i) => row[i])),
  };
}
