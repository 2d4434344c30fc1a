import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';
import type { OutlinePoint } from '@rakuen/core/gamut/outline';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM, setLine } from './pdf.ts';

/** A comparison as it goes on paper. */
export interface ComparisonPage {
  readonly date: string;
  readonly light: string;
  readonly papers: readonly {
    readonly name: string;
    readonly line: string;
    readonly ramp: readonly Pick<RampStep, 'step' | 'lab' | 'chromaOffLine'>[];
    readonly outline: readonly OutlinePoint[];
    readonly white?: Lab;
    readonly black?: Lab;
    readonly dmax?: number;
  }[];
  /** The pair in hand: the first two. */
  readonly sentences: readonly string[];
  /** What was left out of them, and why. */
  readonly notes: readonly string[];
  /** Measures as they belong together. */
  readonly groups: readonly {
    readonly name: string;
    readonly rows: readonly {
      readonly name: string;
      readonly unit: string;
      readonly judged: boolean;
      readonly cells: readonly string[];
    }[];
  }[];
  /** What the signs beside figures mean. */
  readonly signs: readonly string[];
}

/** mm. */
const PAGE = { width: 210, height: 297, margin: 16 };
const LETTERS = 'ABCDEF';
const DASHES = [undefined, [7, 4], [2, 3], [10, 3, 2, 3], [4, 2], [12, 5]] as const;
const NAMES_MM = 58;
const ROW_MM = 5.4;
const STRIP = { width: 46, height: 7 };
const CHART_MM = 84;
const TITLE_MM = 4.4;
/** Of a strip, its title and two lines below it. */
const stripRowMm = (titles: readonly string[][]) => 18 + TITLE_MM * Math.max(...titles.map((lines) => lines.length));
const GREYS_MM = 34;
const INK = '#131313';
const QUIET = '#5c5c5c';
const LINE = '#a2a2a2';

const shown = (lab: Lab): [number, number, number] =>
  xyzToRgb(SRGB, labToXyz(lab)).map((v) => Math.round(255 * Math.min(1, Math.max(0, v)))) as [number, number, number];

/** Two pages: the papers, the pair in words and the drawings; then every measure. */
export function comparisonPdf({
  date,
  light,
  papers,
  sentences,
  notes,
  groups,
  signs,
}: ComparisonPage): Promise<Uint8Array> {
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
  ) => setLine(document.fillColor(INK), words, { x: x * mm, y: at * mm, size, face, most: mostMm * mm });
  const rule = (at: number, weight = 0.4) =>
    document
      .moveTo(PAGE.margin * mm, at * mm)
      .lineTo(right * mm, at * mm)
      .lineWidth(weight)
      .strokeColor(QUIET)
      .stroke();

  page();
  text('Comparison', PAGE.margin, y, 18, 'serif');
  text(`${date}. ${light}.`, PAGE.margin, y + 8.5, 8.5);
  y += 16;

  // Names are whole: a row is as high as its longest.
  const titles = papers.map((p, i) => brokenLines(document, `${LETTERS[i]}  ${p.name}`, 10, 'serif', 56 * mm));
  papers.forEach((p, i) => {
    if (i > 0 && i % 3 === 0) y += stripRowMm(titles.slice(i - 3, i));
    const [x, at] = [PAGE.margin + (i % 3) * 60, y];
    if (p.white && p.black) {
      const tones = p.ramp.length > 0 ? p.ramp.map((s) => s.lab).reverse() : [p.white, p.black];
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
      .strokeColor(QUIET)
      .stroke();
    titles[i].forEach((line, n) => text(line, x, at + 8 + n * TITLE_MM, 10, 'serif'));
    brokenLines(document, p.line, 7.5, 'sans', 56 * mm).forEach((line, n) =>
      text(line, x, at + 8.4 + titles[i].length * TITLE_MM + n * 3.4, 7.5),
    );
  });
  y += stripRowMm(titles.slice(-(papers.length % 3 || 3))) + 1;

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
  y += CHART_MM + 14;
  if (y + GREYS_MM + 14 > PAGE.height - PAGE.margin) page();
  greys(document, papers, PAGE.margin, y, right);

  page();
  const column = (right - PAGE.margin - NAMES_MM) / papers.length;
  const names = papers.map((p, i) => brokenLines(document, `${LETTERS[i]} ${p.name}`, 7.5, 'serif', (column - 2) * mm));
  const head = () => {
    names.forEach((lines, i) =>
      lines.forEach((line, n) => text(line, PAGE.margin + NAMES_MM + i * column, y + n * 3.4, 7.5, 'serif')),
    );
    y += Math.max(...names.map((lines) => lines.length)) * 3.4 + 1.2;
    rule(y);
    y += 1;
  };
  head();
  for (const group of groups) {
    if (y > PAGE.height - PAGE.margin - 2 * ROW_MM) {
      page();
      head();
    }
    text(group.name, PAGE.margin, y + 1, 9, 'serif');
    y += ROW_MM + 1;
    rule(y - 1, 0.3);
    for (const row of group.rows) {
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
        text(cell, PAGE.margin + NAMES_MM + i * column, y, 7.6, row.judged ? 'serif' : 'sans', column - 0.6),
      );
      y += ROW_MM;
      rule(y - 1, 0.15);
    }
  }
  y += 2;
  for (const sign of signs)
    for (const line of brokenLines(document, sign, 8, 'sans', (right - PAGE.margin) * mm)) {
      text(line, PAGE.margin, y, 8);
      y += 4;
    }
  return finishedPdf(document);
}

type Papers = ComparisonPage['papers'];

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
function greys(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number, right: number): void {
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

function outlines(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number): void {
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

function blacks(document: PDFKit.PDFDocument, papers: Papers, x: number, y: number, right: number): void {
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
