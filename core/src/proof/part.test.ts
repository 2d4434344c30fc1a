import fc from 'fast-check';
import {
  holds,
  inPart,
  inPicture,
  moved,
  nearer,
  NEAREST,
  WHOLE,
  withMargin,
  zoomOf,
  type Part,
  squareAbout,
} from './part.ts';

const share = fc.double({ min: 0, max: 1, noNaN: true });
/** Parts a hand can come to: nearer, further, aside. */
const part = fc
  .array(
    fc.tuple(fc.double({ min: 0.3, max: 4, noNaN: true }), share, share, fc.double({ min: -1, max: 1, noNaN: true })),
    {
      maxLength: 6,
    },
  )
  .map((turns) => turns.reduce<Part>((p, [f, x, y, by]) => moved(nearer(p, f, { x, y }), by, -by), WHOLE));

describe('a part of a picture', () => {
  it('never leaves it, and is never nearer than it may be', () =>
    fc.assert(
      fc.property(part, (p) => {
        expect(holds(WHOLE, p)).toBe(true);
        expect(zoomOf(p)).toBeLessThanOrEqual(NEAREST * (1 + 1e-9));
      }),
    ));

  it('what lies under the pointer stays under it while one comes nearer', () =>
    fc.assert(
      fc.property(share, share, fc.double({ min: 1, max: 8, noNaN: true }), (x, y, factor) => {
        const before = inPicture(WHOLE, x, y);
        const after = inPicture(nearer(WHOLE, factor, { x, y }), x, y);
        expect(after.x).toBeCloseTo(before.x, 9);
        expect(after.y).toBeCloseTo(before.y, 9);
      }),
    ));

  it('places go there and back; what lies outside is said to', () =>
    fc.assert(
      fc.property(part, share, share, (p, x, y) => {
        const at = inPicture(p, x, y);
        const back = inPart(withMargin(p, 0.01), at.x, at.y);
        expect(back).toBeDefined();
        expect(holds(withMargin(p, 0.25), p)).toBe(true);
      }),
    ));

  it('outside is outside', () =>
    expect(inPart({ x: 0.5, y: 0.5, width: 0.25, height: 0.25 }, 0.2, 0.6)).toBeUndefined());
});

describe('a square of the print about a place', () => {
  it('is as large on paper as it is asked for, with the place in its middle', () => {
    // 35 mm of a print of 420 × 280 mm.
    const part = squareAbout({ x: 0.5, y: 0.5 }, 35, [420, 280]);
    expect([part.width * 420, part.height * 280]).toEqual([expect.closeTo(35, 9), expect.closeTo(35, 9)]);
    expect([part.x + part.width / 2, part.y + part.height / 2]).toEqual([
      expect.closeTo(0.5, 9),
      expect.closeTo(0.5, 9),
    ]);
  });
  it('is moved in at an edge, and never reaches beyond the picture', () => {
    expect(squareAbout({ x: 0, y: 1 }, 42, [420, 280])).toEqual({ x: 0, y: 0.85, width: 0.1, height: 0.15 });
    expect(squareAbout({ x: 0.9, y: 0.1 }, 500, [420, 280])).toEqual({ x: 0, y: 0, width: 1, height: 1 });
  });
});
