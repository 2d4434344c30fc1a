import { MARK_MM, type CornerMark } from './corner-marks.ts';

/** A scan that can't be used; says what is missing. */
export class ScanError extends Error {
  override readonly name = 'ScanError';
  constructor(
    message: string,
    readonly remedy: string,
  ) {
    super(message);
  }
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Middles of a sheet's marks, mm from its top left. */
export interface SheetMarks {
  readonly topRight: Point;
  readonly bottomLeft: Point;
  readonly bottomRight: Point;
}

/** Pixel of a place on the sheet, mm. */
export type OnScan = (xMm: number, yMm: number) => Point;

/** How far a sheet's sides may be from what they should be, as a share, and its corner from square. */
const TOLERANCE = 0.03;
/** A sheet lies upright to so much, as a share of a side. */
const MOST_TURN = 0.35;

/**
 * Finds a sheet by three of its marks: the two sides between them must be as long as they are on paper, in one scale, and stand square.
 * @throws ScanError where no three marks fit, or several do
 */
export function sheetInScan(name: string, marks: readonly CornerMark[], on: SheetMarks): OnScan {
  const long = (p: Point, q: Point) => Math.hypot(p.x - q.x, p.y - q.y);
  const [across, down] = [long(on.bottomLeft, on.bottomRight), long(on.topRight, on.bottomRight)];
  const fits: OnScan[] = [];
  for (const corner of marks)
    for (const left of marks)
      for (const top of marks) {
        if (corner === left || corner === top || left === top) continue;
        const [u, v] = [
          { x: (corner.x - left.x) / across, y: (corner.y - left.y) / across },
          { x: (corner.x - top.x) / down, y: (corner.y - top.y) / down },
        ];
        const [scale, other] = [Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)];
        const square = Math.abs(u.x * v.x + u.y * v.y) / (scale * other);
        const size = Math.abs(scale / other - 1);
        const marked = Math.abs(corner.side / MARK_MM / scale - 1);
        // Upright, and not in a mirror: right is to the right and down is down.
        if (u.x <= 0 || v.y <= 0 || Math.abs(u.y) > MOST_TURN * u.x) continue;
        if (square > TOLERANCE || size > TOLERANCE || marked > 0.25) continue;
        fits.push((x, y) => ({
          x: corner.x + u.x * (x - on.bottomRight.x) + v.x * (y - on.bottomRight.y),
          y: corner.y + u.y * (x - on.bottomRight.x) + v.y * (y - on.bottomRight.y),
        }));
      }
  if (fits.length > 1)
    throw new ScanError(
      `The corner marks of ${name} fit in ${fits.length} places of the scan: which is meant is not known.`,
      'Lay one sheet of strips and one card on the glass.',
    );
  if (!fits[0])
    throw new ScanError(
      `The corner marks of ${name} were not found in the scan.`,
      'Scan at 150 ppi or more, both sheets flat, upright and whole, with white around them.',
    );
  return fits[0];
}
