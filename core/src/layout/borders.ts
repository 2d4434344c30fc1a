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

/** Paper a caption needs under the picture, mm (our own start). */
export const CAPTION_ROOM_MM = 12;
/** Height of its letters, and how far under the picture its line stands (our own start). */
export const CAPTION_LINE_MM = { size: 3.2, below: 7 } as const;
/** What is kept free along a torn edge, mm (our own start): its line wanders. */
export const DECKLE_MM = 10;
export const EDGES = ['top', 'right', 'bottom', 'left'] as const;
export type Edge = (typeof EDGES)[number];

/**
 * Borders of a print.
 * @param borderMm width of the border at the sides; under a window mount that of the paper hidden beneath it
 * @param caption what is written under the picture, and needs room
 */
export function bordersOf(style: BorderStyle, borderMm: number, caption = ''): Borders {
  const side = style === 'mount' ? Math.max(borderMm, UNDER_THE_WINDOW) : borderMm;
  const bottom = style === 'bottom' ? side * BOTTOM_WEIGHT : side;
  return { top: side, right: side, bottom: caption ? Math.max(bottom, CAPTION_ROOM_MM) : bottom, left: side };
}
