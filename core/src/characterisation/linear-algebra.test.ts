import fc from 'fast-check';
import { compose, componentsOf, project } from './components.ts';
import { cholesky, solveCholesky, solveLower, symmetricEigen } from './linear-algebra.ts';

const size = fc.integer({ min: 1, max: 13 });
const numbers = (n: number) =>
  fc
    .array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n, maxLength: n })
    .map((v) => Float64Array.from(v));

/** Symmetric, and positive definite: M·Mᵀ with something on the diagonal. */
const definite = size.chain((n) =>
  numbers(n * n).map((m) => {
    const a = new Float64Array(n * n);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        for (let k = 0; k < n; k++) a[i * n + j] += m[i * n + k] * m[j * n + k];
        if (i === j) a[i * n + j] += 0.5;
      }
    return { n, a };
  }),
);
const symmetric = size.chain((n) =>
  numbers(n * n).map((m) => ({ n, a: m.map((_, at) => m[at] + m[(at % n) * n + Math.floor(at / n)]) })),
);
const timesVector = (a: Float64Array, n: number, x: ArrayLike<number>) =>
  Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (__, k) => a[i * n + k] * x[k]).reduce((p, q) => p + q, 0),
  );

describe('Cholesky’s triangle', () => {
  it('times itself turned over is the matrix (fast-check)', () =>
    fc.assert(
      fc.property(definite, ({ n, a }) => {
        const lower = cholesky(Float64Array.from(a), n);
        for (let i = 0; i < n; i++)
          for (let j = 0; j <= i; j++) {
            let sum = 0;
            for (let k = 0; k <= j; k++) sum += lower[i * n + k] * lower[j * n + k];
            expect(sum).toBeCloseTo(a[i * n + j], 8);
          }
      }),
    ));

  it('solves what the matrix asks (fast-check)', () =>
    fc.assert(
      fc.property(
        definite,
        fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 13, maxLength: 13 }),
        ({ n, a }, b) => {
          const side = Float64Array.from(b.slice(0, n));
          const x = solveCholesky(cholesky(Float64Array.from(a), n), n, Float64Array.from(side));
          timesVector(a, n, x).forEach((v, i) => expect(v).toBeCloseTo(side[i], 6));
        },
      ),
    ));

  it('of a triangle alone solves forward', () => {
    expect([...solveLower(Float64Array.of(2, 0, 1, 4), 2, Float64Array.of(6, 11))]).toEqual([3, 2]);
  });

  it('is not made of a matrix that is not positive definite: that is said', () => {
    expect(() => cholesky(Float64Array.of(1, 2, 2, 1), 2)).toThrow(RangeError);
    expect(() => cholesky(Float64Array.of(0), 1)).toThrow(/positive definite/);
    expect(() => cholesky(Float64Array.of(NaN), 1)).toThrow(RangeError);
  });
});

describe('eigenvectors of a symmetric matrix', () => {
  it('are turned by it into themselves, of length 1, at right angles, the greatest first (fast-check)', () =>
    fc.assert(
      fc.property(symmetric, ({ n, a }) => {
        const { values, vectors } = symmetricEigen(a, n);
        expect(vectors).toHaveLength(n);
        for (let i = 0; i < n; i++) {
          if (i > 0) expect(values[i]).toBeLessThanOrEqual(values[i - 1] + 1e-9);
          timesVector(a, n, vectors[i]).forEach((v, k) => expect(v).toBeCloseTo(values[i] * vectors[i][k], 6));
          for (let j = 0; j <= i; j++) {
            const dot = vectors[i].reduce((s, v, k) => s + v * vectors[j][k], 0);
            expect(dot).toBeCloseTo(i === j ? 1 : 0, 8);
          }
        }
      }),
    ));

  it('keep the trace, and leave the matrix as it was (fast-check)', () =>
    fc.assert(
      fc.property(symmetric, ({ n, a }) => {
        const before = [...a];
        const { values } = symmetricEigen(a, n);
        let trace = 0;
        for (let i = 0; i < n; i++) trace += a[i * n + i];
        expect(values.reduce((s, v) => s + v, 0)).toBeCloseTo(trace, 7);
        expect([...a]).toEqual(before);
      }),
    ));
});

describe('components of spectra', () => {
  /** Rows made of two shapes, and a little of a third. */
  const shapes = [0, 1, 2].map((k) => Array.from({ length: 12 }, (_, i) => Math.sin(((k + 1) * (i + 1)) / 3)));
  const rows = Array.from({ length: 40 }, (_, n) => {
    const amounts = [Math.cos(n), Math.sin(2 * n), 0.001 * Math.cos(5 * n)];
    return shapes[0].map((_, i) => 0.4 + amounts.reduce((s, a, k) => s + a * shapes[k][i], 0));
  });

  it('hold what they were made of; what they leave out is no more than was said', () => {
    const parts = componentsOf(rows, { most: 10, leastRms: 0.002 });
    expect(parts.directions).toHaveLength(2);
    for (const row of rows)
      compose(parts, project(parts, row)).forEach((v, i) => expect(Math.abs(v - row[i])).toBeLessThan(0.005));
    const all = componentsOf(rows, { most: 10, leastRms: 1e-9 });
    for (const row of rows) compose(all, project(all, row)).forEach((v, i) => expect(v).toBeCloseTo(row[i], 9));
  });

  it('are no more than asked for, and one at least', () => {
    expect(componentsOf(rows, { most: 1, leastRms: 0 }).directions).toHaveLength(1);
    expect(componentsOf([rows[0], rows[0]], { most: 5, leastRms: 1 }).directions).toHaveLength(1);
  });

  it('without a mean sums stay sums: what two rows hold together is what each holds', () => {
    const parts = componentsOf(rows, { most: 6, leastRms: 1e-9, centred: false });
    const both = rows[0].map((v, i) => v + rows[1][i]);
    const [p, q] = [project(parts, rows[0]), project(parts, rows[1])];
    project(parts, both).forEach((v, i) => expect(v).toBeCloseTo(p[i] + q[i], 9));
    expect(Array.from(parts.mean)).toEqual(new Array(12).fill(0));
  });

  it('begin in a list where they are told to', () => {
    const parts = componentsOf(rows, { most: 2, leastRms: 0 });
    const amounts = project(parts, rows[3]);
    expect(compose(parts, [9, 9, ...amounts], 2)).toEqual(compose(parts, amounts));
  });
});
