import type { Reading } from '../measurement/reading.ts';
import { writtenScale } from './written-scale.ts';

const quoted = (text: string) => `"${text.replaceAll('"', '""').replace(/[\r\n]+/g, ' ')}"`;

/**
 * A reading as CGATS.17 text: device values 0–255 (RGB) or 0–100 (CMYK), or in parts of one, XYZ, L*a*b*, and spectra
 * in parts of one as SPECTRAL_NM columns. Ends lines with LF.
 */
export function writeCgats(reading: Reading): string {
  const { patches, deviceSpace, spectralGrid: grid } = reading;
  const scale = writtenScale(reading);
  const columns = [
    'SAMPLE_ID',
    ...(deviceSpace ? [...deviceSpace].map((c) => `${deviceSpace}_${c}`) : []),
    ...['X', 'Y', 'Z'].map((c) => `XYZ_${c}`),
    ...['L', 'A', 'B'].map((c) => `LAB_${c}`),
    ...(grid ? Array.from({ length: grid.count }, (_, i) => `SPECTRAL_NM_${grid.startNm + i * grid.stepNm}`) : []),
  ];
  const head = [
    'CGATS.17',
    reading.description && `DESCRIPTOR ${quoted(reading.description)}`,
    reading.createdAt && `CREATED ${quoted(reading.createdAt)}`,
    reading.instrument && `INSTRUMENTATION ${quoted(reading.instrument)}`,
    reading.condition && `MEASUREMENT_CONDITION ${quoted(reading.condition)}`,
    reading.backing && `SAMPLE_BACKING ${quoted(reading.backing)}`,
    `NUMBER_OF_FIELDS ${columns.length}`,
    'BEGIN_DATA_FORMAT',
    columns.join(' '),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${patches.length}`,
    'BEGIN_DATA',
  ].filter(Boolean);
  const rows = patches.map((p) =>
    [
      // A patch may be called like a keyword: in quotes it is a name.
      /\s|"|#/.test(p.id) || /^(BEGIN|END)_DATA/i.test(p.id) || p.id === '' ? quoted(p.id) : p.id,
      ...(p.device ?? []).map((v) => fixed(v * scale, scale === 1 ? 6 : 4)),
      ...p.xyz.map((v) => fixed(v, 4)),
      ...p.lab.map((v) => fixed(v, 4)),
      ...(p.reflectance ?? []).map((v) => fixed(v, 6)),
    ].join(' '),
  );
  return `${[...head, ...rows, 'END_DATA'].join('\n')}\n`;
}

/** Fixed digits without trailing zeros and without a negative zero. */
function fixed(value: number, digits: number): string {
  return String(Number(value.toFixed(digits)) + 0);
}
