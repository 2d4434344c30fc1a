import { taken } from './taken.ts';

/** A box of sheets or a roll, with what is left of it. */
export interface BoxAtHand {
  readonly id: string;
  readonly kind: 'sheet' | 'roll';
  readonly widthMm: number;
  readonly heightMm: number;
  /** Sheets, or mm of a roll. */
  readonly left: number;
  /** ISO 8601 day. */
  readonly boughtOn: string;
}
interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Why a box can’t be taken for a print; undefined where it can. */
export type BoxRefusal = { readonly why: 'too small' } | { readonly why: 'too little left'; readonly takes: number };

/** Whether a box holds what a print takes. @param copies of it */
export function boxRefusal(box: BoxAtHand, print: Size, copies: number): BoxRefusal | undefined {
  const each = taken(box, print);
  if (each === undefined) return { why: 'too small' };
  const takes = each * copies;
  return takes > box.left + 1e-6 ? { why: 'too little left', takes } : undefined;
}

/**
 * The box a print would be taken from where none was chosen: the smallest sheet it fits on, of those the one that was
 * bought first; a roll where no sheet fits.
 */
export function boxFor<B extends BoxAtHand>(boxes: readonly B[], print: Size, copies: number): B | undefined {
  const able = boxes.filter((b) => boxRefusal(b, print, copies) === undefined);
  const area = (b: B) => (b.kind === 'roll' ? Infinity : b.widthMm * b.heightMm);
  return [...able].sort(
    (a, b) =>
      // Not a difference: of two rolls it would be no number.
      (area(a) < area(b) ? -1 : area(a) > area(b) ? 1 : 0) || a.boughtOn.localeCompare(b.boughtOn),
  )[0];
}
