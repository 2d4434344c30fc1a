import type { ChartDesign } from './chart-design.ts';
import { FULL_16, type Rgb16 } from './device16.ts';

export const MM_PER_INCH = 25.4;
/** Pixels of an edge at a place in mm; edges are rounded, so that neighbours meet. */
export const pixelAt = (mm: number, dpi: number): number => Math.round((mm / MM_PER_INCH) * dpi);

/** A sheet in pixels: 16-bit RGB, row by row. */
export interface Raster {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly dpi: number;
  readonly data: Uint16Array;
}

export function blankRaster(widthMm: number, heightMm: number, dpi: number): Raster {
  const [widthPx, heightPx] = [pixelAt(widthMm, dpi), pixelAt(heightMm, dpi)];
  return { widthPx, heightPx, dpi, data: new Uint16Array(widthPx * heightPx * 3).fill(FULL_16) };
}

/** Fills a box, given in mm; its pixels hold exactly the value given. */
export function fillBox(
  raster: Raster,
  xMm: number,
  yMm: number,
  widthMm: number,
  heightMm: number,
  rgb16: Rgb16,
): void {
  const { widthPx, heightPx, dpi, data } = raster;
  const [left, top] = [Math.max(0, pixelAt(xMm, dpi)), Math.max(0, pixelAt(yMm, dpi))];
  const [right, bottom] = [
    Math.min(widthPx, pixelAt(xMm + widthMm, dpi)),
    Math.min(heightPx, pixelAt(yMm + heightMm, dpi)),
  ];
  for (let y = top; y < bottom; y++) {
    for (let i = (y * widthPx + left) * 3; i < (y * widthPx + right) * 3; i += 3) {
      data[i] = rgb16[0];
      data[i + 1] = rgb16[1];
      data[i + 2] = rgb16[2];
    }
  }
}

/** A page of a chart in pixels, without its words. */
export function rasteriseChart(design: ChartDesign, page: number): Raster {
  const { widthMm, heightMm, boxes } = design.pages[page]!;
  const raster = blankRaster(widthMm, heightMm, design.spec.dpi);
  for (const b of boxes) fillBox(raster, b.xMm, b.yMm, b.widthMm, b.heightMm, b.rgb16);
  const side = design.spec.patchMm;
  for (const strip of design.strips) {
    if (strip.page !== page) continue;
    for (const p of strip.patches) fillBox(raster, p.xMm, p.yMm, side, side, p.rgb16);
  }
  return raster;
}
