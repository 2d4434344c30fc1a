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
  // Normal equations of Lab_read = M · (1, L, a, b), one 4 × 4 system with three right-hand sides.
  const A = Array.from({ length: 4 }, () => new Array<number>(7).fill(0));
  for (const [e, r] of pairs) {
    const x = [1, ...e];
    for (let i = 0; i < 4; i++) {
      for (let j = 0; j < 4; j++) A[i]![j]! += x[i]! * x[j]!;
      for (let c = 0; c < 3; c++) A[i]![4 + c]! += x[i]! * r[c]!;
    }
  }
  // A little of the identity keeps a strip of greys alone from bending the colours.
  for (let i = 1; i < 4; i++) {
    A[i]![i]! += pairs.length;
    A[i]![3 + i]! += pairs.length;
  }
  for (let i = 0; i < 4; i++) {
    const pivot = A.slice(i).reduce((best, row, k) => (Math.abs(row[i]!) > Math.abs(A[best]![i]!) ? i + k : best), i);
    [A[i], A[pivot]] = [A[pivot]!, A[i]!];
    for (let k = 0; k < 4; k++) {
      if (k === i) continue;
      const by = A[k]![i]! / A[i]![i]!;
      for (let j = i; j < 7; j++) A[k]![j]! -= by * A[i]![j]!;
    }
  }
  const M = A.map((row, i) => row.slice(4).map((v) => v / row[i]!));
  return (lab) => three((c) => M[0]![c]! + M[1]![c]! * lab[0] + M[2]![c]! * lab[1] + M[3]![c]! * lab[2]);
}
