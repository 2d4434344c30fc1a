/** A size a paper is sold in. */
export interface SoldSize {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly sheets: number;
  /** Of all its sheets; absent where it is not known. */
  readonly packPrice?: number;
}

/** Lowest price a square metre among the sizes that have one; undefined where none has. */
export function pricePerM2(sizes: readonly SoldSize[]): number | undefined {
  const prices = sizes.flatMap((s) =>
    s.packPrice === undefined ? [] : [s.packPrice / (s.sheets * s.widthMm * s.heightMm * 1e-6)],
  );
  return prices.length > 0 ? Math.min(...prices) : undefined;
}
