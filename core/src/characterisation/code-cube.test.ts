import fc from 'fast-check';
import { throughCodes } from './code-cube.ts';
import { readCube } from './lattice.ts';

const NODES = 5;
const value = fc.integer({ min: 0, max: 65_535 });
const cubes = fc
  .array(value, { minLength: NODES ** 3 * 3, maxLength: NODES ** 3 * 3 })
  .map((v) => ({ nodes: NODES, values: Float32Array.from(v) }));

describe('codes through a lattice', () => {
  it('give what every other lattice gives, rounded', () => {
    fc.assert(
      fc.property(cubes, fc.tuple(value, value, value), (cube, code) => {
        const out = new Uint16Array(3);
        throughCodes(cube, Uint16Array.from(code), 65_535, out);
        const found = new Float64Array(3);
        readCube(NODES, cube.values, code[0] / 65_535, code[1] / 65_535, code[2] / 65_535, found, 0);
        for (let c = 0; c < 3; c++) expect(Math.abs(out[c] - found[c])).toBeLessThanOrEqual(0.51);
      }),
    );
  });

  it('give the nodes themselves at the corners, in 8 bits as in 16', () => {
    const values = Float32Array.from({ length: NODES ** 3 * 3 }, (_, i) => (i * 7919) % 65_536);
    const corner = values.slice(-3);
    const out = new Uint16Array(6);
    throughCodes({ nodes: NODES, values }, Uint8Array.of(255, 255, 255, 0, 0, 0), 255, out);
    expect([...out]).toEqual([...corner, ...values.slice(0, 3)]);
  });
});
