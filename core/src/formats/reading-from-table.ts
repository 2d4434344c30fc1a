import { asThree } from '../colour/three.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab, Xyz } from '../colour/types.ts';
import type { DeviceSpace, PatchReading, SpectralGrid } from '../measurement/reading.ts';
import type { ColumnMap } from './cgats-columns.ts';
import type { HeaderFacts } from './cgats-header.ts';
import { DEVICE_SCALES } from './column-mapping.ts';
import { FormatError } from './format-error.ts';
import type { ImportedReading } from './imported-reading.ts';
import { refuseImplausible } from './plausible.ts';

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
  from: { recognised: readonly string[]; header: HeaderFacts; deviceScale?: number },
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
  const raw = space && readDevice(table, space.columns, numbers);
  if (!raw) missing.push('Device values: white is taken as the lightest patch, black as the darkest; no neutral ramp.');

  const spectra = map.spectrum.length > 0 ? readSpectra(table, map, numbers) : undefined;
  if (spectra)
    recognised.push(
      `reflectance ${spectra.grid.startNm}–${spectra.grid.startNm + spectra.grid.stepNm * (spectra.grid.count - 1)} nm every ${spectra.grid.stepNm} nm, in ${spectra.inPercent ? 'percent' : 'parts of one'}`,
    );
  else missing.push('Spectra: colour can’t be computed for another light.');
  if (map.xyz) recognised.push('XYZ');
  if (map.lab) recognised.push('L*a*b*');

  const white = illuminantWhite();
  const labs = map.lab && table.rows.map((_, r) => asThree(map.lab!.map((c) => numbers.at(r, c))));
  const xyzs = map.xyz && readXyz(table, map.xyz, numbers);
  const unscaled = table.rows.map((row, r): PatchReading => {
    const reflectance = spectra?.values[r];
    let lab: Lab;
    let xyz: Xyz;
    if (reflectance) {
      xyz = spectrumToXyz({ startNm: spectra.grid.startNm, stepNm: spectra.grid.stepNm, values: reflectance });
      lab = xyzToLab(xyz, white);
    } else {
      lab = labs?.[r] ?? xyzToLab(xyzs![r]!);
      xyz = xyzs?.[r] ?? labToXyz(lab);
    }
    const id = map.id === undefined ? String(r + 1) : row[map.id]!;
    refuseImplausible(lab, reflectance, {
      patch: id,
      line: table.rowLines[r],
      lab: map.lab ? map.lab.map((c) => table.columns[c]!) : ['L*', 'a*', 'b*'],
      band: (i) => table.columns[map.spectrum[i]!.column]!,
    });
    return { id, device: raw?.[r], lab, xyz, reflectance };
  });
  const scaled = space && raw && onScale(table, space, unscaled, from.deviceScale);
  const patches = scaled?.patches ?? unscaled;
  if (scaled) recognised.push(`${space.name} device values, 0–${scaled.scale}${scaled.told}`);
  if (spectra && labs) {
    const apart = labs.reduce((sum, lab, r) => sum + deltaE2000(lab, patches[r]!.lab), 0) / labs.length;
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
      const text = table.rows[row]![column]!;
      let value = Number(text);
      if (text === '' || !Number.isFinite(value)) {
        if (/^[-+]?\d+,\d+(e[-+]?\d+)?$/i.test(text)) {
          commas++;
          value = Number(text.replace(',', '.'));
        } else {
          throw new FormatError({
            message: /^(n\/?a|nan|null|none|-+)$/i.test(text)
              ? `There is no value here: “${text}”.`
              : `“${text.slice(0, 40)}” is not a number.`,
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

/** Device values as they stand. */
const readDevice = (table: DataTable, columns: readonly number[], numbers: Numbers): number[][] =>
  table.rows.map((_, r) => columns.map((c) => numbers.at(r, c)));

/** Writers round; so much above the scale is still the scale. */
const ROUNDING = 1.005;

/**
 * Patches with device values 0–1. The scale is the one the header states; else it is told from the largest value; where
 * that leaves it open (no RGB patch reaches the full value) by how light the patches are.
 * @throws FormatError where a value lies outside the scale, or nothing tells it
 */
function onScale(
  table: DataTable,
  space: { name: DeviceSpace; columns: readonly number[] },
  patches: readonly PatchReading[],
  stated: number | undefined,
): { patches: PatchReading[]; scale: number; told: string } {
  const most = patches.reduce((m, p) => Math.max(m, ...p.device!), 0);
  // Sixteen bits are thought of only where eight do not hold the values.
  const possible = DEVICE_SCALES.filter((scale) => most <= scale * ROUNDING && (scale <= 255 || most > 255 * ROUNDING));
  const full = possible.find((scale) => Math.abs(most - scale) <= scale * (ROUNDING - 1));
  let told = '';
  // Inks are written in percent, or in parts of one; fractions below one are parts of one.
  const parts = most <= 1 && patches.some((p) => p.device!.some((v) => !Number.isInteger(v)));
  let scale: number | undefined =
    stated ?? full ?? (space.name === 'CMYK' || parts || most === 0 ? possible[0] : undefined);
  if (scale === undefined) {
    scale = byLightness(patches, possible);
    told = ', told from how light the patches are';
  }
  if (scale === undefined)
    throw new FormatError({
      message: `The largest device value is ${most}: nothing tells whether the values run to ${possible.join(', or ')}.`,
      field: space.columns.map((c) => table.columns[c]).join(', '),
      remedy: 'Write the scale into the header (DEVICE_SCALE 255, say), or print a chart that holds the full values.',
      asks: 'scale',
    });
  const top = scale;
  patches.forEach(({ device }, r) => {
    const bad = device!.findIndex((v) => v < 0 || v > top * ROUNDING);
    if (bad >= 0) {
      throw new FormatError({
        message: `A device value of ${device![bad]} is outside 0–${top}.`,
        line: table.rowLines[r],
        field: table.columns[space.columns[bad]!],
        remedy: 'Device values should be 0–1, 0–100, 0–255 or 0–65535.',
      });
    }
  });
  return {
    scale,
    told,
    patches: patches.map((p) => ({ ...p, device: p.device!.map((v) => Math.min(1, v / top)) })),
  };
}

/** A scale must fit so much better than the next, L*, to be taken without asking (our own choice). */
const CLEARLY = 6;
/** L* that any printer gives a device grey, about: its own curve moves it by less than another scale would. */
const usualL = (share: number) => 12 + 84 * Math.min(1, share);

/** The scale under which dark values are dark patches and light ones light; undefined where two fit alike. */
function byLightness(patches: readonly PatchReading[], possible: readonly number[]): number | undefined {
  const misfit = (scale: number) =>
    patches.reduce((sum, { device, lab }) => {
      const [r, g, b] = device!;
      return sum + Math.abs(lab[0] - usualL((0.3 * r! + 0.6 * g! + 0.1 * b!) / scale));
    }, 0) / patches.length;
  const [best, next] = possible.map((scale) => ({ scale, off: misfit(scale) })).sort((p, q) => p.off - q.off);
  return best && (!next || next.off - best.off > CLEARLY) ? best.scale : undefined;
}

function readXyz(table: DataTable, columns: readonly number[], numbers: Numbers): Xyz[] {
  const raw = table.rows.map((_, r) => asThree(columns.map((c) => numbers.at(r, c))));
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
  const stepNm = nms[1]! - nms[0]!;
  const uneven = nms.findIndex((nm, i) => i > 0 && nm - nms[i - 1]! !== stepNm);
  if (uneven > 0 || stepNm <= 0) {
    throw new FormatError({
      message: `The spectral columns are not evenly spaced: ${nms[uneven - 1]} nm is followed by ${nms[uneven]} nm.`,
      field: table.columns[map.spectrum[Math.max(uneven, 0)]!.column],
      remedy: 'A column is missing or named twice. Export the spectra at one step.',
    });
  }
  if (nms[0]! > 430 || nms[nms.length - 1]! < 650) {
    throw new FormatError({
      message: `The spectra cover ${nms[0]}–${nms[nms.length - 1]} nm, too little to compute a colour.`,
      field: table.columns[map.spectrum[0]!.column],
      remedy: 'Export 380–730 nm, or at least 430–650 nm.',
    });
  }
  const raw = table.rows.map((_, r) => map.spectrum.map((s) => numbers.at(r, s.column)));
  const inPercent = raw.reduce((m, v) => Math.max(m, ...v), 0) > 2.5;
  return {
    grid: { startNm: nms[0]!, stepNm, count: nms.length },
    values: inPercent ? raw.map((v) => v.map((x) => x / 100)) : raw,
    inPercent,
  };
}
