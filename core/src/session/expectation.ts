import { cholesky, solveCholesky } from '../characterisation/linear-algebra.ts';
import { three } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';

/** What a patch should read. */
export interface Expected {
  readonly lab: Lab;
  /** How far the expectation itself may be off, one standard deviation, ΔE*ab; absent while too little was read to know. */
  readonly doubtDeltaE?: number;
}

/** Fewest patches from which the expectation is bent towards what was read. */
const FEWEST = 40;
/** How far what was read of a colour is taken to hold for its neighbours, ΔE*ab (our own choice). */
const REACH = 12;
/** Readings of neighbours that a guess of no difference stands for (our own choice). */
const DOUBT = 0.5;
/** Square of the distance from which a neighbour counts for nothing. */
const FARTHEST = (4 * REACH) ** 2;

/**
 * What the rest of a chart should read, once some of it was read: the expectation of a printer of that kind, moved by the affine map of
 * CIELAB that brings it nearest to the readings so far (least squares), then by what is left over at neighbouring
 * colours (a mean weighted by distance). With too few readings it is left as it is.
 * @param pairs expected and read
 */
export function bendExpectation(pairs: readonly (readonly [expected: Lab, read: Lab])[]): (expected: Lab) => Expected {
  if (pairs.length < FEWEST) return (lab) => ({ lab });
  const affine = affineMap(pairs);
  const left = pairs.map(([at, read]) => {
    const by = affine(at);
    return { at, rest: three((c) => read[c]! - by[c]!) };
  });
  // What is left over at large: how far off a colour may be of which no neighbour was read.
  const atLarge = left.reduce((sum, { rest }) => sum + squareOf(rest), 0) / left.length;
  return (lab) => {
    const sum = [0, 0, 0];
    let [weight, square] = [DOUBT, DOUBT * atLarge];
    for (const { at, rest } of left) {
      const far = (at[0] - lab[0]) ** 2 + (at[1] - lab[1]) ** 2 + (at[2] - lab[2]) ** 2;
      if (far > FARTHEST) continue;
      const w = Math.exp(-far / (2 * REACH * REACH));
      weight += w;
      square += w * squareOf(rest);
      for (let c = 0; c < 3; c++) sum[c]! += w * rest[c]!;
    }
    const by = affine(lab);
    const mean = three((c) => sum[c]! / weight);
    return {
      lab: three((c) => by[c]! + mean[c]!),
      doubtDeltaE: Math.sqrt(Math.max(0, square / weight - squareOf(mean)) + atLarge * (DOUBT / weight)),
    };
  };
}

const squareOf = (v: readonly number[]) => v[0]! ** 2 + v[1]! ** 2 + v[2]! ** 2;

/** Lab_read = M · (1, L, a, b), by least squares. */
function affineMap(pairs: readonly (readonly [expected: Lab, read: Lab])[]): (lab: Lab) => Lab {
  // Normal equations: one 4 × 4 system with three right sides.
  const normal = new Float64Array(16);
  const sides = [0, 1, 2].map(() => new Float64Array(4));
  for (const [e, read] of pairs) {
    const x = [1, ...e];
    for (let i = 0; i < 4; i++) {
      for (let j = 0; j < 4; j++) normal[i * 4 + j]! += x[i]! * x[j]!;
      sides.forEach((side, c) => (side[i]! += x[i]! * read[c]!));
    }
  }
  // A little of the identity keeps a strip of greys alone from bending the colours.
  for (let i = 1; i < 4; i++) {
    normal[i * 4 + i]! += pairs.length;
    sides[i - 1]![i]! += pairs.length;
  }
  const lower = cholesky(normal, 4);
  const map = sides.map((side) => solveCholesky(lower, 4, side));
  return (lab) => three((c) => map[c]![0]! + map[c]![1]! * lab[0] + map[c]![2]! * lab[1] + map[c]![3]! * lab[2]);
}
