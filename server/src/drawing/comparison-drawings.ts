import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';
import type { ComparisonPage } from './comparison-pdf.ts';
import { POINTS_PER_MM, setLine } from './pdf.ts';

export type Papers = ComparisonPage['papers'];

const LETTERS = 'ABCDEF';
const DASHES = [undefined, [7, 4], [2, 3], [10, 3, 2, 3], [4, 2], [12, 5]] as const;
/** mm. */
export const CHART_MM = 84;
export const GREYS_MM = 34;
const INK = '#131313';
export const QUIET = '#5c5c5c';
const LINE = '#a2a2a2';

/** A colour as a screen shows it, 0–255. */
export const shown = (lab: Lab): [number, number, number] =>
  xyzToRgb(SRGB, labToXyz(lab)).map((v) => Math.round(255 * Math.min(1, Math.max(0, v)))) as [number, number, number];

/** Words beside a drawing, their middle or their left edge at a place, points. */
function beside(document: PDFKit.PDFDocument, words: string, x: number, y: number, middle = false): void {
  document.font('sans').fontSize(7).fillColor(QUIET);
  const left = middle ? x - document.widthOfString(words) / 2 : x;
  document.text(words, left, y, { lineBreak: false }).fillColor(INK);
}

/** A line as its paper is told by everywhere: dashed by its place on the table, heavier in hand. */
function pen(document: PDFKit.PDFDocument, i: number): void {
  document.lineWidth(i < 2 ? 1.3 : 0.7).strokeColor(INK);
  const dash = DASHES[i];
  if (dash) document.dash(dash[0], { space: dash[1] });
  else document.undash();
}

/** How far each grey stands off the line from paper to black, ΔC*, by its device step. */
export function greys(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number, right: number): void {
  const mm = POINTS_PER_MM;
  const known = papers.flatMap((p, i) => (p.ramp.length > 0 ? [{ ...p, i }] : []));
  if (known.length === 0) return;
  const width = right - x;
  const most = Math.max(2, Math.ceil(Math.max(...known.flatMap((p) => p.ramp.map((s) => s.chromaOffLine)))));
  const at = (step: number, off: number): [number, number] => [
    (x + 6 + (width - 12) * step) * mm,
    (y + 6 + GREYS_MM * (1 - off / most)) * mm,
  ];
  setLine(document.fillColor(INK), 'Greys off the line from paper to black, ΔC*', {
    x: x * mm,
    y: y * mm,
    size: 10,
    face: 'serif',
  });
  for (let off = 0; off <= most; off += most > 4 ? 2 : 1) {
    document
      .undash()
      .lineWidth(0.3)
      .strokeColor(LINE)
      .moveTo(...at(0, off))
      .lineTo(...at(1, off))
      .stroke();
    beside(document, String(off), x * mm, at(0, off)[1] - 4);
  }
  for (const p of known) {
    pen(document, p.i);
    p.ramp.forEach((s, n) => document[n === 0 ? 'moveTo' : 'lineTo'](...at(s.step, s.chromaOffLine)));
    document.stroke().undash();
    const told = p.ramp[Math.floor(((p.i + 1) / (papers.length + 1)) * (p.ramp.length - 1))];
    const [tx, ty] = at(told.step, told.chromaOffLine);
    document
      .font('serif')
      .fontSize(9)
      .fillColor(INK)
      .text(LETTERS[p.i], tx, ty - 11, { lineBreak: false });
  }
  for (const [step, word] of [
    [0, 'black'],
    [0.5, 'step 50 %'],
    [1, 'paper'],
  ] as const)
    beside(document, word, at(step, 0)[0], at(step, 0)[1] + 3, true);
}

/** The outlines of the gamuts in a* and b*. */
export function outlines(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number): void {
  const mm = POINTS_PER_MM;
  const most = Math.max(40, ...papers.flatMap((p) => p.outline.map((o) => Math.max(Math.abs(o.a), Math.abs(o.b)))));
  const range = Math.ceil(most / 20) * 20;
  const at = (a: number, b: number): [number, number] => [
    (x + CHART_MM / 2 + (a / range) * (CHART_MM / 2)) * mm,
    (y + 5 + CHART_MM / 2 - (b / range) * (CHART_MM / 2)) * mm,
  ];
  document
    .font('serif')
    .fontSize(10)
    .fillColor(INK)
    .text('Gamut outlines, a* b*', x * mm, y * mm, { lineBreak: false });
  document.lineWidth(0.3).strokeColor(LINE);
  for (const [p, q] of [
    [at(-range, 0), at(range, 0)],
    [at(0, -range), at(0, range)],
  ])
    document
      .moveTo(...p)
      .lineTo(...q)
      .stroke();
  document.rect(...at(-range, range), CHART_MM * mm, CHART_MM * mm).stroke();
  for (let v = -range + 20; v < range; v += 20) {
    if (v === 0) continue;
    const [ax, ay] = at(v, 0);
    document
      .moveTo(ax, ay - 2)
      .lineTo(ax, ay + 2)
      .stroke();
    const [bx, by] = at(0, v);
    document
      .moveTo(bx - 2, by)
      .lineTo(bx + 2, by)
      .stroke();
    if (v % 40 !== 0) continue;
    beside(document, String(v).replace('-', '−'), ax, ay + 3, true);
    beside(document, String(v).replace('-', '−'), bx + 4, by - 4);
  }
  const bottom = at(0, -range)[1] + 3;
  beside(document, 'a*, green', at(-range, 0)[0], bottom);
  beside(document, 'a*, red', at(range, 0)[0] - 22, bottom);
  beside(document, 'b*, yellow', at(0, range)[0] + 4, at(0, range)[1] + 3);
  beside(document, 'b*, blue', at(0, -range)[0] + 4, at(0, -range)[1] - 11);
  papers.forEach(({ outline }, i) => {
    if (outline.length === 0) return;
    pen(document, i);
    outline.forEach((o, n) => (n === 0 ? document.moveTo(...at(o.a, o.b)) : document.lineTo(...at(o.a, o.b))));
    document.closePath().stroke();
    document.undash();
    const label = outline[(i * 12 + 3) % outline.length];
    document
      .font('serif')
      .fontSize(9)
      .fillColor(INK)
      .text(LETTERS[i], at(label.a * 1.04, label.b * 1.04)[0], at(label.a, label.b * 1.04)[1] - 5, {
        lineBreak: false,
      });
  });
}

/** The blackest black of each, the deepest first. */
export function blacks(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number, right: number): void {
  const mm = POINTS_PER_MM;
  document
    .font('serif')
    .fontSize(10)
    .fillColor(INK)
    .text('Blackest black, Dmax', x * mm, y * mm, { lineBreak: false });
  const known = papers
    .flatMap((p, i) =>
      p.dmax === undefined || !p.black ? [] : [{ ...p, letter: LETTERS[i], dmax: p.dmax, black: p.black }],
    )
    .sort((p, q) => q.dmax - p.dmax);
  const longest = Math.max(1, ...known.map((p) => p.dmax));
  known.forEach((p, i) => {
    const top = y + 7 + i * 10;
    document.rect((x + 5) * mm, top * mm, ((right - x - 22) * p.dmax * mm) / longest, 6 * mm).fill(shown(p.black));
    document
      .font('serif')
      .fontSize(9)
      .fillColor(INK)
      .text(p.letter, x * mm, (top + 1.2) * mm, { lineBreak: false });
    document
      .font('sans')
      .fontSize(8)
      .text(`${p.dmax.toFixed(2)} D`, (x + 6 + ((right - x - 22) * p.dmax) / longest) * mm, (top + 1.4) * mm, {
        lineBreak: false,
      });
  });
}
