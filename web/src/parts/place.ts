const NEAR = 1e-9;

/** The place of a value among all, the least first: equal ones share theirs, and the next one counts them. */
export const placeAmong = (value: number, all: readonly number[]): number =>
  1 + all.filter((other) => other < value - NEAR).length;
