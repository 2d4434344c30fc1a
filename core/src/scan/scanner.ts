import { asThree, mapThree } from '../colour/three.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { cholesky, solveCholesky } from '../characterisation/linear-algebra.ts';
import type { Lab, Rgb } from '../colour/types.ts';

/** A patch of the card: what the scanner gave, 0–1, and what an instrument read. */
export interface CardPatch {
  readonly rgb: Rgb;
  readonly lab: Lab;
}

/** A scanner, known by a card. */
export interface Scanner {
  readonly labOf: (rgb: Rgb) => Lab;
  /** ΔE00 of the patches of the card from what the others say of them: in the mean, and of nineteen in twenty. */
  readonly errorDeltaE: number;
  readonly p95DeltaE: number;
}

/** Terms of a scanner's codes, which are spaced about as the eye is: squares, products and cubes take up what its filters do otherwise. */
const terms = ([r, g, b]: Rgb): number[] => [
  1,
  r,
  g,
  b,
  r * r,
  g * g,
  b * b,
  r * g,
  r * b,
  g * b,
  r * r * r,
  g * g * g,
  b * b * b,
  r * g * b,
];
const TERMS = 14;
/** Fewer patches than this leave too little to tell the error by. */
export const LEAST_PATCHES = 30;
const RIDGE = 1e-5;

/** Lab by least squares over the card, and its error with each patch left out in turn. @throws RangeError of too few patches */
export function fitScanner(card: readonly CardPatch[]): Scanner {
  if (card.length < LEAST_PATCHES) throw new RangeError('Too few patches of the card.');
  const rows = card.map(({ rgb }) => terms(rgb));
  const normal = new Float64Array(TERMS * TERMS);
  for (const row of rows)
    for (let i = 0; i < TERMS; i++) for (let j = 0; j < TERMS; j++) normal[i * TERMS + j]! += row[i]! * row[j]!;
  for (let i = 0; i < TERMS; i++) normal[i * TERMS + i]! += RIDGE * card.length;
  const lower = cholesky(normal, TERMS);
  const weights = ([0, 1, 2] as const).map((c) => {
    const right = new Float64Array(TERMS);
    rows.forEach((row, p) => row.forEach((t, i) => (right[i]! += t * card[p]!.lab[c])));
    return solveCholesky(lower, TERMS, right);
  });
  const labOf = (rgb: Rgb): Lab => {
    const row = terms(rgb);
    return asThree(weights.map((w) => row.reduce((sum, t, i) => sum + t * w[i]!, 0)));
  };
  const errors = card.map(({ rgb, lab }, p) => {
    // What a patch has to say about itself: the rest of its error is what the others leave.
    const solved = solveCholesky(lower, TERMS, Float64Array.from(rows[p]!));
    const own = rows[p]!.reduce((sum, t, i) => sum + t * solved[i]!, 0);
    const fitted = labOf(rgb);
    const without = mapThree(lab, (v, c) => v - (v - fitted[c]!) / Math.max(1e-3, 1 - own));
    return deltaE2000(without, lab);
  });
  errors.sort((p, q) => p - q);
  const errorDeltaE = errors.reduce((sum, v) => sum + v, 0) / card.length;
  return { labOf, errorDeltaE, p95DeltaE: errors[Math.floor(0.95 * card.length)]! };
}
