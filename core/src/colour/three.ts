type Three = readonly [number, number, number];

/** Three numbers, each told from its place 0, 1, 2. */
export const three = (of: (c: number) => number): Three => [of(0), of(1), of(2)];

/** What becomes of each of three numbers: a `map` that does not forget how many there are. */
export const mapThree = (v: Three, to: (v: number, c: number) => number): Three => [
  to(v[0], 0),
  to(v[1], 1),
  to(v[2], 2),
];

/** The first three of some numbers. @throws RangeError where there are fewer */
export function asThree(v: readonly number[]): Three {
  if (v.length < 3) throw new RangeError(`Three numbers are asked for; there are ${v.length}.`);
  return [v[0]!, v[1]!, v[2]!];
}
