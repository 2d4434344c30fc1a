import type { Rgb } from '../colour/types.ts';

const cube = (levels: readonly number[]): Rgb[] =>
  levels.flatMap((r) => levels.flatMap((g) => levels.map((b): Rgb => [r, g, b])));

/** What a scanner is known by, in values of any printer: the ends and the middles of the cube, the colours between them, and greys. */
export const CARD_COLOURS: readonly Rgb[] = [
  ...cube([0, 0.5, 1]),
  ...cube([0.25, 0.62, 0.85]),
  ...[0.1, 0.18, 0.35, 0.44, 0.56, 0.7, 0.78, 0.93].map((v): Rgb => [v, v, v]),
];
