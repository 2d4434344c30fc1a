import { FormatError } from './format-error.ts';

/** Where the values of interest stand in a table: column numbers from 0. */
export interface ColumnMap {
  readonly id?: number;
  readonly rgb?: readonly number[];
  readonly cmyk?: readonly number[];
  readonly lab?: readonly number[];
  readonly xyz?: readonly number[];
  /** Column and wavelength, ascending. */
  readonly spectrum: readonly { readonly column: number; readonly nm: number }[];
}

/** Spellings of a group of columns that must come together. */
const GROUPS = {
  rgb: [/^RGB_R$|^RED$|^R$/i, /^RGB_G$|^GREEN$|^G$/i, /^RGB_B$|^BLUE$|^B$/i],
  cmyk: [/^CMYK_C$|^CYAN$|^C$/i, /^CMYK_M$|^MAGENTA$|^M$/i, /^CMYK_Y$|^YELLOW$|^Y$/i, /^CMYK_K$|^BLACK$|^K$/i],
  lab: [/^LAB_L\*?$|^L\*?$/i, /^LAB_A\*?$|^A\*?$/i, /^LAB_B\*?$|^B\*$/i],
  xyz: [/^XYZ_X$/i, /^XYZ_Y$/i, /^XYZ_Z$/i],
} as const;

/** A wavelength as columns are headed: `380`, `380.0`, `380 nm`, `nm380`, `R380`, `λ380`, `SPECTRAL_NM_380`, `R(380 nm) [%]`. */
const SPECTRAL = new RegExp(
  [
    '^(?:SPECTRAL|SPECTRUM|SPEC|R|D|S|WL|LAMBDA|λ|REFL|REFLECTANCE|REMISSION|WAVELENGTH)?',
    '[\\s_.:=(\\[-]*(?:NM|DEC|PCT)?[\\s_.:=(\\[-]*',
    '(\\d{3,4})(?:[.,]0+)?',
    '[\\s_]*(?:NM)?[\\s_)\\]]*(?:[\\[(]?%[\\])]?)?$',
  ].join(''),
  'i',
);
const IDS = [/^SAMPLE_ID$/i, /^SAMPLE_NAME$/i, /^SAMPLE_LOC$/i, /^STRING$/i, /^PATCH$/i];

/**
 * Recognises columns by the names found in the wild.
 * @throws FormatError when no colour is among them or a group is incomplete
 */
export function mapColumns(columns: readonly string[], line?: number): ColumnMap {
  const map = recogniseColumns(columns, line);
  if (!map.lab && !map.xyz && map.spectrum.length === 0) throw noColour(line);
  return map;
}

export const noColour = (line?: number): FormatError =>
  new FormatError({
    message: 'There is no colour in this file: no L*a*b*, no XYZ and no spectrum among its columns.',
    line,
    field: 'LAB_L, LAB_A, LAB_B',
    remedy: 'Export the measured colour with the readings (L*a*b*, XYZ or the spectrum).',
    asks: 'columns',
  });

/** Wavelength a column's name gives, nm. */
export function wavelengthIn(name: string): number | undefined {
  const nm = Number(SPECTRAL.exec(name.trim())?.[1]);
  return nm >= 300 && nm <= 1100 ? nm : undefined;
}

/** The same, whether or not a colour is among them; a group that was begun must be whole. @throws FormatError */
export function recogniseColumns(columns: readonly string[], line?: number): ColumnMap {
  const find = (pattern: RegExp) => columns.findIndex((c) => pattern.test(c.trim()));
  const group = (name: keyof typeof GROUPS): number[] | undefined => {
    const found = GROUPS[name].map(find);
    const present = found.filter((i) => i >= 0).length;
    // Single letters mean several things (B is blue or b*), so only a prefixed name counts as half a group.
    const begun = found.some((i) => i >= 0 && columns[i]!.toUpperCase().startsWith(`${name.toUpperCase()}_`));
    if (present === found.length) return found;
    if (begun) {
      const missing = GROUPS[name].flatMap((p, i) =>
        found[i]! < 0 ? [p.source.split('|')[0]!.replace(/[\^$\\*?]/g, '')] : [],
      );
      throw new FormatError({
        message: `The ${name.toUpperCase()} columns are incomplete.`,
        line,
        field: missing.join(', '),
        remedy: 'Export all of them, or none.',
      });
    }
    return undefined;
  };
  const spectrum = columns
    .flatMap((name, column) => {
      const nm = wavelengthIn(name);
      return nm === undefined ? [] : [{ column, nm }];
    })
    .sort((p, q) => p.nm - q.nm);
  const id = IDS.map(find).find((i) => i >= 0);
  const lab = group('lab');
  return {
    id,
    rgb: group('rgb'),
    cmyk: group('cmyk'),
    lab,
    xyz: group('xyz'),
    spectrum: spectrum.length >= 8 ? spectrum : [],
  };
}
