import type { Raster } from '@rakuen/core/chart/raster';
import { CAPTION_LINE_MM } from '@rakuen/core/layout/borders';
import type { SurroundLaid } from '@rakuen/core/proof/surround';
import { drawText } from '../drawing/draw-text.ts';

const MM_PER_INCH = 25.4;
const WHITE = 65_535;
/** Marks to trim by: how long, and how thick, mm. */
const MARK = { lengthMm: 5, thickMm: 0.2 } as const;

/** A frame in pixels: bands above and below the picture as they are printed, and bare paper beside it. */
export interface PixelFrame {
  readonly top: Raster;
  readonly bottom: Raster;
  readonly leftPx: number;
  readonly rightPx: number;
}

/** Lays a frame out around a picture of so many pixels. */
export function frameOf({ borders, caption, trimMarks }: SurroundLaid, widthPx: number, ppi: number): PixelFrame {
  const px = (mm: number) => Math.round((mm / MM_PER_INCH) * ppi);
  const [leftPx, rightPx] = [px(borders.left), px(borders.right)];
  const width = leftPx + widthPx + rightPx;
  const band = (height: number): Raster => ({
    widthPx: width,
    heightPx: height,
    dpi: ppi,
    data: new Uint16Array(width * height * 3).fill(WHITE),
  });
  const [top, bottom] = [band(px(borders.top)), band(px(borders.bottom))];
  if (caption)
    drawText(bottom, {
      text: caption,
      xMm: ((leftPx + widthPx / 2) / ppi) * MM_PER_INCH,
      yMm: Math.min(CAPTION_LINE_MM.below, Math.max(CAPTION_LINE_MM.size, borders.bottom - 1)),
      sizeMm: CAPTION_LINE_MM.size,
      face: 'serif',
      anchor: 'middle',
    });
  if (trimMarks) {
    const [long, thick] = [px(MARK.lengthMm), Math.max(1, px(MARK.thickMm))];
    for (const x of [leftPx, leftPx + widthPx - thick]) {
      black(top, x, Math.max(0, top.heightPx - long), thick, long);
      black(bottom, x, 0, thick, long);
    }
  }
  return { top, bottom, leftPx, rightPx };
}

function black({ data, widthPx, heightPx }: Raster, x: number, y: number, w: number, h: number): void {
  for (let row = y; row < Math.min(heightPx, y + h); row++)
    data.fill(0, (row * widthPx + x) * 3, (row * widthPx + x + w) * 3);
}
