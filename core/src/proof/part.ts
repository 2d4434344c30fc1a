/** A part of a picture, in shares of its width and height; the whole is 0, 0, 1, 1. */
export interface Part {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const WHOLE: Part = { x: 0, y: 0, width: 1, height: 1 };
/** So much nearer at most: a 400-megapixel picture fills a screen with its own pixels. */
export const NEAREST = 32;

const within = (least: number, v: number, most: number) => Math.min(most, Math.max(least, v));
const kept = (x: number, y: number, width: number, height: number): Part => ({
  x: within(0, x, 1 - width),
  y: within(0, y, 1 - height),
  width,
  height,
});

export const zoomOf = ({ width }: Part): number => 1 / width;

/**
 * Nearer (factor above 1) or further, about a place of the part that stays where it is.
 * @param at place in the part, 0–1
 */
export function nearer(
  part: Part,
  factor: number,
  at: { readonly x: number; readonly y: number } = { x: 0.5, y: 0.5 },
): Part {
  const width = within(1 / NEAREST, part.width / factor, 1);
  const height = within(1 / NEAREST, part.height / factor, 1);
  return kept(part.x + (part.width - width) * at.x, part.y + (part.height - height) * at.y, width, height);
}

/** Moved by so many of its own widths and heights, never beyond the picture. */
export const moved = (part: Part, across: number, down: number): Part =>
  kept(part.x + across * part.width, part.y + down * part.height, part.width, part.height);

/** A place of the part as a place of the picture. */
export const inPicture = (part: Part, x: number, y: number): { x: number; y: number } => ({
  x: part.x + x * part.width,
  y: part.y + y * part.height,
});

/** A place of the picture as a place of a part; undefined where it lies outside. */
export function inPart(part: Part, x: number, y: number): { x: number; y: number } | undefined {
  const [u, v] = [(x - part.x) / part.width, (y - part.y) / part.height];
  return u >= 0 && u <= 1 && v >= 0 && v <= 1 ? { x: u, y: v } : undefined;
}

/** The part with a margin about it, so that a small move needs nothing new. */
export const withMargin = (part: Part, share: number): Part => {
  const [width, height] = [Math.min(1, part.width * (1 + 2 * share)), Math.min(1, part.height * (1 + 2 * share))];
  return kept(part.x - (width - part.width) / 2, part.y - (height - part.height) / 2, width, height);
};

export const holds = (outer: Part, inner: Part): boolean =>
  inner.x >= outer.x - 1e-9 &&
  inner.y >= outer.y - 1e-9 &&
  inner.x + inner.width <= outer.x + outer.width + 1e-9 &&
  inner.y + inner.height <= outer.y + outer.height + 1e-9;

/**
 * A square of the print about a place, as a part of the picture; at an edge it is moved in, and of a small print it is all.
 * @param printMm width and height of the print
 */
export function squareAbout(
  { x, y }: { readonly x: number; readonly y: number },
  sideMm: number,
  printMm: readonly [number, number],
): Part {
  const [width, height] = printMm.map((mm) => Math.min(1, sideMm / mm)) as [number, number];
  return kept(x - width / 2, y - height / 2, width, height);
}
