import fc from 'fast-check';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { latticeOf } from '../pictures/picture-api.ts';
import { fileSheet } from './file-sheet.ts';

it('the file in a hand gives every colour back as it is', () => {
  const sheet = fileSheet();
  const lattice = unpackLab(sheet.nodes, latticeOf(sheet));
  const ab = fc.double({ min: -127, max: 127, noNaN: true });
  fc.assert(
    fc.property(fc.double({ min: 0, max: 100, noNaN: true }), ab, ab, (L, a, b) => {
      const out = new Float32Array(3);
      throughPrinted(lattice, [L, a, b], out);
      expect(Math.hypot(out[0] - L, out[1] - a, out[2] - b)).toBeLessThan(0.04);
    }),
  );
  expect([sheet.white, sheet.blackL]).toEqual([[100, 0, 0], 0]);
});
