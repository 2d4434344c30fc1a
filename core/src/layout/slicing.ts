import type { Piece, Placed } from './nest.ts';

/** Pieces that are the same to the knife: where one lies, any other of its kind may. */
export interface Kinds<P extends Piece = Piece> {
  readonly pieces: readonly (readonly P[])[];
  /** What one piece of each kind adds to the number of a set: mixed radix, so that a set less a part is a subtraction. */
  readonly worth: readonly number[];
  /** Sets there are, the empty one among them; the last holds everything. */
  readonly sets: number;
}

export function kindsOf<P extends Piece>(pieces: readonly P[]): Kinds<P> {
  const kinds = new Map<string, P[]>();
  for (const p of pieces) {
    const key = `${p.widthMm} ${p.heightMm} ${p.mayTurn}`;
    const known = kinds.get(key);
    if (known) known.push(p);
    else kinds.set(key, [p]);
  }
  const worth: number[] = [];
  let sets = 1;
  for (const own of kinds.values()) {
    worth.push(sets);
    sets *= own.length + 1;
  }
  return { pieces: [...kinds.values()], worth, sets };
}

/** How many partings of a set into two there are, over all sets: what `slicings` has to weigh. */
export const partings = ({ pieces }: Kinds): number =>
  pieces.reduce((product, { length: n }) => (product * (n + 1) * (n + 2)) / 2, 1);

/** Numbers of the sets that a set holds, itself and the empty one too. */
export function* partsOf({ worth, pieces }: Kinds, set: number): Generator<number> {
  const counts = worth.map((w, k) => Math.floor(set / w) % (pieces[k]!.length + 1));
  const at = counts.map(() => 0);
  for (let number = 0; ;) {
    yield number;
    let k = 0;
    while (k < at.length && at[k] === counts[k]) {
      number -= at[k]! * worth[k]!;
      at[k++] = 0;
    }
    if (k === at.length) return;
    at[k]!++;
    number += worth[k]!;
  }
}

/** A way to lay some pieces so that straight cuts part them: one piece, or two such ways beside or above each other. */
export type Slicing<P extends Piece = Piece> = { readonly w: number; readonly h: number } & (
  | { readonly kind: readonly P[]; readonly turned: boolean }
  | { readonly way: 'beside' | 'above'; readonly parts: readonly [Slicing<P>, Slicing<P>] }
);

const NEAR = 1e-6;

/**
 * Every set of the pieces, by its number, with the sizes it can be laid in so that straight cuts part it: those of which
 * none is smaller both ways. Exact: a set is one piece, or any part of it beside or above the rest (dynamic programming
 * over sets of kinds).
 * @param widthMm what is wider is left out
 */
export function slicings<P extends Piece>(
  kinds: Kinds<P>,
  widthMm: number,
  heightMm: number,
  gapMm: number,
): readonly (readonly Slicing<P>[])[] {
  const fronts: Slicing<P>[][] = Array.from({ length: kinds.sets }, () => []);
  kinds.pieces.forEach((kind, k) => {
    const [piece] = kind;
    for (const turned of piece!.mayTurn && piece!.widthMm !== piece!.heightMm ? [false, true] : [false]) {
      const [w, h] = turned ? [piece!.heightMm, piece!.widthMm] : [piece!.widthMm, piece!.heightMm];
      add(fronts[kinds.worth[k]!]!, { w, h, kind, turned }, widthMm, heightMm);
    }
  });
  for (let set = 1; set < kinds.sets; set++) {
    const front = fronts[set]!;
    // Each parting once: the part with the lower number first.
    for (const part of partsOf(kinds, set)) {
      if (part === 0 || 2 * part > set) continue;
      for (const a of fronts[part]!)
        for (const b of fronts[set - part]!) {
          add(front, { w: a.w + gapMm + b.w, h: Math.max(a.h, b.h), way: 'beside', parts: [a, b] }, widthMm, heightMm);
          add(front, { w: Math.max(a.w, b.w), h: a.h + gapMm + b.h, way: 'above', parts: [a, b] }, widthMm, heightMm);
        }
    }
  }
  return fronts;
}

/**
 * Where each piece of a way to lay them comes to lie, mm from the top left.
 * @param taken how many of each kind lie elsewhere already; counted on
 */
export function placesOf<P extends Piece>(
  s: Slicing<P>,
  gapMm: number,
  taken = new Map<readonly P[], number>(),
  xMm = 0,
  yMm = 0,
): (P & Placed)[] {
  if ('kind' in s) {
    const at = taken.get(s.kind) ?? 0;
    taken.set(s.kind, at + 1);
    return [{ ...s.kind[at]!, xMm, yMm, turned: s.turned }];
  }
  const [a, b] = s.parts;
  const first = placesOf(a, gapMm, taken, xMm, yMm);
  return [
    ...first,
    ...(s.way === 'beside'
      ? placesOf(b, gapMm, taken, xMm + a.w + gapMm, yMm)
      : placesOf(b, gapMm, taken, xMm, yMm + a.h + gapMm)),
  ];
}

/** Adds a size unless one there is no larger either way; takes out those it makes needless. */
function add<P extends Piece>(front: Slicing<P>[], s: Slicing<P>, widthMm: number, heightMm: number): void {
  if (s.w > widthMm + NEAR || s.h > heightMm + NEAR) return;
  if (front.some((f) => f.w <= s.w + NEAR && f.h <= s.h + NEAR)) return;
  for (let i = front.length - 1; i >= 0; i--) if (s.w <= front[i]!.w && s.h <= front[i]!.h) front.splice(i, 1);
  front.push(s);
}
