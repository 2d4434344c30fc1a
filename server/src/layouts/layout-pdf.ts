import type { LayoutView, StockInput } from '@rakuen/contract/layouts';
import { finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';

const MOST_POINTS = 14_400;

/** A layout at true size, a page a sheet: pieces, what is printed within their borders, the cuts numbered in their order. */
export function layoutPdf(stock: StockInput, { sheets }: LayoutView): Promise<Uint8Array> {
  const document = newPdf();
  const mm = POINTS_PER_MM;
  for (const sheet of sheets) {
    const height = stock.kind === 'roll' ? sheet.heightMm + stock.top + stock.bottom : stock.heightMm;
    const [w, h] = [stock.widthMm * mm, Math.min(MOST_POINTS, height * mm)];
    document.addPage({ size: [w, h], margin: 0 });
    for (const p of sheet.placed) {
      const [pw, ph] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
      const b = p.turned
        ? { left: p.borders.top, top: p.borders.right, right: p.borders.bottom, bottom: p.borders.left }
        : p.borders;
      document
        .lineWidth(0.5)
        .rect(p.xMm * mm, p.yMm * mm, pw * mm, ph * mm)
        .stroke('#000000');
      document
        .lineWidth(0.25)
        .rect((p.xMm + b.left) * mm, (p.yMm + b.top) * mm, (pw - b.left - b.right) * mm, (ph - b.top - b.bottom) * mm)
        .stroke('#777777');
      setLine(document, p.name, {
        x: (p.xMm + b.left + 2) * mm,
        y: (p.yMm + b.top + 2) * mm,
        size: 9,
        face: 'serif',
        most: Math.max(10, (pw - b.left - b.right - 4) * mm),
      });
    }
    sheet.cuts.forEach((cut, i) => {
      const at = cut.atMm * mm;
      const [x0, y0, x1, y1] = cut.way === 'across' ? [0, at, w, at] : [at, 0, at, h];
      document.lineWidth(0.3).dash(4, { space: 3 }).moveTo(x0, y0).lineTo(x1, y1).stroke('#555555').undash();
      setLine(document, `${i + 1}`, { x: x0 + 2, y: y0 + 2, size: 8, face: 'sans' });
    });
  }
  if (sheets.length === 0) document.addPage({ size: [stock.widthMm * mm, 200], margin: 0 });
  return finishedPdf(document);
}
