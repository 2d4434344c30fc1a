import fc from 'fast-check';
import { abAt, MOST_AB, nodeLab, placeOfAb } from './lab-axes.ts';

it('a place and its colour are one, to and fro; the order is kept (fast-check)', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (p, q) => {
      expect(placeOfAb(abAt(p))).toBeCloseTo(p, 9);
      if (p < q) expect(abAt(p)).toBeLessThanOrEqual(abAt(q));
    }),
  );
});

it('ends and grey lie on nodes, and nodes about grey are closer than even ones', () => {
  expect(nodeLab([1, 0.5, 0.5])).toEqual([100, 0, 0]);
  expect([abAt(0), abAt(1)]).toEqual([-MOST_AB, MOST_AB]);
  expect(abAt(17 / 32)).toBeLessThan(4);
  expect(placeOfAb(200)).toBeGreaterThan(1);
});
