/** How a print sits on its sheet. */
export const BORDER_STYLES = {
  equal: 'equal all round',
  bottom: 'bottom-weighted',
  mount: 'for a window mount',
} as const;
export type BorderStyle = keyof typeof BORDER_STYLES;

/** Borders, mm. */
export interface Borders {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/** The lower border over the others, bottom-weighted (practice). */
const BOTTOM_WEIGHT = 1.25;
/** A window covers so much of the print's edge, mm (practice). */
const UNDER_THE_WINDOW = 5;

/**
 * Borders of a print.
 * @param borderMm width of the border at the sides; under a window mount that of the paper hidden beneath it
 */
export function bordersOf(style: BorderStyle, borderMm: number): Borders {
  const side = style === 'mount' ? Math.max(borderMm, UNDER_THE_WINDOW) : borderMm;
  return { top: side, right: side, bottom: style === 'bottom' ? side * BOTTOM_WEIGHT : side, left: side };
}
