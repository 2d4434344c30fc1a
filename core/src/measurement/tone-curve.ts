/** A point of a curve that may only rise. */
export interface CurvePoint {
  readonly x: number;
  readonly y: number;
}

/**
 * A smooth curve that never falls, through points that may: dips are levelled (pool adjacent violators), then cubic pieces with slopes that
 * keep the order (Fritsch & Carlson 1980) run between them.
 * @param points x rising strictly, at least two
 */
export function risingCurve(points: readonly CurvePoint[]): (x: number) => number {
  const y = levelled(points.map((p) => p.y));
  const x = points.map((p) => p.x);
  const last = x.length - 1;
  const secant = Array.from({ length: last }, (_, i) => (y[i + 1]! - y[i]!) / (x[i + 1]! - x[i]!));
  const slope = x.map((_, i) => {
    if (i === 0) return secant[0];
    if (i === last) return secant[last - 1];
    return secant[i - 1]! * secant[i]! <= 0 ? 0 : (secant[i - 1]! + secant[i]!) / 2;
  });
  secant.forEach((d, i) => {
    if (d === 0) slope[i] = slope[i + 1] = 0;
    else {
      const steep = Math.hypot(slope[i]!, slope[i + 1]!) / d;
      if (steep > 3) {
        slope[i]! *= 3 / steep;
        slope[i + 1]! *= 3 / steep;
      }
    }
  });
  return (at) => {
    if (at <= x[0]!) return y[0]!;
    if (at >= x[last]!) return y[last]!;
    let i = 0;
    while (x[i + 1]! < at) i++;
    const h = x[i + 1]! - x[i]!;
    const t = (at - x[i]!) / h;
    const [tt, ttt] = [t * t, t * t * t];
    return (
      (2 * ttt - 3 * tt + 1) * y[i]! +
      (ttt - 2 * tt + t) * h * slope[i]! +
      (3 * tt - 2 * ttt) * y[i + 1]! +
      (ttt - tt) * h * slope[i + 1]!
    );
  };
}

/** The nearest values that never fall, by least squares. */
export function levelled(values: readonly number[]): number[] {
  const blocks: { mean: number; count: number }[] = [];
  for (const value of values) {
    let block = { mean: value, count: 1 };
    for (let before = blocks.at(-1); before && before.mean > block.mean; before = blocks.at(-1)) {
      blocks.pop();
      const count = before.count + block.count;
      block = { mean: (before.mean * before.count + block.mean * block.count) / count, count };
    }
    blocks.push(block);
  }
  return blocks.flatMap(({ mean, count }) => new Array<number>(count).fill(mean));
}
