import { bordersOf, CAPTION_ROOM_MM, type Borders, type Edge } from '../layout/borders.ts';
import type { Surround } from './recipe.ts';

/** What lies around a picture: borders of bare paper, a caption under it, marks to trim by. */
export interface SurroundLaid {
  readonly borders: Borders;
  readonly caption: string;
  readonly trimMarks: boolean;
}

/** Paper that marks to trim by need around the picture, mm. */
const TRIM_ROOM_MM = 8;

/** Bare paper around a picture, with room for what stands in it; nothing where nothing is asked. */
export function surroundOf({ borderMm, borders, caption, trimMarks }: Surround): SurroundLaid | undefined {
  if (borderMm === 0 && !caption && !trimMarks) return undefined;
  const least = caption ? CAPTION_ROOM_MM : trimMarks ? TRIM_ROOM_MM : 0;
  return { borders: bordersOf(borders, Math.max(borderMm, least), caption), caption, trimMarks };
}

/** Bare paper beside a picture, in shares of its width (left, right) and height (top, bottom). */
export type Around = Readonly<Record<Edge, number>>;
export const NOTHING_AROUND: Around = { top: 0, right: 0, bottom: 0, left: 0 };

/** Bare paper around a picture of so many mm. */
export function aroundOf(laid: SurroundLaid | undefined, widthMm: number, heightMm: number): Around {
  if (!laid) return NOTHING_AROUND;
  const { top, right, bottom, left } = laid.borders;
  return { top: top / heightMm, right: right / widthMm, bottom: bottom / heightMm, left: left / widthMm };
}

/** A frame that holds the bare paper of both. */
export const holdingBoth = (a: Around, b: Around): Around => ({
  top: Math.max(a.top, b.top),
  right: Math.max(a.right, b.right),
  bottom: Math.max(a.bottom, b.bottom),
  left: Math.max(a.left, b.left),
});

/** A place of the frame, 0–1 from its left and its top, as one of the picture: outside 0–1 it lies on bare paper or beyond it. */
export const onPicture = ({ top, right, bottom, left }: Around, x: number, y: number): { x: number; y: number } => ({
  x: x * (1 + left + right) - left,
  y: y * (1 + top + bottom) - top,
});
