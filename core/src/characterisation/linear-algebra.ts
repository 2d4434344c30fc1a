/** Dense linear algebra of symmetric matrices, row by row in one array; small enough that a package would cost more than it saves. */

/**
 * Lower triangle L of a symmetric positive definite matrix, A = L·Lᵀ, in place; what lies above the diagonal is left as it was.
 * @throws RangeError where the matrix is not positive definite
 */
export function cholesky(a: Float64Array, size: number): Float64Array {
  // Four rows at a time: each earlier row is fetched once for the four.
  const whole = size - (size % 4);
  for (let i = 0; i < whole; i += 4) {
    const r0 = i * size;
    const r1 = r0 + size;
    const r2 = r1 + size;
    const r3 = r2 + size;
    for (let j = 0; j < i; j++) {
      const other = j * size;
      let s0 = a[r0 + j]!;
      let s1 = a[r1 + j]!;
      let s2 = a[r2 + j]!;
      let s3 = a[r3 + j]!;
      for (let k = 0; k < j; k++) {
        const l = a[other + k]!;
        s0 -= a[r0 + k]! * l;
        s1 -= a[r1 + k]! * l;
        s2 -= a[r2 + k]! * l;
        s3 -= a[r3 + k]! * l;
      }
      const d = 1 / a[other + j]!;
      a[r0 + j] = s0 * d;
      a[r1 + j] = s1 * d;
      a[r2 + j] = s2 * d;
      a[r3 + j] = s3 * d;
    }
    for (let row = i; row < i + 4; row++) finishRow(a, size, row, i);
  }
  for (let row = whole; row < size; row++) finishRow(a, size, row, 0);
  return a;
}

/** Row of the triangle from column `from` on; what lies before is done. */
function finishRow(a: Float64Array, size: number, i: number, from: number): void {
  const row = i * size;
  for (let j = from; j <= i; j++) {
    const other = j * size;
    let sum = a[row + j]!;
    for (let k = 0; k < j; k++) sum -= a[row + k]! * a[other + k]!;
    if (i !== j) a[row + j] = sum / a[other + j]!;
    else {
      if (!(sum > 0)) throw new RangeError('The matrix is not positive definite.');
      a[row + j] = Math.sqrt(sum);
    }
  }
}

/** Solves L·x = b for one right side, in place. */
export function solveLower(lower: Float64Array, size: number, b: Float64Array): Float64Array {
  for (let i = 0; i < size; i++) {
    const row = i * size;
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= lower[row + k]! * b[k]!;
    b[i] = sum / lower[row + i]!;
  }
  return b;
}

/** Solves L·Lᵀ·x = b for one right side, in place. */
export function solveCholesky(lower: Float64Array, size: number, b: Float64Array): Float64Array {
  solveLower(lower, size, b);
  for (let i = size - 1; i >= 0; i--) {
    const x = (b[i]! /= lower[i * size + i]!);
    const row = i * size;
    for (let k = 0; k < i; k++) b[k]! -= lower[row + k]! * x;
  }
  return b;
}

/** Eigenvalues from the greatest to the least, with their vectors of length 1. */
export interface Eigen {
  readonly values: Float64Array;
  /** One a row. */
  readonly vectors: readonly Float64Array[];
}

const SWEEPS = 40;

/** Turns two rows into each other by an angle of cosine c and sine s. */
function turnRows(rows: Float64Array, p: number, q: number, size: number, c: number, s: number): void {
  for (let k = 0; k < size; k++) {
    const x = rows[p + k]!;
    const y = rows[q + k]!;
    rows[p + k] = c * x - s * y;
    rows[q + k] = s * x + c * y;
  }
}

/** Eigenvectors of a small symmetric matrix by Jacobi's rotations (Golub & Van Loan, "Matrix Computations", 8.5). */
export function symmetricEigen(matrix: Float64Array, size: number): Eigen {
  const a = Float64Array.from(matrix);
  const v = new Float64Array(size * size);
  for (let i = 0; i < size; i++) v[i * size + i] = 1;
  const scale = a.reduce((sum, x) => sum + x * x, 0);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let off = 0;
    for (let p = 0; p < size; p++) {
      for (let q = p + 1; q < size; q++) {
        const apq = a[p * size + q]!;
        off += apq * apq;
        if (apq * apq <= 1e-32 * scale) continue;
        const theta = (a[q * size + q]! - a[p * size + p]!) / (2 * apq);
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.hypot(theta, 1));
        const c = 1 / Math.hypot(t, 1);
        const s = t * c;
        for (let k = 0; k < size; k++) {
          const x = a[k * size + p]!;
          const y = a[k * size + q]!;
          a[k * size + p] = c * x - s * y;
          a[k * size + q] = s * x + c * y;
        }
        turnRows(a, p * size, q * size, size, c, s);
        turnRows(v, p * size, q * size, size, c, s);
      }
    }
    if (off <= 1e-28 * scale) break;
  }
  const order = Array.from({ length: size }, (_, i) => i).sort((i, j) => a[j * size + j]! - a[i * size + i]!);
  return {
    values: Float64Array.from(order, (i) => a[i * size + i]!),
    vectors: order.map((i) => v.slice(i * size, (i + 1) * size)),
  };
}
