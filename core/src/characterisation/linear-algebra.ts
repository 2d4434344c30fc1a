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
      let s0 = a[r0 + j];
      let s1 = a[r1 + j];
      let s2 = a[r2 + j];
      let s3 = a[r3 + j];
      for (let k = 0; k < j; k++) {
        const l = a[other + k];
        s0 -= a[r0 + k] * l;
        s1 -= a[r1 + k] * l;
        s2 -= a[r2 + k] * l;
        s3 -= a[r3 + k] * l;
      }
      const d = 1 / a[other + j];
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
    let sum = a[row + j];
    for (let k = 0; k < j; k++) sum -= a[row + k] * a[other + k];
    if (i !== j) a[row + j] = sum / a[other + j];
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
    let sum = b[i];
    for (let k = 0; k < i; k++) sum -= lower[row + k] * b[k];
    b[i] = sum / lower[row + i];
  }
  return b;
}

/**
 * |L⁻¹·b|² of four right sides at once: L is fetched from memory once for the four, which is what such a solve waits for.
 */
export function lengthsThrough(
  lower: Float64Array,
  size: number,
  b: readonly Float64Array[],
): [number, number, number, number] {
  const [b0, b1, b2, b3] = [0, 1, 2, 3].map((i) => Float64Array.from(b[i] ?? b[0]));
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  for (let i = 0; i < size; i++) {
    const row = i * size;
    let x0 = b0[i];
    let x1 = b1[i];
    let x2 = b2[i];
    let x3 = b3[i];
    for (let k = 0; k < i; k++) {
      const l = lower[row + k];
      x0 -= l * b0[k];
      x1 -= l * b1[k];
      x2 -= l * b2[k];
      x3 -= l * b3[k];
    }
    const d = 1 / lower[row + i];
    s0 += (b0[i] = x0 * d) ** 2;
    s1 += (b1[i] = x1 * d) ** 2;
    s2 += (b2[i] = x2 * d) ** 2;
    s3 += (b3[i] = x3 * d) ** 2;
  }
  return [s0, s1, s2, s3];
}

/** Adds Σ w·f·fᵀ of rows f to the lower triangle of a matrix. */
export function addProducts(
  to: Float64Array,
  size: number,
  rows: readonly Float64Array[],
  weightOf: (row: number) => number,
): void {
  const n = rows.length;
  // Turned on their side, products are sums along memory, four columns at a time.
  const columns = Array.from({ length: size }, (_, i) => Float64Array.from(rows, (row) => row[i]));
  const weights = Float64Array.from(rows, (_, p) => weightOf(p));
  const weighted = new Float64Array(n * 4);
  for (let i = 0; i < size; i += 4) {
    const wide = Math.min(4, size - i);
    weighted.fill(0);
    for (let c = 0; c < wide; c++) for (let p = 0; p < n; p++) weighted[p * 4 + c] = columns[i + c][p] * weights[p];
    for (let j = 0; j < i + wide; j++) {
      const column = columns[j];
      let s0 = 0;
      let s1 = 0;
      let s2 = 0;
      let s3 = 0;
      for (let p = 0, at = 0; p < n; p++, at += 4) {
        const f = column[p];
        s0 += weighted[at] * f;
        s1 += weighted[at + 1] * f;
        s2 += weighted[at + 2] * f;
        s3 += weighted[at + 3] * f;
      }
      if (j <= i) to[i * size + j] += s0;
      if (wide > 1 && j <= i + 1) to[(i + 1) * size + j] += s1;
      if (wide > 2 && j <= i + 2) to[(i + 2) * size + j] += s2;
      if (wide > 3 && j <= i + 3) to[(i + 3) * size + j] += s3;
    }
  }
}

/** Solves L·Lᵀ·x = b for one right side, in place. */
export function solveCholesky(lower: Float64Array, size: number, b: Float64Array): Float64Array {
  solveLower(lower, size, b);
  for (let i = size - 1; i >= 0; i--) {
    const x = (b[i] /= lower[i * size + i]);
    const row = i * size;
    for (let k = 0; k < i; k++) b[k] -= lower[row + k] * x;
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
        const apq = a[p * size + q];
        off += apq * apq;
        if (apq * apq <= 1e-32 * scale) continue;
        const theta = (a[q * size + q] - a[p * size + p]) / (2 * apq);
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.hypot(theta, 1));
        const c = 1 / Math.hypot(t, 1);
        const s = t * c;
        for (let k = 0; k < size; k++) {
          const [x, y] = [a[k * size + p], a[k * size + q]];
          a[k * size + p] = c * x - s * y;
          a[k * size + q] = s * x + c * y;
        }
        for (let k = 0; k < size; k++) {
          const [x, y] = [a[p * size + k], a[q * size + k]];
          a[p * size + k] = c * x - s * y;
          a[q * size + k] = s * x + c * y;
          const [vx, vy] = [v[p * size + k], v[q * size + k]];
          v[p * size + k] = c * vx - s * vy;
          v[q * size + k] = s * vx + c * vy;
        }
      }
    }
    if (off <= 1e-28 * scale) break;
  }
  const order = Array.from({ length: size }, (_, i) => i).sort((i, j) => a[j * size + j] - a[i * size + i]);
  return {
    values: Float64Array.from(order, (i) => a[i * size + i]),
    vectors: order.map((i) => v.slice(i * size, (i + 1) * size)),
  };
}
