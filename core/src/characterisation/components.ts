import { symmetricEigen } from './linear-algebra.ts';

/** A few spectra whose sums come near to many: a mean and directions from it, each `width` long. */
export interface Components {
  readonly width: number;
  readonly mean: ArrayLike<number>;
  /** One a row, of length 1, at right angles. */
  readonly directions: readonly ArrayLike<number>[];
}

/**
 * Principal components of rows of equal width.
 * @param most as many at most
 * @param leastRms root mean square a component must add to be kept, in the rows' unit
 * @param centred whether a mean is taken away first; without it sums of components stay linear in what they stand for
 */
export function componentsOf(
  rows: readonly ArrayLike<number>[],
  { most, leastRms, centred = true }: { most: number; leastRms: number; centred?: boolean },
): Components {
  const width = rows[0]!.length;
  const mean = new Float64Array(width);
  if (centred) for (const row of rows) for (let i = 0; i < width; i++) mean[i]! += row[i]! / rows.length;
  const spread = new Float64Array(width * width);
  const off = new Float64Array(width);
  for (const row of rows) {
    for (let i = 0; i < width; i++) off[i] = row[i]! - mean[i]!;
    for (let i = 0; i < width; i++) for (let j = 0; j <= i; j++) spread[i * width + j]! += off[i]! * off[j]!;
  }
  for (let i = 0; i < width; i++)
    for (let j = 0; j <= i; j++) spread[j * width + i] = spread[i * width + j]! /= rows.length;
  const { values, vectors } = symmetricEigen(spread, width);
  const kept = vectors.filter((_, i) => i < most && values[i]! > 0 && Math.sqrt(values[i]! / width) >= leastRms);
  return { width, mean, directions: kept.length > 0 ? kept : vectors.slice(0, 1) };
}

/** How much of each component a row holds. */
export function project({ width, mean, directions }: Components, row: ArrayLike<number>): Float64Array {
  return Float64Array.from(directions, (d) => {
    let sum = 0;
    for (let i = 0; i < width; i++) sum += (row[i]! - mean[i]!) * d[i]!;
    return sum;
  });
}

/** The row that so much of each component makes. */
export function compose({ width, mean, directions }: Components, amounts: ArrayLike<number>, from = 0): Float64Array {
  const row = Float64Array.from(mean);
  directions.forEach((d, c) => {
    const amount = amounts[from + c]!;
    for (let i = 0; i < width; i++) row[i]! += amount * d[i]!;
  });
  return row;
}
