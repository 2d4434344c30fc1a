import { createRequire } from 'node:module';
import type PDFDocument from 'pdfkit';
import { font, FONT_FILES, FURTHER_FILES, type Face } from './fonts.ts';
import { lineRuns } from './line-runs.ts';

export const POINTS_PER_MM = 72 / 25.4;

/** The package is large: it is opened with the first PDF, not with the server. */
const require = createRequire(import.meta.url);

/** A PDF with the product's own two faces and no page yet. */
export function newPdf(): PDFKit.PDFDocument {
  const Document = require('pdfkit') as typeof PDFDocument;
  const document = new Document({ autoFirstPage: false, info: { Producer: 'Rakuen', Creator: 'Rakuen' } });
  for (const face of ['sans', 'serif'] as const) {
    document.registerFont(face, FONT_FILES[face]);
    FURTHER_FILES[face].forEach((file, i) => document.registerFont(`${face}-${i}`, file));
  }
  return document;
}

/** A run is shaped whole: word by word, right-to-left ones would change places. */
const WHOLE: PDFKit.Mixins.TextOptions = { features: [] };

/** Width of a line, points. */
export function lineWidth(document: PDFKit.PDFDocument, text: string, size: number, face: Face): number {
  return lineRuns(text, face).reduce(
    (sum, r) => sum + document.font(r.font).fontSize(size).widthOfString(r.text, WHOLE),
    0,
  );
}

/** Where and how a line is set, points; `most` is the width it may take, beyond which it is cut short. */
export interface LinePlace {
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly face: Face;
  readonly most?: number;
  /** What lies at `y`: the top of the letters, or the line they stand on. */
  readonly at?: 'top' | 'alphabetic';
}

/** Sets one line. */
export function setLine(
  document: PDFKit.PDFDocument,
  text: string,
  { x, y, size, face, most = Infinity, at = 'top' }: LinePlace,
): void {
  let words = text;
  while (words.length > 1 && lineWidth(document, words, size, face) > most)
    words = `${words.slice(0, words.endsWith('…') ? -2 : -1).trimEnd()}…`;
  let left = x;
  // All scripts of a line stand on one base line, that of its own face.
  const { ascender, unitsPerEm } = font(FONT_FILES[face]);
  const baseline = at === 'top' ? y + (ascender / unitsPerEm) * size : y;
  for (const r of lineRuns(words, face)) {
    document
      .font(r.font)
      .fontSize(size)
      .text(r.text, left, baseline, { ...WHOLE, lineBreak: false, baseline: 'alphabetic' });
    left += document.widthOfString(r.text, WHOLE);
  }
}

/** Breaks a text into lines that are no wider than `most`, points. */
export function brokenLines(
  document: PDFKit.PDFDocument,
  text: string,
  size: number,
  face: Face,
  most: number,
): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ').flatMap((w) => brokenWord(document, w, size, face, most))) {
    const longer = lines.length === 0 ? word : `${lines[lines.length - 1]} ${word}`;
    if (lines.length > 0 && lineWidth(document, longer, size, face) <= most) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** A word that is wider than the line, and scripts that part none, in pieces that are not. */
function brokenWord(document: PDFKit.PDFDocument, word: string, size: number, face: Face, most: number): string[] {
  if (lineWidth(document, word, size, face) <= most) return [word];
  const pieces: string[] = [];
  for (const { segment } of new Intl.Segmenter().segment(word)) {
    const longer = (pieces[pieces.length - 1] ?? '') + segment;
    if (pieces.length > 0 && lineWidth(document, longer, size, face) <= most) pieces[pieces.length - 1] = longer;
    else pieces.push(segment);
  }
  return pieces;
}

export function finishedPdf(document: PDFKit.PDFDocument): Promise<Uint8Array> {
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  const whole = new Promise<Uint8Array>((done, fail) =>
    document.on('end', () => done(Buffer.concat(parts))).on('error', fail),
  );
  document.end();
  return whole;
}
