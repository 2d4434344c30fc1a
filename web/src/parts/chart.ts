import { formatNumber } from '@rakuen/core/measurement/show';

/** How axes look everywhere: thin, in ink, with small figures. */
export const AXIS = {
  stroke: 'var(--edge)',
  tick: { fill: 'var(--ink)', fontSize: 12 },
  tickLine: false,
  tickFormatter: (value: unknown): string =>
    typeof value === 'number' ? formatNumber(value, Number.isInteger(value) ? 0 : 1) : String(value),
  label: { fill: 'var(--ink)', fontSize: 12 },
} as const;
