import { cholesky, solveCholesky } from '../characterisation/linear-algebra.ts';
import { three } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';

/** Fewest patches from which the expectation is bent towards what was read. */
const FEWEST = 40;

/**
 * What the rest of a chart should read, once some of it was read: the expectation of a printer of that kind, moved by the affine map of
 * CIELAB that brings it nearest to the readings so far (least squares). With too few readings it is left as it is.
 * @param pairs expected and read
 */
export function bendExpectation(pairs: readonly (readonly [expected: Lab, read: Lab])[]): (expected: Lab) => Lab {
  if (pairs.length < FEWEST) return (lab) => lab;
  // Normal equations of Lab_read = M · (1, L, a, b): one 4 × 4 system with three right sides.
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
