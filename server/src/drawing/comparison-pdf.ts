import type { Lab } from '@rakuen/core/colour/types';
import type { OutlinePoint } from '@rakuen/core/gamut/outline';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { blacks, CHART_MM, GREYS_MM, greys, outlines, QUIET, shown, type Papers } from './comparison-drawings.ts';
import { a4, begin, type Page } from './page.ts';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM } from './pdf.ts';

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
const MARGIN_MM = 16;
const LETTERS = 'ABCDEF';
const NAMES_MM = 58;
const ROW_MM = 5.4;
const STRIP = { width: 46, height: 7 };
const BESIDE_EACH_OTHER = 3;
const APART_MM = 60;
const TITLE_MM = 4.4;
const LINE_MM = 3.4;
/** Of a strip, its title and two lines below it. */
const stripRowMm = (titles: readonly string[][]) => 18 + TITLE_MM * Math.max(...titles.map((lines) => lines.length));
const HEADING = { size: 10.5, face: 'serif', stepMm: 4.9 } as const;
const NOTE = { size: 8, face: 'sans', stepMm: 4 } as const;

/** The papers, the pair in words and the drawings; then every measure. */
export function comparisonPdf(comparison: ComparisonPage): Promise<Uint8Array> {
  const { date, light, papers, sentences, notes } = comparison;
  const document = newPdf();
  const page = begin(document, a4(MARGIN_MM));
  page.set('Comparison', page.left, page.y, { size: 18, face: 'serif' });
  page.set(`${date}. ${light}.`, page.left, page.y + 8.5, { size: 8.5, face: 'sans' });
  page.y += 16;
  strips(document, page, papers);

  page.say(`${LETTERS[0]} in the left hand, ${LETTERS[1]} in the right`, { size: 8.5, face: 'sans', stepMm: 5 });
  const none = `Nobody could tell these two apart by what ${notes.length > 0 ? 'can be compared' : 'was measured'}.`;
  for (const sentence of sentences.length > 0 ? sentences : [none]) page.say(sentence, HEADING);
  for (const note of notes) page.say(note, NOTE);
  page.y += 3;

  page.keep(CHART_MM + 14);
  outlines(document, papers, page.left, page.y);
  blacks(document, papers, page.left + CHART_MM + 12, page.y, page.left + page.width);
  page.y += CHART_MM + 14;
  page.keep(GREYS_MM + 14);
  greys(document, papers, page.left, page.y, page.left + page.width);

  measures(document, comparison);
  return finishedPdf(document);
}

/** Each paper as its strip, white and greys, under it its name and how it is printed. */
function strips(document: PDFKit.PDFDocument, page: Page, papers: Papers): void {
  const mm = POINTS_PER_MM;
  const most = (APART_MM - 4) * mm;
  // Names are whole: a row is as high as its longest.
  const titles = papers.map((p, i) => brokenLines(document, `${LETTERS[i]}  ${p.name}`, 10, 'serif', most));
  papers.forEach((p, i) => {
    if (i > 0 && i % BESIDE_EACH_OTHER === 0) page.y += stripRowMm(titles.slice(i - BESIDE_EACH_OTHER, i));
    const [x, at] = [page.left + (i % BESIDE_EACH_OTHER) * APART_MM, page.y];
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
    titles[i].forEach((line, n) => page.set(line, x, at + 8 + n * TITLE_MM, { size: 10, face: 'serif' }));
    brokenLines(document, p.line, 7.5, 'sans', most).forEach((line, n) =>
      page.set(line, x, at + 8.4 + titles[i].length * TITLE_MM + n * LINE_MM, { size: 7.5, face: 'sans' }),
    );
  });
  page.y += stripRowMm(titles.slice(-(papers.length % BESIDE_EACH_OTHER || BESIDE_EACH_OTHER))) + 1;
}

/** Every measure, a row each, under the names of the papers on every page. */
function measures(document: PDFKit.PDFDocument, { papers, groups, signs }: ComparisonPage): void {
  const mm = POINTS_PER_MM;
  let names: string[][] = [];
  let column = 0;
  const at = (i: number) => MARGIN_MM + NAMES_MM + i * column;
  const page = begin(document, a4(MARGIN_MM), (p) => {
    column = (p.width - NAMES_MM) / papers.length;
    names = papers.map((q, i) => brokenLines(document, `${LETTERS[i]} ${q.name}`, 7.5, 'serif', (column - 2) * mm));
    names.forEach((lines, i) =>
      lines.forEach((line, n) => p.set(line, at(i), p.y + n * LINE_MM, { size: 7.5, face: 'serif' })),
    );
    p.y += Math.max(...names.map((lines) => lines.length)) * LINE_MM + 1.2;
    p.rule(p.y);
    p.y += 1;
  });
  for (const group of groups) {
    page.keep(2 * ROW_MM);
    page.set(group.name, page.left, page.y + 1, { size: 9, face: 'serif' });
    page.y += ROW_MM + 1;
    page.rule(page.y - 1, 0.3);
    for (const row of group.rows) {
      page.keep(ROW_MM);
      const unit = row.unit === ': 1' || row.name.endsWith(row.unit) ? '' : `, ${row.unit}`;
      const name = `${row.name}${unit}${row.judged ? ' (judged)' : ''}`;
      page.set(name, page.left, page.y, { size: 8, face: 'sans', mostMm: NAMES_MM - 2 });
      const face = row.judged ? 'serif' : 'sans';
      row.cells.forEach((cell, i) => page.set(cell, at(i), page.y, { size: 7.6, face, mostMm: column - 0.6 }));
      page.y += ROW_MM;
      page.rule(page.y - 1, 0.15);
    }
  }
  page.y += 2;
  for (const sign of signs) page.say(sign, NOTE);
}
