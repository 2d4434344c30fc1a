/** A corner mark found in a scan: a dark square about a light one, with a dark heart or without. */
export interface CornerMark {
  /** Its middle, pixels. */
  readonly x: number;
  readonly y: number;
  /** Its side, pixels. */
  readonly side: number;
  readonly heart: boolean;
}

/** Side of a mark on paper, mm, as charts have them; its light square is 2 mm smaller, a heart 1 mm. */
export const MARK_MM = 5;
const HEART_MM = 1;

/** A dark place is darker than this share of the way from the darkest to the lightest of the scan. */
const DARK = 0.4;
/** Marks are looked for from this size on; smaller ones are letters. */
const LEAST_SIDE_PX = 8;

/** A black square with a white one in it, as boxes to be drawn. @returns x, y, side, dark */
export function markBoxes(
  xMm: number,
  yMm: number,
  heart: boolean,
): readonly { readonly xMm: number; readonly yMm: number; readonly side: number; readonly dark: boolean }[] {
  const inset = (by: number, dark: boolean) => ({ xMm: xMm + by, yMm: yMm + by, side: MARK_MM - 2 * by, dark });
  return [inset(0, true), inset(1, false), ...(heart ? [inset((MARK_MM - HEART_MM) / 2, true)] : [])];
}

/** Corner marks in a scan that lies about upright. @param light of each pixel, row by row, on any scale */
export function findMarks(light: ArrayLike<number>, width: number, height: number): CornerMark[] {
  const sorted = Float32Array.from({ length: 4096 }, (_, i) => light[Math.floor((i * width * height) / 4096)]!).sort();
  const [darkest, lightest] = [sorted[40]!, sorted[4055]!];
  const bound = darkest + DARK * (lightest - darkest);
  const dark = (x: number, y: number) => light[y * width + x]! < bound;
  return squares(dark, width, height).flatMap(({ left, top, right, bottom }) => {
    const [x, y] = [(left + right) / 2, (top + bottom) / 2];
    const side = (right - left + bottom - top + 2) / 2;
    const heart = dark(Math.round(x), Math.round(y));
    // Half a millimetre off the edge it is dark, 1.5 mm in it is light, on all four sides: a letter or a patch is not.
    const at = (mm: number, dx: number, dy: number) => {
      const reach = (0.5 - mm / MARK_MM) * side;
      return dark(Math.round(x + dx * reach), Math.round(y + dy * reach));
    };
    const sides = [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const;
    const ringed = sides.every(([dx, dy]) => at(0.5, dx, dy) && !at(1.5, dx, dy));
    return ringed ? [{ x, y, side, heart }] : [];
  });
}

interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Connected dark places as wide as they are high. */
function squares(dark: (x: number, y: number) => boolean, width: number, height: number): Bounds[] {
  const seen = new Uint8Array(width * height);
  const found: Bounds[] = [];
  const stack: number[] = [];
  for (let start = 0; start < seen.length; start++) {
    if (seen[start] || !dark(start % width, Math.floor(start / width))) continue;
    let [left, top, right, bottom] = [width, height, 0, 0];
    stack.push(start);
    seen[start] = 1;
    while (stack.length > 0) {
      const at = stack.pop()!;
      const x = at % width;
      const y = (at - x) / width;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
      const next = (to: number, tx: number, ty: number) => {
        if (seen[to] || !dark(tx, ty)) return;
        seen[to] = 1;
        stack.push(to);
      };
      if (x > 0) next(at - 1, x - 1, y);
      if (x + 1 < width) next(at + 1, x + 1, y);
      if (y > 0) next(at - width, x, y - 1);
      if (y + 1 < height) next(at + width, x, y + 1);
    }
    const [w, h] = [right - left + 1, bottom - top + 1];
    if (Math.min(w, h) >= LEAST_SIDE_PX && Math.max(w, h) / Math.min(w, h) < 1.25)
      found.push({ left, top, right, bottom });
  }
  return found;
}
