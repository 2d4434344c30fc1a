import type { Lab } from '../colour/types.ts';

/** What a client, or the printmaker, will not have. */
export const VETOES = {
  brightener: 'no brightener',
  reflections: 'no gloss',
  texture: 'no texture',
  plastic: 'no resin coating',
  metallic: 'no metallic sheet',
} as const;
export type Veto = keyof typeof VETOES;

/** What a print is made on. */
export const FORMATS = {
  sheet: 'cut sheet',
  panorama: 'panorama',
  roll: 'from the roll',
} as const;
export type Format = keyof typeof FORMATS;

/** How much the price of the paper counts. */
export const PRICE_CLASSES = {
  economical: 'economical: price counts most',
  standard: 'standard',
  best: 'best: price does not count',
} as const;
export type PriceClass = keyof typeof PRICE_CLASSES;

/** Where a picture will hang: what a match has to know besides the picture itself. */
export interface Commission {
  /** Longer and shorter side of the print; without the shorter it follows from the picture. */
  readonly longSideMm: number;
  readonly shortSideMm?: number;
  /** Absent where any will do. */
  readonly format?: Format;
  /** Absent for standard. */
  readonly priceClass?: PriceClass;
  readonly viewingMm: number;
  readonly copies: number;
  /** Copies that are numbered; absent for an open edition. */
  readonly editionOf?: number;
  /** Behind a mount or glass, or held in the hand. */
  readonly handled: boolean;
  /** Keys of a light and a glass. */
  readonly light: string;
  readonly glass: string;
  readonly lux: number;
  /** It is to last: on a wall for years, in a collection. */
  readonly mustLast: boolean;
  readonly vetoes: readonly Veto[];
  /** A reproduction: the ground of the original, measured. */
  readonly originalGround?: Lab;
  readonly wishes?: string;
  readonly signedOffBy?: string;
  /** A day, as 2026-12-01. */
  readonly deadline?: string;
}

/** Where nobody said: a print of 42 cm in a booth's light, unglazed, one copy. */
export const USUAL_COMMISSION: Commission = {
  longSideMm: 420,
  viewingMm: 600,
  copies: 1,
  handled: false,
  light: 'D50',
  glass: 'none',
  lux: 500,
  mustLast: false,
  vetoes: [],
};

/** Smallest step of L* that is told apart beside its neighbour at 500 lx (practice); it grows as the light falls (our own estimate). */
export function leastStepL(lux: number): number {
  return 0.6 * Math.max(1, 500 / Math.max(10, lux)) ** 0.3;
}
