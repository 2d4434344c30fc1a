import type { ChartDesign } from './chart-design.ts';
import { fromRgb16, type Rgb16 } from './device16.ts';
import { barValues } from './test-page.ts';

/** The order in which a chart's patches are read: strip by strip, top to bottom. */
export function chartPatches(design: ChartDesign): { id: string; rgb16: Rgb16 }[] {
  return design.strips.flatMap((s) => s.patches.map(({ id, rgb16 }) => ({ id, rgb16 })));
}

/** Device values of a chart as CGATS.17 text, 0–255 to four decimals: enough to give every 16-bit value back exactly. */
export function writeChartReference(design: ChartDesign): string {
  const { purpose, seed } = design.spec;
  return reference(`Rakuen chart, ${purpose}, seed ${seed}`, chartPatches(design), design.strips[0]!.patches.length);
}

/** Device values of the test page's bar of greys, in the order in which it is read: a strip like any other. */
export function barReference(): string {
  const bar = barValues().map((rgb16, i) => ({ id: `A${String(i + 1).padStart(2, '0')}`, rgb16 }));
  return reference('Rakuen test page, bar of greys', bar, bar.length);
}

function reference(descriptor: string, patches: readonly { id: string; rgb16: Rgb16 }[], stripLength: number): string {
  const rows = patches.map(({ id, rgb16 }) =>
    [id, ...fromRgb16(rgb16).map((v) => String(Number((v * 255).toFixed(4))))].join(' '),
  );
  return `${[
    'CGATS.17',
    `DESCRIPTOR "${descriptor}"`,
    'ORIGINATOR "Rakuen"',
    'KEYWORD "STRIP_LENGTH"',
    `STRIP_LENGTH ${stripLength}`,
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
