import { CAPTION_ROOM_MM } from '@rakuen/core/layout/borders';
import type { LaidPiece, LayoutView, StockInput } from '@rakuen/contract/layouts';
import { bare } from '../drawing/page.ts';
import { finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';

/** Height of a page on which nothing lies. */
const NOTHING_MM = 70;
const CAPTION_PT = 9;

/** A layout at true size, a page a sheet: pieces, what is printed within their borders, the cuts numbered in their order. */
export function layoutPdf(stock: StockInput, { sheets }: LayoutView): Promise<Uint8Array> {
  const document = newPdf();
  const mm = POINTS_PER_MM;
  for (const sheet of sheets) {
    const height = stock.kind === 'roll' ? sheet.heightMm + stock.top + stock.bottom : stock.heightMm;
    const [w, h] = bare(document, stock.widthMm, height);
    for (const p of sheet.placed) {
      document.save();
      if (p.turned) document.translate(p.xMm * mm, (p.yMm + p.widthMm) * mm).rotate(-90);
      else document.translate(p.xMm * mm, p.yMm * mm);
      drawPiece(document, p);
      document.restore();
    }
    sheet.cuts.forEach((cut, i) => {
      const at = cut.atMm * mm;
      const [x0, y0, x1, y1] = cut.way === 'across' ? [0, at, w, at] : [at, 0, at, h];
      document.lineWidth(0.3).dash(4, { space: 3 }).moveTo(x0, y0).lineTo(x1, y1).stroke('#555555').undash();
      setLine(document, `${i + 1}`, { x: x0 + 2, y: y0 + 2, size: 8, face: 'sans' });
    });
  }
  if (sheets.length === 0) bare(document, stock.widthMm, NOTHING_MM);
  return finishedPdf(document);
}

/** A piece as it stands, its top at the top. */
function drawPiece(document: PDFKit.PDFDocument, { name, caption, widthMm, heightMm, borders: b }: LaidPiece): void {
  const mm = POINTS_PER_MM;
  const inside = widthMm - b.left - b.right;
  document
    .lineWidth(0.5)
    .rect(0, 0, widthMm * mm, heightMm * mm)
    .stroke('#000000');
  document
    .lineWidth(0.25)
    .rect(b.left * mm, b.top * mm, inside * mm, (heightMm - b.top - b.bottom) * mm)
    .stroke('#777777');
  const most = Math.max(10, (inside - 4) * mm);
  setLine(document, name, { x: (b.left + 2) * mm, y: (b.top + 2) * mm, size: 9, face: 'serif', most });
  if (caption) {
    const y = (heightMm - CAPTION_ROOM_MM / 2) * mm - CAPTION_PT / 2;
    setLine(document, caption, { x: b.left * mm, y, size: CAPTION_PT, face: 'serif', most });
  }
}
