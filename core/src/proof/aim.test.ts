import fc from 'fast-check';
import { compensated, RENDERINGS } from '../characterisation/renderings.ts';
import { relativeToWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import { aimed, aimOf, movesAll } from './aim.ts';
import { PLAIN } from './recipe.ts';
import { aroundOf, holdingBoth, NOTHING_AROUND, onPicture, surroundOf } from './surround.ts';

const sheet = { white: [96, 0.5, -3] as Lab, blackL: 12 };
const labs = fc.tuple(
  fc.double({ min: 0, max: 100, noNaN: true }),
  fc.double({ min: -60, max: 60, noNaN: true }),
  fc.double({ min: -60, max: 60, noNaN: true }),
);
const near = (got: Lab, wanted: Lab) => got.forEach((v, i) => expect(v).toBeCloseTo(wanted[i], 6));

it('what a printed colour is held against is what its rendering aims at (fast-check)', () => {
  fc.assert(
    fc.property(labs, (lab) => {
      near(aimed(aimOf('relative', sheet), lab), compensated(0, sheet.blackL)(lab));
      near(aimed(aimOf('uncompensated', sheet), lab), lab);
      near(aimed(aimOf('absolute', sheet), lab), relativeToWhite(sheet.white)(lab));
    }),
  );
  expect(RENDERINGS.filter((r) => movesAll(r.key)).map((r) => r.key)).toEqual(['perceptual', 'saturation']);
});

it('bare paper lies where it was asked for: the picture in the middle of its frame, a caption with its room', () => {
  expect(surroundOf(PLAIN)).toBeUndefined();
  const laid = surroundOf({ borderMm: 10, borders: 'equal', caption: 'Ramp 1', trimMarks: false });
  // A caption asks for its own room under the picture.
  expect(laid?.borders).toEqual({ top: 12, right: 12, bottom: 12, left: 12 });
  const around = aroundOf(surroundOf({ borderMm: 21, borders: 'bottom', caption: '', trimMarks: true }), 420, 280);
  expect(around).toEqual({ top: 0.075, right: 0.05, bottom: 0.09375, left: 0.05 });
  expect(onPicture(around, 0, 0)).toEqual({ x: -0.05, y: -0.075 });
  const end = onPicture(around, 1, 1);
  expect(end.x).toBeCloseTo(1.05, 9);
  expect(end.y).toBeCloseTo(1.09375, 9);
  expect(onPicture(NOTHING_AROUND, 0.3, 0.7)).toEqual({ x: 0.3, y: 0.7 });
  expect(holdingBoth(around, NOTHING_AROUND)).toEqual(around);
});
