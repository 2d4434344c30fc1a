import sharp from 'sharp';
import type { ChartDesign } from '@rakuen/core/chart/chart-design';
import { fromRgb16, toRgb16, type Rgb16 } from '@rakuen/core/chart/device16';
import { blankRaster, rasteriseChart, type Raster } from '@rakuen/core/chart/raster';
import { rasterisePage, type PageMark, type TestPage } from '@rakuen/core/chart/test-page';
import { drawText, type TextLine } from './draw-text.ts';
import { bare } from './page.ts';
import { finishedPdf, lineWidth, newPdf, POINTS_PER_MM, setLine } from './pdf.ts';

const MM_PER_INCH = 25.4;

/** A chart's sheet as a 16-bit TIFF without a profile: its patches are exactly the device values of the reference. */
export async function chartTiff(design: ChartDesign, page: number): Promise<Uint8Array> {
  const raster = rasteriseChart(design, page);
  for (const line of design.pages[page].texts) drawText(raster, { ...line, face: 'sans' });
  return tiff(raster);
}

export async function testPageTiff(page: TestPage, dpi: number): Promise<Uint8Array> {
  return tiff(drawnPage(page, dpi));
}

/** A look at the page for the screen: 8 bits, PNG. */
export async function testPagePng(page: TestPage, dpi: number): Promise<Uint8Array> {
  const { widthPx, heightPx, data } = drawnPage(page, dpi);
  return sharp(
    Uint8Array.from(data, (v) => v >> 8),
    { raw: { width: widthPx, height: heightPx, channels: 3 } },
  )
    .png()
    .toBuffer();
}

function drawnPage(page: TestPage, dpi: number): Raster {
  const raster = rasterisePage(page, dpi);
  for (const mark of page.marks) if (mark.kind === 'text') drawText(raster, mark satisfies TextLine);
  return raster;
}

function tiff({ widthPx, heightPx, dpi, data }: Raster): Promise<Buffer> {
  const perMm = dpi / MM_PER_INCH;
  return sharp(data, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .toColourspace('rgb16')
    .tiff({ compression: 'deflate', predictor: 'horizontal', xres: perMm, yres: perMm, resolutionUnit: 'inch' })
    .toBuffer();
}

/** A chart as PDF, all its sheets: patches are vectors in the device's own RGB. */
export function chartPdf(design: ChartDesign): Promise<Uint8Array> {
  const document = newPdf();
  design.pages.forEach((page, number) => {
    bare(document, page.widthMm, page.heightMm);
    for (const b of page.boxes) box(document, b.xMm, b.yMm, b.widthMm, b.heightMm, b.rgb16);
    for (const strip of design.strips) {
      if (strip.page === number)
        for (const p of strip.patches) box(document, p.xMm, p.yMm, design.spec.patchMm, design.spec.patchMm, p.rgb16);
    }
    for (const t of page.texts) words(document, { ...t, face: 'sans' });
  });
  return finishedPdf(document);
}

/** The test page as PDF: flats and type as vectors; rings and sweeps as pictures at the page's resolution. */
export async function testPagePdf(page: TestPage, dpi: number): Promise<Uint8Array> {
  const document = newPdf();
  bare(document, page.widthMm, page.heightMm);
  for (const mark of page.marks) {
    if (mark.kind === 'flat') box(document, mark.xMm, mark.yMm, mark.widthMm, mark.heightMm, toRgb16(mark.rgb));
    else if (mark.kind === 'text') words(document, mark);
    else {
      const png = await sweepPng(mark, dpi);
      document.image(png, mark.xMm * POINTS_PER_MM, mark.yMm * POINTS_PER_MM, {
        width: mark.widthMm * POINTS_PER_MM,
        height: mark.heightMm * POINTS_PER_MM,
      });
    }
  }
  return finishedPdf(document);
}

async function sweepPng(mark: Extract<PageMark, { kind: 'sweep' }>, dpi: number): Promise<Buffer> {
  const { widthPx, heightPx } = blankRaster(mark.widthMm, mark.heightMm, dpi);
  const data = new Uint8Array(widthPx * heightPx * 3);
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++)
      data.set(
        mark.at((x + 0.5) / widthPx, (y + 0.5) / heightPx).map((v) => Math.round(Math.min(1, Math.max(0, v)) * 255)),
        (y * widthPx + x) * 3,
      );
  return sharp(data, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .png()
    .toBuffer();
}

function box(
  document: PDFKit.PDFDocument,
  xMm: number,
  yMm: number,
  widthMm: number,
  heightMm: number,
  rgb16: Rgb16,
): void {
  document
    .rect(xMm * POINTS_PER_MM, yMm * POINTS_PER_MM, widthMm * POINTS_PER_MM, heightMm * POINTS_PER_MM)
    .fill(fromRgb16(rgb16).map((v) => v * 255) as [number, number, number]);
}

function words(document: PDFKit.PDFDocument, line: TextLine): void {
  const size = line.sizeMm * POINTS_PER_MM;
  document.fillColor(line.reversed ? '#ffffff' : '#000000');
  const x =
    line.xMm * POINTS_PER_MM - (line.anchor === 'middle' ? lineWidth(document, line.text, size, line.face) / 2 : 0);
  setLine(document, line.text, { x, y: line.yMm * POINTS_PER_MM, size, face: line.face, at: 'alphabetic' });
}
