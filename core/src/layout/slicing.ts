import type { Piece, Placed } from './nest.ts';

/** A way to lay some pieces so that straight cuts part them: one piece, or two such ways beside or above each other. */
export type Slicing<P extends Piece = Piece> = { readonly w: number; readonly h: number } & (
  | { readonly piece: P; readonly turned: boolean }
  | { readonly way: 'beside' | 'above'; readonly parts: readonly [Slicing<P>, Slicing<P>] }
);

const NEAR = 1e-6;

/**
 * Every set of the pieces, by its bits, with the sizes it can be laid in so that straight cuts part it: those of which none is smaller both
 * ways. Exact: a set is one piece, or any part of it beside or above the rest (dynamic programming over subsets).
 * @param widthMm what is wider is left out
 */
export function slicings<P extends Piece>(
  pieces: readonly P[],
  widthMm: number,
  heightMm: number,
  gapMm: number,
): readonly (readonly Slicing<P>[])[] {
  const fronts: Slicing<P>[][] = [[]];
  for (let bits = 1; bits < 1 << pieces.length; bits++) {
    const front: Slicing<P>[] = [];
    const lowest = bits & -bits;
    if (bits === lowest) {
      const piece = pieces[Math.log2(bits)]!;
      for (const turned of piece.mayTurn && piece.widthMm !== piece.heightMm ? [false, true] : [false]) {
        const [w, h] = turned ? [piece.heightMm, piece.widthMm] : [piece.widthMm, piece.heightMm];
        add(front, { w, h, piece, turned }, widthMm, heightMm);
      }
    }
    // Each parting once: the lowest piece is in the first part.
    for (let part = (bits - 1) & bits; part > 0; part = (part - 1) & bits) {
      if (!(part & lowest)) continue;
      for (const a of fronts[part]!)
        for (const b of fronts[bits ^ part]!) {
          add(front, { w: a.w + gapMm + b.w, h: Math.max(a.h, b.h), way: 'beside', parts: [a, b] }, widthMm, heightMm);
          add(front, { w: Math.max(a.w, b.w), h: a.h + gapMm + b.h, way: 'above', parts: [a, b] }, widthMm, heightMm);
        }
    }
    fronts.push(front);
  }
  return fronts;
}

/** Where each piece of a way to lay them comes to lie, mm from the top left. */
export function placesOf<P extends Piece>(s: Slicing<P>, gapMm: number, xMm = 0, yMm = 0): (P & Placed)[] {
  if ('piece' in s) return [{ ...s.piece, xMm, yMm, turned: s.turned }];
  const [a, b] = s.parts;
  return [
    ...placesOf(a, gapMm, xMm, yMm),
    ...(s.way === 'beside' ? placesOf(b, gapMm, xMm + a.w + gapMm, yMm) : placesOf(b, gapMm, xMm, yMm + a.h + gapMm)),
  ];
}

/** Adds a size unless one there is no larger either way; takes out those it makes needless. */
function add<P extends Piece>(front: Slicing<P>[], s: Slicing<P>, widthMm: number, heightMm: number): void {
  if (s.w > widthMm + NEAR || s.h > heightMm + NEAR) return;
  if (front.some((f) => f.w <= s.w + NEAR && f.h <= s.h + NEAR)) return;
  for (let i = front.length - 1; i >= 0; i--) if (s.w <= front[i]!.w && s.h <= front[i]!.h) front.splice(i, 1);
  front.push(s);
}
