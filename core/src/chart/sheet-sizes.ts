/** Sheets and rolls a chart is laid out on, mm. A roll is cut to the length the chart needs. */
export const SHEET_SIZES = {
  /** Small enough to lie on a flatbed beside what it speaks for; no chart is wished on it. */
  card: { name: 'Card, 148 × 105 mm', widthMm: 148, heightMm: 105 },
  A4: { name: 'A4', widthMm: 210, heightMm: 297 },
  A3: { name: 'A3', widthMm: 297, heightMm: 420 },
  'A3+': { name: 'A3+', widthMm: 329, heightMm: 483 },
  A2: { name: 'A2', widthMm: 420, heightMm: 594 },
  letter: { name: 'Letter, 8½ × 11 in', widthMm: 215.9, heightMm: 279.4 },
  ledger: { name: '11 × 17 in', widthMm: 279.4, heightMm: 431.8 },
  '13x19': { name: '13 × 19 in', widthMm: 330.2, heightMm: 482.6 },
  '17x22': { name: '17 × 22 in', widthMm: 431.8, heightMm: 558.8 },
  'roll-17': { name: 'Roll, 17 in', widthMm: 431.8, heightMm: 420, roll: true },
  'roll-24': { name: 'Roll, 24 in', widthMm: 609.6, heightMm: 420, roll: true },
  'roll-44': { name: 'Roll, 44 in', widthMm: 1117.6, heightMm: 420, roll: true },
} as const satisfies Record<string, { name: string; widthMm: number; heightMm: number; roll?: boolean }>;

export type SheetSize = keyof typeof SHEET_SIZES;
/** Sheets a chart can be wished on. */
export const SHEET_SIZE_KEYS = (Object.keys(SHEET_SIZES) as SheetSize[]).filter((key) => key !== 'card');
