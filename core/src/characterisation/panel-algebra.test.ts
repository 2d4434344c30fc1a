import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import wabt from 'wabt';
import { seededRandom } from '../random.ts';
import { cholesky, solveCholesky, solveLower } from './linear-algebra.ts';
import {
  addToDiagonal,
  columnsOf,
  factor,
  fillPanels,
  gram,
  lengthsOf,
  padded,
  rowOf,
  solveLowerPanel,
  solveUpperPanel,
  times,
} from './panel-algebra.ts';
import { PANEL, panelRoom } from './panels.ts';
import { PRODUCTS_BINARY } from './products-binary.ts';

it('the binary is what its text assembles to', async () => {
  const text = readFileSync(new URL('./products.wat', import.meta.url), 'utf8');
  const { parseWat } = await wabt();
  const { buffer } = parseWat('products.wat', text, { simd: true }).toBinary({});
  expect(Buffer.from(buffer).toString('base64')).toBe(PRODUCTS_BINARY);
});

const near = (found: ArrayLike<number>, wanted: ArrayLike<number>) =>
  Array.from(wanted, (v, i) => Math.abs(v - found[i])).every((off) => off < 1e-9);

it('a matrix in panels is factored and solved as it is row by row, whatever its size (fast-check)', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 23 }),
      fc.integer({ min: 1, max: 17 }),
      fc.integer(),
      (size, places, seed) => {
        const random = seededRandom(seed);
        const rows = Array.from({ length: places }, () => Float64Array.from({ length: size }, () => random() - 0.5));
        const counts = rows.map(() => 1 + random());
        const room = panelRoom([
          [size, places],
          [size, places],
          [size, padded(size)],
          [PANEL, padded(size)],
          [PANEL, padded(size)],
        ]);
        const triangle = gram(
          room,
          size,
          columnsOf(room, rows, (k) => counts[k]),
          columnsOf(room, rows),
        );
        for (let i = 0; i < size; i++) addToDiagonal(triangle, i, 0.5);
        factor(room, triangle);

        const plain = new Float64Array(size * size);
        for (let i = 0; i < size; i++)
          for (let j = 0; j <= i; j++)
            plain[i * size + j] = rows.reduce((sum, row, k) => sum + counts[k] * row[i] * row[j], i === j ? 0.5 : 0);
        cholesky(plain, size);
        for (let i = 0; i < size; i++)
          expect(near(rowOf(triangle, i).subarray(0, i + 1), plain.subarray(i * size, i * size + i + 1))).toBe(true);

        const sides = Array.from({ length: PANEL }, () => Float64Array.from({ length: size }, () => random()));
        const panel = room.take(PANEL, padded(size));
        fillPanels(panel, sides);
        solveLowerPanel(room, triangle, panel);
        const lengths = lengthsOf(panel);
        sides.forEach((side, r) => {
          const half = solveLower(plain, size, Float64Array.from(side));
          expect(near([lengths[r]], [half.reduce((sum, v) => sum + v * v, 0)])).toBe(true);
        });
        solveUpperPanel(triangle, panel);
        sides.forEach((side, r) => {
          expect(near(rowOf(panel, r), solveCholesky(plain, size, Float64Array.from(side)))).toBe(true);
        });
      },
    ),
    { seed: 4, numRuns: 60 },
  );
});

it('rows times rows are their sums of products', () => {
  const random = seededRandom(5);
  const list = (rows: number) => Array.from({ length: rows }, () => Float64Array.from({ length: 7 }, () => random()));
  const [a, b] = [list(6), list(9)];
  const room = panelRoom([
    [6, 7],
    [9, 7],
    [6, padded(9)],
  ]);
  const [left, right, to] = [room.take(6, 7), room.take(9, 7), room.take(6, padded(9))];
  fillPanels(left, a);
  fillPanels(right, b);
  times(room, left, right, to);
  a.forEach((row, i) => {
    const wanted = b.map((other) => row.reduce((sum, v, k) => sum + v * other[k], 0));
    expect(near(rowOf(to, i), wanted)).toBe(true);
  });
});

it('a matrix that is not positive definite is refused', () => {
  const room = panelRoom([[3, PANEL]]);
  const matrix = room.take(3, PANEL);
  for (const [i, v] of [1, -1, 1, 1].entries()) addToDiagonal(matrix, i, v);
  expect(() => factor(room, matrix)).toThrow(/not positive definite/);
});
