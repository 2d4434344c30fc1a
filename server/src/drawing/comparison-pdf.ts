import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';
import type { OutlinePoint } from '@rakuen/core/gamut/outline';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM, setLine } from './pdf.ts';

/** A comparison as it goes on paper. */
export interface ComparisonPage {
  readonly date: string;
  readonly light: string;
  readonly papers: readonly {
    readonly name: string;
    readonly line: string;
    readonly ramp: readonly Lab[];
    readonly outline: readonly OutlinePoint[];
    readonly white?: Lab;
    readonly black?: Lab;
    readonly dmax?: number;
  }[];
  /** The pair in hand: the first two. */
  readonly sentences: readonly string[];
  /** What was left out of them, and why. */
  readonly notes: readonly string[];
  readonly rows: readonly {
    readonly name: string;
    readonly unit: string;
    readonly judged: boolean;
    readonly cells: readonly string[];
  }[];
}

/** mm. */
const PAGE = { width: 210, height: 297, margin: 16 };
const LETTERS = 'ABCDEF';
const DASHES = [undefined, [7, 4], [2, 3], [10, 3, 2, 3], [4, 2], [12, 5]] as const;
const NAMES_MM = 58;
const ROW_MM = 4.9;
const STRIP = { width: 46, height: 7 };
const CHART_MM = 78;

const shown = (lab: Lab): [number, number, number] =>
  xyzToRgb(SRGB, labToXyz(lab)).map((v) => Math.round(255 * Math.min(1, Math.max(0, v)))) as [number, number, number];

/** One page, or two where the measures need it: the pair in words, strips, outlines, blackest black, every measure. */
export function comparisonPdf({ date, light, papers, sentences, notes, rows }: ComparisonPage): Promise<Uint8Array> {
  const document = newPdf();
  const mm = POINTS_PER_MM;
  const right = PAGE.width - PAGE.margin;
  let y = 0;
  const page = () => {
    document.addPage({ size: [PAGE.width * mm, PAGE.height * mm], margin: 0 });
    y = PAGE.margin;
  };
  const text = (
    words: string,
    x: number,
    at: number,
    size: number,
    face: 'serif' | 'sans' = 'sans',
    mostMm = Infinity,
  ) => setLine(document.fillColor('#131313'), words, { x: x * mm, y: at * mm, size, face, most: mostMm * mm });
  const rule = (at: number, weight = 0.4) =>
    document
      .moveTo(PAGE.margin * mm, at * mm)
      .lineTo(right * mm, at * mm)
      .lineWidth(weight)
      .strokeColor('#5c5c5c')
      .stroke();

  page();
  text('Comparison', PAGE.margin, y, 18, 'serif');
  text(`${date}. Under ${light}. CIELAB D50, 2°.`, PAGE.margin, y + 8.5, 8.5);
  y += 16;

  papers.forEach((p, i) => {
    const [x, at] = [PAGE.margin + (i % 3) * 60, y + Math.floor(i / 3) * 21];
    if (p.white && p.black) {
      const tones = p.ramp.length > 0 ? [...p.ramp].reverse() : [p.white, p.black];
      document.rect(x * mm, at * mm, STRIP.width * 0.22 * mm, STRIP.height * mm).fill(shown(p.white));
      const step = (STRIP.width * 0.78) / tones.length;
      tones.forEach((lab, n) =>
        document
          .rect((x + STRIP.width * 0.22 + n * step) * mm, at * mm, (step + 0.05) * mm, STRIP.height * mm)
          .fill(shown(lab)),
      );
    }
    document
      .rect(x * mm, at * mm, STRIP.width * mm, STRIP.height * mm)
      .lineWidth(0.4)
      .strokeColor('#5c5c5c')
      .stroke();
    text(`${LETTERS[i]}  ${p.name}`, x, at + 8, 10, 'serif', 56);
    text(p.line, x, at + 12.5, 7.5, 'sans', 56);
  });
  y += Math.ceil(papers.length / 3) * 21 + 1;

  text(`${LETTERS[0]} in the left hand, ${LETTERS[1]} in the right`, PAGE.margin, y, 8.5);
  y += 5;
  for (const sentence of sentences.length > 0
    ? sentences
    : [`Nobody could tell these two apart by what ${notes.length > 0 ? 'can be compared' : 'was measured'}.`]) {
    for (const line of brokenLines(document, sentence, 10.5, 'serif', (right - PAGE.margin) * mm)) {
      text(line, PAGE.margin, y, 10.5, 'serif');
      y += 4.9;
    }
  }
  for (const note of notes)
    for (const line of brokenLines(document, note, 8, 'sans', (right - PAGE.margin) * mm)) {
      text(line, PAGE.margin, y, 8);
      y += 4;
    }
  y += 3;

  outlines(document, papers, PAGE.margin, y);
  blacks(document, papers, PAGE.margin + CHART_MM + 12, y, right);
  y += CHART_MM + 10;

  const column = (right - PAGE.margin - NAMES_MM) / papers.length;
  const head = () => {
    papers.forEach((p, i) =>
      text(`${LETTERS[i]} ${p.name}`, PAGE.margin + NAMES_MM + i * column, y, 7.5, 'serif', column - 2),
    );
    y += 4.5;
    rule(y);
    y += 1;
  };
  head();
  for (const row of rows) {
    if (y > PAGE.height - PAGE.margin - ROW_MM) {
      page();
      head();
    }
    text(
      `${row.name}${row.unit === ': 1' || row.name.endsWith(row.unit) ? '' : `, ${row.unit}`}${row.judged ? ' (judged)' : ''}`,
      PAGE.margin,
      y,
      8,
      'sans',
      NAMES_MM - 2,
    );
    row.cells.forEach((cell, i) =>
      text(cell, PAGE.margin + NAMES_MM + i * column, y, 8, row.judged ? 'serif' : 'sans', column - 1),
    );
    y += ROW_MM;
    rule(y - 1, 0.15);
  }
  return finishedPdf(document);
}

function outlines(document: PDFKit.PDFDocument, papers: ComparisonPage['papers'], x: number, y: number): void {
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
    .fillColor('#131313')
    .text('Gamut outlines, a* b*', x * mm, y * mm, { lineBreak: false });
  document.lineWidth(0.3).strokeColor('#a2a2a2');
  for (const [p, q] of [
    [at(-range, 0), at(range, 0)],
    [at(0, -range), at(0, range)],
  ])
    document
      .moveTo(...p)
      .lineTo(...q)
      .stroke();
  document.rect(...at(-range, range), CHART_MM * mm, CHART_MM * mm).stroke();
  document
    .font('sans')
    .fontSize(7)
    .text(`${range}`, at(range, 0)[0] - 12, at(range, 0)[1] + 1, { lineBreak: false });
  papers.forEach(({ outline }, i) => {
    if (outline.length === 0) return;
    document.lineWidth(i < 2 ? 1.3 : 0.7).strokeColor('#131313');
    const dash = DASHES[i];
    if (dash) document.dash(dash[0], { space: dash[1] });
    else document.undash();
    outline.forEach((o, n) => (n === 0 ? document.moveTo(...at(o.a, o.b)) : document.lineTo(...at(o.a, o.b))));
    document.closePath().stroke();
    document.undash();
    const label = outline[(i * 12 + 3) % outline.length];
    document
      .font('serif')
      .fontSize(9)
      .fillColor('#131313')
      .text(LETTERS[i], at(label.a * 1.04, label.b * 1.04)[0], at(label.a, label.b * 1.04)[1] - 5, {
        lineBreak: false,
      });
  });
}

function blacks(
  document: PDFKit.PDFDocument,
  papers: ComparisonPage['papers'],
  x: number,
  y: number,
  right: number,
): void {
  const mm = POINTS_PER_MM;
  document
    .font('serif')
    .fontSize(10)
    .fillColor('#131313')
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
      .fillColor('#131313')
      .text(p.letter, x * mm, (top + 1.2) * mm, { lineBreak: false });
    document
      .font('sans')
      .fontSize(8)
      .text(`${p.dmax.toFixed(2)} D`, (x + 6 + ((right - x - 22) * p.dmax) / longest) * mm, (top + 1.4) * mm, {
        lineBreak: false,
      });
  });
}
