import { deltaE2000 } from '../colour/difference.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab, Xyz } from '../colour/types.ts';
import type { DeviceSpace, PatchReading, SpectralGrid } from '../measurement/reading.ts';
import type { ColumnMap } from './cgats-columns.ts';
import type { HeaderFacts } from './cgats-header.ts';
import { FormatError } from './format-error.ts';
import type { ImportedReading } from './imported-reading.ts';

const MAX_PATCHES = 100_000;

/** Rows of text under named columns, as any text format gives them. */
export interface DataTable {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Line in the file of each row, from 1. */
  readonly rowLines: readonly number[];
}

/**
 * A reading from a table whose columns are known: RGB or CMYK device values with L*a*b*, XYZ or reflectance spectra. Where there is a
 * spectrum, the colour is computed from it (D50, 2°); else the table's L*a*b* and XYZ are taken as they stand.
 * @throws FormatError with line and column
 */
export function readingFromTable(
  table: DataTable,
  map: ColumnMap,
  from: { recognised: readonly string[]; header: HeaderFacts },
): ImportedReading {
  if (table.rows.length > MAX_PATCHES) {
    throw new FormatError({
      message: `The table holds ${table.rows.length} patches; ${MAX_PATCHES} is the most.`,
      line: table.rowLines[0],
      remedy: 'Split the file.',
    });
  }
  const recognised = [...from.recognised, `${table.rows.length} patches`];
  const missing: string[] = [];

  const numbers = numberReader(table);
  const space = deviceColumns(map);
  const device = space && readDevice(table, space.columns, numbers);
  if (space && device) recognised.push(`${space.name} device values, 0–${device.scale}`);
  else missing.push('Device values: white is taken as the lightest patch, black as the darkest; no neutral ramp.');

  const spectra = map.spectrum.length > 0 ? readSpectra(table, map, numbers) : undefined;
  if (spectra)
    recognised.push(
      `reflectance ${spectra.grid.startNm}–${spectra.grid.startNm + spectra.grid.stepNm * (spectra.grid.count - 1)} nm every ${spectra.grid.stepNm} nm, in ${spectra.inPercent ? 'percent' : 'parts of one'}`,
    );
  else missing.push('Spectra: colour can’t be computed for another light.');
  if (map.xyz) recognised.push('XYZ');
  if (map.lab) recognised.push('L*a*b*');

  const white = illuminantWhite();
  const labs = map.lab && table.rows.map((_, r) => map.lab!.map((c) => numbers.at(r, c)) as unknown as Lab);
  const xyzs = map.xyz && readXyz(table, map.xyz, numbers);
  const patches = table.rows.map((row, r): PatchReading => {
    const reflectance = spectra?.values[r];
    let lab: Lab;
    let xyz: Xyz;
    if (reflectance) {
      xyz = spectrumToXyz({ startNm: spectra.grid.startNm, stepNm: spectra.grid.stepNm, values: reflectance });
      lab = xyzToLab(xyz, white);
    } else {
      lab = labs?.[r] ?? xyzToLab(xyzs![r]);
      xyz = xyzs?.[r] ?? labToXyz(lab);
    }
    if (!(lab[0] > -2 && lab[0] < 130)) {
      throw new FormatError({
        message: `Patch ${row[map.id ?? 0]} has an L* of ${lab[0].toFixed(1)}; it should lie between 0 and 100.`,
        line: table.rowLines[r],
        field: 'LAB_L',
        remedy: 'Check the units of the export.',
      });
    }
    return { id: map.id === undefined ? String(r + 1) : row[map.id], device: device?.values[r], lab, xyz, reflectance };
  });
  if (spectra && labs) {
    const apart = labs.reduce((sum, lab, r) => sum + deltaE2000(lab, patches[r].lab), 0) / labs.length;
    if (apart > 0.5) {
      missing.push(
        `Agreement: the file’s own L*a*b* lies ${apart.toFixed(1)} ΔE00 from its spectra under D50, 2°; another light or observer was set. The spectra are used.`,
      );
    }
  }
  if (numbers.decimalCommas()) recognised.push('decimal commas');

  const { header } = from;
  if (!header.condition) missing.push('Measurement condition (M0, M1, M2): choose it below, or it stays unstated.');
  if (!header.instrument) missing.push('Instrument.');
  if (!header.backing) missing.push('Backing, white or black.');
  if (!header.createdAt) missing.push('Date of measurement.');

  return {
    reading: {
      patches,
      deviceSpace: space?.name,
      spectralGrid: spectra?.grid,
      colourFrom: spectra ? 'spectrum' : labs ? 'Lab' : 'XYZ',
      ...header,
    },
    recognised,
    missing,
    columns: table.columns,
  };
}

/** Numbers of a table with decimal points or, throughout, decimal commas. */
function numberReader(table: DataTable) {
  let commas = 0;
  return {
    decimalCommas: () => commas > 0,
    at(row: number, column: number): number {
      const text = table.rows[row][column];
      let value = Number(text);
      if (text === '' || !Number.isFinite(value)) {
        if (/^[-+]?\d+,\d+(e[-+]?\d+)?$/i.test(text)) {
          commas++;
          value = Number(text.replace(',', '.'));
        } else {
          throw new FormatError({
            message: `“${text.slice(0, 40)}” is not a number.`,
            line: table.rowLines[row],
            field: table.columns[column],
            remedy: 'Correct the value, or read the patch again.',
          });
        }
      }
      return value;
    },
  };
}

type Numbers = ReturnType<typeof numberReader>;

function deviceColumns(map: ColumnMap): { name: DeviceSpace; columns: readonly number[] } | undefined {
  if (map.rgb) return { name: 'RGB', columns: map.rgb };
  if (map.cmyk) return { name: 'CMYK', columns: map.cmyk };
  return undefined;
}

/** Device values as 0–1; their scale (1, 100 or 255) is told from the largest of them. */
function readDevice(table: DataTable, columns: readonly number[], numbers: Numbers) {
  const raw = table.rows.map((_, r) => columns.map((c) => numbers.at(r, c)));
  const most = raw.reduce((m, v) => Math.max(m, ...v), 0);
  const scale = most <= 1 ? 1 : most <= 100.5 ? 100 : 255;
  raw.forEach((values, r) => {
    const bad = values.findIndex((v) => v < 0 || v > scale * 1.005);
    if (bad >= 0) {
      throw new FormatError({
        message: `A device value of ${values[bad]} is outside 0–${scale}.`,
        line: table.rowLines[r],
        field: table.columns[columns[bad]],
        remedy: 'Device values should be 0–1, 0–100 or 0–255.',
      });
    }
  });
  return { scale, values: raw.map((v) => v.map((x) => Math.min(1, x / scale))) };
}

function readXyz(table: DataTable, columns: readonly number[], numbers: Numbers): Xyz[] {
  const raw = table.rows.map((_, r) => columns.map((c) => numbers.at(r, c)) as unknown as Xyz);
  // Y of a paper is some 85 of 100; a file where nothing exceeds 2 counts the perfect diffuser as 1.
  const factor = raw.reduce((m, v) => Math.max(m, v[1]), 0) <= 2 ? 100 : 1;
  return raw.map(([X, Y, Z]) => [X * factor, Y * factor, Z * factor]);
}

function readSpectra(
  table: DataTable,
  map: ColumnMap,
  numbers: Numbers,
): { grid: SpectralGrid; values: number[][]; inPercent: boolean } {
  const nms = map.spectrum.map((s) => s.nm);
  const stepNm = nms[1] - nms[0];
  const uneven = nms.findIndex((nm, i) => i > 0 && nm - nms[i - 1] !== stepNm);
  if (uneven > 0 || stepNm <= 0) {
    throw new FormatError({
      message: `The spectral columns are not evenly spaced: ${nms[uneven - 1]} nm is followed by ${nms[uneven]} nm.`,
      field: table.columns[map.spectrum[Math.max(uneven, 0)].column],
      remedy: 'A column is missing or named twice. Export the spectra at one step.',
    });
  }
  if (nms[0] > 430 || nms[nms.length - 1] < 650) {
    throw new FormatError({
      message: `The spectra cover ${nms[0]}–${nms[nms.length - 1]} nm, too little to compute a colour.`,
      field: table.columns[map.spectrum[0].column],
      remedy: 'Export 380–730 nm, or at least 430–650 nm.',
    });
  }
  const raw = table.rows.map((_, r) => map.spectrum.map((s) => numbers.at(r, s.column)));
  const inPercent = raw.reduce((m, v) => Math.max(m, ...v), 0) > 2.5;
  return {
    grid: { startNm: nms[0], stepNm, count: nms.length },
    values: inPercent ? raw.map((v) => v.map((x) => x / 100)) : raw,
    inPercent,
  };
}
