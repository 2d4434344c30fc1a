import { apply, invert, multiply, type Matrix3 } from './matrix.ts';
import type { Xyz } from './types.ts';

/** The Bradford cone matrix (ICC.1, annex E). */
const BRADFORD: Matrix3 = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
];
const BRADFORD_INVERSE = invert(BRADFORD);

/** Matrix that takes XYZ under white `from` to the corresponding colour under white `to`, linear Bradford. */
export function bradford(from: Xyz, to: Xyz): Matrix3 {
  const s = apply(BRADFORD, from);
  const d = apply(BRADFORD, to);
  const scale: Matrix3 = [
    [d[0] / s[0], 0, 0],
    [0, d[1] / s[1], 0],
    [0, 0, d[2] / s[2]],
  ];
  return multiply(BRADFORD_INVERSE, multiply(scale, BRADFORD));
}
