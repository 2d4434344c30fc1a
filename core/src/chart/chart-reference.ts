import type { ChartDesign } from './chart-design.ts';
import { fromRgb16, type Rgb16 } from './device16.ts';

/** The order in which a chart's patches are read: strip by strip, top to bottom. */
export function chartPatches(design: ChartDesign): { id: string; rgb16: Rgb16 }[] {
  return design.strips.flatMap((s) => s.patches.map(({ id, rgb16 }) => ({ id, rgb16 })));
}

/** Device values of a chart as CGATS.17 text, 0–255 to four decimals: enough to give every 16-bit value back exactly. */
export function writeChartReference(design: ChartDesign): string {
  const patches = chartPatches(design);
  const rows = patches.map(({ id, rgb16 }) => [id, ...fromRgb16(rgb16).map((v) => String(Number((v * 255).toFixed(4))))].join(' '));
  const { spec } = design;
  return `${[
    'CGATS.17',
    `DESCRIPTOR "Rakuen chart, ${spec.purpose}, seed ${spec.seed}"`,
    'ORIGINATOR "Rakuen"',
    `KEYWORD "STRIP_LENGTH"`,
    `STRIP_LENGTH ${design.strips[0].patches.length}`,
    'NUMBER_OF_FIELDS 4',
    'BEGIN_DATA_FORMAT',
    'SAMPLE_ID RGB_R RGB_G RGB_B',
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${patches.length}`,
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
  ].join('\n')}\n`;
}
