/** i-th number of Halton's sequence in a base, 0–1: any count of them is spread evenly (Halton 1960). */
export function halton(i: number, base: number): number {
  let [fraction, result] = [1, 0];
  for (let n = i; n > 0; n = Math.floor(n / base)) {
    fraction /= base;
    result += fraction * (n % base);
  }
  return result;
}
