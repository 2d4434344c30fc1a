import { CAPTION_ROOM_MM } from '@rakuen/core/layout/borders';
import { sideWords, type Cut } from '@rakuen/core/layout/cuts';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { LaidPiece, LayoutView, StockInput } from '@rakuen/contract/layouts';
import { bare } from '../drawing/page.ts';
import { finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';

/** Height of a page on which nothing lies. */
const NOTHING_MM = 70;
const CAPTION_PT = 9;
/** The page that lists the cuts, mm. */
const LIST_MM = { width: 210, top: 12, line: 5.5 } as const;

/** A layout at true size, a page a sheet: pieces, what is printed within their borders, the cuts numbered in their order. */
export function layoutPdf(stock: StockInput, { sheets }: LayoutView): Promise<Uint8Array> {
  const document = newPdf();
  const mm = POINTS_PER_MM;
  for (const sheet of sheets) {
    const height = stock.kind === 'roll' ? sheet.heightMm + stock.top + stock.bottom : stock.heightMm;
    bare(document, stock.widthMm, height);
    for (const p of sheet.placed) {
      document.save();
      if (p.turned) document.translate(p.xMm * mm, (p.yMm + p.widthMm) * mm).rotate(-90);
      else document.translate(p.xMm * mm, p.yMm * mm);
      drawPiece(document, p);
      document.restore();
    }
    sheet.cuts.forEach(({ way, atMm, fromMm, toMm }, i) => {
      const [at, from, to] = [atMm * mm, fromMm * mm, toMm * mm];
      const [x0, y0, x1, y1] = way === 'across' ? [from, at, to, at] : [at, from, at, to];
      document.lineWidth(0.3).dash(4, { space: 3 }).moveTo(x0, y0).lineTo(x1, y1).stroke('#555555').undash();
      setLine(document, `${i + 1}`, { x: x0 + 2, y: y0 + 2, size: 8, face: 'sans' });
    });
  }
  listCuts(document, sheets);
  if (sheets.length === 0) bare(document, stock.widthMm, NOTHING_MM);
  return finishedPdf(document);
}

/** The cuts in words, a page a sheet that has any: which is made when, and what it parts. */
function listCuts(document: PDFKit.PDFDocument, sheets: LayoutView['sheets']): void {
  const mm = POINTS_PER_MM;
  sheets.forEach(({ cuts, placed }, at) => {
    if (cuts.length === 0) return;
    bare(document, LIST_MM.width, LIST_MM.top * 2 + (cuts.length + 2) * LIST_MM.line);
    const line = (n: number) => (LIST_MM.top + n * LIST_MM.line) * mm;
    const most = (LIST_MM.width - 2 * LIST_MM.top) * mm;
    setLine(document, `Cuts of sheet ${at + 1}, in order`, {
      x: LIST_MM.top * mm,
      y: line(0),
      size: 12,
      face: 'serif',
      most,
    });
    const nameOf = (key: string) => placed.find((p) => p.key === key)?.name ?? key;
    cuts.forEach((cut, i) => {
      setLine(document, `${i + 1}  ${cutWords(cut, nameOf)}`, {
        x: LIST_MM.top * mm,
        y: line(i + 1.5),
        size: 9,
        face: 'sans',
        most,
      });
    });
  });
}

/** "across at 203 mm: Salt from 5 × Card". */
const cutWords = ({ way, atMm, first, second }: Cut, nameOf: (key: string) => string): string =>
  `${way} at ${formatNumber(atMm, 1)} mm: parts ${sideWords(first, nameOf)} from ${sideWords(second, nameOf)}`;

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
