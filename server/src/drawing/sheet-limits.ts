import { pixelAt } from '@rakuen/core/chart/raster';

/** More than this would not fit a printer's memory either. */
export const MOST_PIXELS = 60_000_000;

/** Does a page at a resolution stay within what is drawn here? */
export function fits(widthMm: number, heightMm: number, dpi: number): boolean {
  return pixelAt(widthMm, dpi) * pixelAt(heightMm, dpi) <= MOST_PIXELS;
}
