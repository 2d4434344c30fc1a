import type { Piece, Placed } from './nest.ts';

/** Which way fibres run, of a stock or as a piece wants them: a print that is bound, rolled or hung free curls across its grain. */
export const GRAINS = { height: 'along its height', width: 'along its width' } as const;
export type Grain = keyof typeof GRAINS;

export type WayToLie = 'either' | 'upright' | 'turned';

/**
 * How a piece may lie: where the grain of the stock is known and the piece asks for one, that decides, and may well
 * turn it; else its own word does.
 * @param stock grain of what is printed on; undefined where nobody knows it
 */
export function wayToLie(
  stock: Grain | undefined,
  piece: { readonly grain?: Grain; readonly mayTurn: boolean },
): WayToLie {
  if (stock && piece.grain) return stock === piece.grain ? 'upright' : 'turned';
  return piece.mayTurn ? 'either' : 'upright';
}

/** A piece as the nesting takes it: what must lie turned is laid as if it were of that shape. */
export function toLie<P extends Piece>(piece: P, way: WayToLie): P {
  const [widthMm, heightMm] = way === 'turned' ? [piece.heightMm, piece.widthMm] : [piece.widthMm, piece.heightMm];
  return { ...piece, widthMm, heightMm, mayTurn: way === 'either' };
}

/** What was laid, by its own shape again. */
export function asLaid<P extends Piece>(placed: P & Placed, way: WayToLie): P & Placed {
  return way === 'turned' ? { ...placed, widthMm: placed.heightMm, heightMm: placed.widthMm, turned: true } : placed;
}
