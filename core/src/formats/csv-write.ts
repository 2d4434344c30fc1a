import type { Reading } from '../measurement/reading.ts';
import { writtenScale } from './written-scale.ts';
import { csvOf, type CsvCell } from './csv-table.ts';

const plain = (value: number, digits: number) => Number(value.toFixed(digits)) + 0;

/**
 * A reading as CSV (RFC 4180): name, device values 0–255 or 0–100 (parts of one where none is full), XYZ, L*a*b*, and
 * reflectance factors by wavelength in nm; then how it was measured, the same in every row, for a table has no head.
 */
export function writeCsv(reading: Reading): string {
  const { deviceSpace, spectralGrid: grid } = reading;
  const scale = writtenScale(reading);
  const measured = (
    [
      ['MEASUREMENT_CONDITION', reading.condition],
      ['INSTRUMENTATION', reading.instrument],
      ['CREATED', reading.createdAt],
      ['SAMPLE_BACKING', reading.backing],
    ] as const
  ).flatMap(([name, value]) => (value ? [[name, value] as const] : []));
  const head = [
    'name',
    ...(deviceSpace ? [...deviceSpace] : []).map((c) => `${deviceSpace}_${c}`),
    ...['XYZ_X', 'XYZ_Y', 'XYZ_Z', 'LAB_L', 'LAB_A', 'LAB_B'],
    ...(grid ? Array.from({ length: grid.count }, (_, i) => String(grid.startNm + i * grid.stepNm)) : []),
    ...measured.map(([name]) => name),
  ];
  const rows = reading.patches.map((p): CsvCell[] => [
    p.id,
    ...(deviceSpace && p.device ? p.device.map((v) => plain(v * scale, scale === 1 ? 6 : 4)) : []),
    ...[...p.xyz, ...p.lab].map((v) => plain(v, 4)),
    ...(p.reflectance ?? []).map((v) => plain(v, 6)),
    ...measured.map(([, value]) => value),
  ]);
  return csvOf([head, ...rows]);
}
