import type { Face } from './fonts.ts';
import { brokenLines, POINTS_PER_MM, setLine } from './pdf.ts';

/** A sheet that words are set on, mm. */
export interface PageForm {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
}

export const a4 = (marginMm: number): PageForm => ({ widthMm: 210, heightMm: 297, marginMm });

/** How words are set: the size of their letters in points, all else in mm. */
export interface Words {
  readonly size: number;
  readonly face: Face;
  /** From the left margin. */
  readonly fromMm?: number;
  /** Width they may take; all that is left of the page where absent. */
  readonly mostMm?: number;
  /** From one line to the next; 1.35 of the letters where absent. */
  readonly stepMm?: number;
}

/** A page that words go down, and on to a further one where it ends. Millimetres from its left upper corner. */
export interface Page {
  readonly left: number;
  readonly width: number;
  /** Where the next line is set. */
  y: number;
  /** Begins a further page. */
  turn(): void;
  /** Begins a further page where so much is not left of this one. */
  keep(heightMm: number): void;
  /** Sets a text in as many lines as it takes, and goes on below it. */
  say(text: string, words: Words): void;
  /** Sets a line at a place of its own; what is wider is cut short. */
  set(text: string, xMm: number, yMm: number, words: Pick<Words, 'size' | 'face' | 'mostMm'>): void;
  /** What a thing is called, and beside it what is said of it. */
  pair(name: string, text: string, at: { fromMm: number; stepMm: number; afterMm: number }): void;
  /** A line across the page. */
  rule(yMm: number, weight?: number): void;
}

const LEADING = 1.35;
const INK = '#131313';
const QUIET = '#5c5c5c';
/** Rounding must not cut the last letter of a line that was broken to fit. */
const SLACK_MM = 0.35;

/** No page of a PDF is longer, points (ISO 32000-1, annex C). */
const MOST_POINTS = 14_400;

/** Adds a bare page. @returns its width and height, points */
export function bare(document: PDFKit.PDFDocument, widthMm: number, heightMm: number): [number, number] {
  const size: [number, number] = [widthMm * POINTS_PER_MM, Math.min(MOST_POINTS, heightMm * POINTS_PER_MM)];
  document.addPage({ size, margin: 0 });
  return size;
}

/**
 * Begins a page of words.
 * @param head set at the top of it and of every one that follows
 */
export function begin(document: PDFKit.PDFDocument, form: PageForm, head?: (page: Page) => void): Page {
  const { widthMm, heightMm, marginMm } = form;
  const mm = POINTS_PER_MM;
  const page: Page = {
    left: marginMm,
    width: widthMm - 2 * marginMm,
    y: marginMm,
    turn() {
      bare(document, widthMm, heightMm);
      page.y = marginMm;
      head?.(page);
    },
    keep(needed) {
      if (page.y + needed > heightMm - marginMm) page.turn();
    },
    say(text, { size, face, fromMm = 0, mostMm = page.width - fromMm, stepMm = (size * LEADING) / mm }) {
      for (const line of brokenLines(document, text, size, face, mostMm * mm)) {
        page.keep(stepMm);
        page.set(line, page.left + fromMm, page.y, { size, face, mostMm: mostMm + SLACK_MM });
        page.y += stepMm;
      }
    },
    set(text, xMm, yMm, { size, face, mostMm = Infinity }) {
      setLine(document.fillColor(INK), text, { x: xMm * mm, y: yMm * mm, size, face, most: mostMm * mm });
    },
    pair(name, text, { fromMm, stepMm, afterMm }) {
      page.keep(stepMm);
      page.set(name, page.left, page.y, { size: 9, face: 'sans' });
      page.say(text, { size: 10, face: 'serif', fromMm, stepMm });
      page.y += afterMm;
    },
    rule(yMm, weight = 0.4) {
      document
        .moveTo(page.left * mm, yMm * mm)
        .lineTo((page.left + page.width) * mm, yMm * mm)
        .lineWidth(weight)
        .strokeColor(QUIET)
        .stroke();
    },
  };
  page.turn();
  return page;
}

/** Columns beside each other: where each begins, and their width. */
export function columns(
  page: Page,
  count: number,
  gapMm: number,
): { readonly at: (column: number) => number; readonly width: number } {
  const width = (page.width - (count - 1) * gapMm) / count;
  return { at: (column) => page.left + column * (width + gapMm), width };
}
