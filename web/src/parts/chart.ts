/** How axes look everywhere: thin, in ink, with small figures. */
export const AXIS = {
  stroke: 'var(--edge)',
  tick: { fill: 'var(--ink)', fontSize: 12 },
  tickLine: false,
  label: { fill: 'var(--ink)', fontSize: 12 },
} as const;
