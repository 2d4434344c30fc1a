import type { Around } from './surround.ts';

/** How a print is shown on the wall. */
export const HANGINGS = {
  wall: { name: 'the bare wall', mounted: false, framed: false },
  mount: { name: 'a white mount', mounted: true, framed: false },
  framed: { name: 'a mount and a frame', mounted: true, framed: true },
} as const;
export type Hanging = keyof typeof HANGINGS;
export const HANGING_KEYS = Object.keys(HANGINGS) as Hanging[];

/** Width of a mount: a sixth of the print’s longer side, within what is cut (practice). */
const MOUNT = { share: 1 / 6, leastMm: 35, mostMm: 100 };
/** Face of a plain frame, mm (practice). */
const FRAME_MM = 20;

/** Widths of mount and frame around a print, mm; 0 for what is not there. */
export function hungMm(hanging: Hanging, longSideMm: number): { readonly mountMm: number; readonly frameMm: number } {
  const { mounted, framed } = HANGINGS[hanging];
  return {
    mountMm: mounted ? Math.min(MOUNT.mostMm, Math.max(MOUNT.leastMm, longSideMm * MOUNT.share)) : 0,
    frameMm: framed ? FRAME_MM : 0,
  };
}

/** The same width on all four sides of a picture of so many mm, in shares of its width and height. */
export const allAround = (mm: number, widthMm: number, heightMm: number): Around => ({
  top: mm / heightMm,
  right: mm / widthMm,
  bottom: mm / heightMm,
  left: mm / widthMm,
});

/** Both widths, one outside the other. */
export const widened = (a: Around, b: Around): Around => ({
  top: a.top + b.top,
  right: a.right + b.right,
  bottom: a.bottom + b.bottom,
  left: a.left + b.left,
});

/** A box in per cent of the one it lies in, as CSS insets. */
export type Insets = Readonly<Record<'top' | 'right' | 'bottom' | 'left', number>>;

/**
 * Where what lies around a picture ends, in per cent of the whole drawing.
 * @param whole what is drawn around the picture in all
 * @param around what lies within the box
 */
export function insetsOf(whole: Around, around: Around): Insets {
  const wide = 1 + whole.left + whole.right;
  const high = 1 + whole.top + whole.bottom;
  return {
    top: (100 * (whole.top - around.top)) / high,
    right: (100 * (whole.right - around.right)) / wide,
    bottom: (100 * (whole.bottom - around.bottom)) / high,
    left: (100 * (whole.left - around.left)) / wide,
  };
}
