/** Places of a list, as numbers one after another, so that many searches go through them fast. */
export interface PlaceList {
  readonly axes: number;
  readonly values: Float64Array;
}

export const placeList = (places: readonly (readonly number[])[]): PlaceList => ({
  axes: places[0]?.length ?? 0,
  values: Float64Array.from(places.flat()),
});

/**
 * Indices of the nearest places, the nearest first.
 * @param count as many at most
 * @param not an index that is passed over: a place is no neighbour of itself
 */
export function nearest({ axes, values }: PlaceList, at: readonly number[], count: number, not = -1): number[] {
  const found: number[] = [];
  const squares: number[] = [];
  for (let p = 0, from = 0; from < values.length; p++, from += axes) {
    if (p === not) continue;
    let square = 0;
    for (let x = 0; x < axes; x++) square += (values[from + x]! - at[x]!) ** 2;
    if (found.length === count && square >= squares[count - 1]!) continue;
    let i = Math.min(found.length, count - 1);
    for (; i > 0 && squares[i - 1]! > square; i--) {
      squares[i] = squares[i - 1]!;
      found[i] = found[i - 1]!;
    }
    squares[i] = square;
    found[i] = p;
  }
  return found;
}
