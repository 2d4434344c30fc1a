import { reliefOf, type Relief } from '@rakuen/core/surface/relief';
import { squareOf } from '../parts/scan-square.ts';

/**
 * A slope this steep, lightness units a pixel, is drawn at full contrast: the same for every sheet, so that a rougher
 * one looks rougher.
 */
const FULL_SLOPE = 14;
/** The relief of a square of a scan. @param shownMm side of the square that is kept */
export function heightsOf(image: HTMLImageElement, ppi: number, shownMm: number): Relief {
  const { size, codes } = squareOf(image, ppi, shownMm);
  return reliefOf(codes, size, ppi);
}

/** The relief under a lamp from a direction, degrees from the left, anticlockwise. */
export function relit({ size, heights }: Relief, lampDeg: number): ImageData {
  const image = new ImageData(size, size);
  const [lx, ly] = [Math.cos((lampDeg * Math.PI) / 180), -Math.sin((lampDeg * Math.PI) / 180)];
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      const at = y * size + x;
      const dx = heights[y * size + Math.min(size - 1, x + 1)] - heights[y * size + Math.max(0, x - 1)];
      const dy = heights[Math.min(size - 1, y + 1) * size + x] - heights[Math.max(0, y - 1) * size + x];
      const light = 150 + (105 * (lx * dx + ly * dy)) / 2 / FULL_SLOPE;
      image.data.fill(Math.max(0, Math.min(255, light)), at * 4, at * 4 + 3);
      image.data[at * 4 + 3] = 255;
    }
  }
  return image;
}
