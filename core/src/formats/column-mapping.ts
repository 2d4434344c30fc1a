import { noColour, recogniseColumns, wavelengthIn, type ColumnMap } from './cgats-columns.ts';
import { FormatError } from './format-error.ts';
import type { DataTable } from './reading-from-table.ts';

/** What a column of a table may hold. */
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

/** What device values may run to. */
export const DEVICE_SCALES = [1, 100, 255, 65_535] as const;
export type DeviceScale = (typeof DEVICE_SCALES)[number];

/** A table whose columns may have been given no names. */
export interface NamedTable extends DataTable {
  readonly headed: boolean;
}

/** Which column holds what, and the wavelengths of spectral columns whose names give none. */
export interface ColumnMapping {
  readonly roles: readonly ColumnRole[];
  readonly startNm?: number;
  readonly stepNm?: number;
  /** What full light, or full ink, is written as; told from the values where absent. */
  readonly deviceScale?: DeviceScale;
}

/** The mapping the names of the columns suggest; whatever is not understood is left out. */
export function suggestMapping(table: NamedTable): ColumnMapping {
  const roles = table.columns.map((): ColumnRole => '');
  if (!table.headed) return { roles };
  let map: Partial<ColumnMap> = {};
  try {
    map = recogniseColumns(table.columns);
  } catch {
    // A group without one of its columns: the hand will see which.
    table.columns.forEach((name, i) => wavelengthIn(name) !== undefined && (roles[i] = 'nm'));
  }
  if (map.id !== undefined) roles[map.id] = 'id';
  else if (/name|patch|sample|id|field/i.test(table.columns[0]!)) roles[0] = 'id';
  for (const group of ['rgb', 'cmyk', 'lab', 'xyz'] as const)
    map[group]?.forEach((column, i) => (roles[column] = `${group}.${i}` as ColumnRole));
  map.spectrum?.forEach(({ column }) => (roles[column] = 'nm'));
  return { roles };
}

/** A spectrum as one block of columns that lie side by side. */
export interface SpectralBlock {
  /** First and last column, from 0. */
  readonly from: number;
  readonly to: number;
  readonly startNm: number;
  readonly stepNm: number;
}

/** The block that a mapping takes for the spectrum; undefined where it has none, or columns in between hold something else. */
export function spectralBlock(
  { roles, startNm, stepNm }: ColumnMapping,
  columns: readonly string[],
): SpectralBlock | undefined {
  const at = roles.flatMap((role, i) => (role === 'nm' ? [i] : []));
  const [from, to] = [at[0], at[at.length - 1]];
  if (from === undefined || to === undefined || to - from + 1 !== at.length || at.length < 2) return undefined;
  const [first, second] = [wavelengthIn(columns[from]!), wavelengthIn(columns[from + 1]!)];
  const start = startNm ?? first;
  const step = stepNm ?? (first !== undefined && second !== undefined ? second - first : undefined);
  return start === undefined || step === undefined ? undefined : { from, to, startNm: start, stepNm: step };
}

/** A mapping whose spectrum is this block and nothing else; columns that were spectral before are left out. */
export function withSpectralBlock(mapping: ColumnMapping, block: SpectralBlock | undefined): ColumnMapping {
  const within = (i: number) => block !== undefined && i >= block.from && i <= block.to;
  return {
    ...mapping,
    roles: mapping.roles.map((role, i): ColumnRole => (within(i) ? 'nm' : role === 'nm' ? '' : role)),
    startNm: block?.startNm,
    stepNm: block?.stepNm,
  };
}

/** Columns by role. @throws FormatError when a role is given twice, a group is incomplete, or there is no colour */
export function mappedColumns(table: NamedTable, mapping: ColumnMapping): ColumnMap {
  const { roles, startNm, stepNm } = mapping;
  const line = table.rowLines[0]! - 1 || 1;
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
  const named = spectral.map((column) => wavelengthIn(table.columns[column]!));
  const spectrum = spectral.map((column, i) => {
    // What a hand says of the block counts more than the names.
    const nm = startNm !== undefined && stepNm !== undefined ? startNm + i * stepNm : named[i];
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
      field: table.columns[spectral[0]!],
      remedy: 'Map the other wavelengths too, or leave it out.',
    });
  if (!map.lab && !map.xyz && spectrum.length === 0) throw noColour(line);
  return map;
}
