import { createRequire } from 'node:module';
import type { Bidi } from 'bidi-js';
import { FONT_FILES, font, FURTHER_FILES, type Face } from './fonts.ts';

const require = createRequire(import.meta.url);
let bidi: Bidi | undefined;
const bidirectional = (): Bidi => (bidi ??= (require('bidi-js') as () => Bidi)());

/** Stands for a letter that no shipped face has. */
const MISSING = '?';

/** A part of a line in one face and one direction, in the order in which it is set from the left. */
export interface Run {
  /** The face as the PDF knows it. */
  readonly font: string;
  readonly text: string;
}

/** Spaces of the screen that a printed face need not have. */
const plain = (text: string) => text.replaceAll(/[\u2000-\u200a\u202f\u00a0]/g, ' ').replaceAll('\u03bc', '\u00b5');

/** Joiners and marks stay in the face of the letter they belong to; they have no place of their own. */
const BELONGS = /[\p{M}\u200c\u200d]/u;
/** Letters that a shaping engine sets from the right by itself. */
const RIGHT_TO_LEFT = /[\p{Script=Hebrew}\p{Script=Arabic}\u0660-\u0669]/u;

/** Pieces of a face, by the name the PDF knows them by; one after another, so that the large ones are opened last. */
const piecesOf = (face: Face) => [
  { name: face as string, file: FONT_FILES[face] },
  ...FURTHER_FILES[face].map((file, i) => ({ name: `${face}-${i}`, file })),
];

function faceOf(character: string, face: Face, before?: string): string | undefined {
  const pieces = piecesOf(face);
  const has = ({ file }: { file: string }) => font(file).charToGlyphIndex(character) > 0;
  const stays = BELONGS.test(character) && pieces.find((p) => p.name === before);
  if (stays && (has(stays) || /[\u200c\u200d]/.test(character))) return stays.name;
  return pieces.find(has)?.name;
}

/** Letters of a text that no shipped face has, each once. */
export function unsetLetters(text: string, face: Face): string[] {
  let before: string | undefined;
  const missing = new Set<string>();
  for (const character of plain(text)) {
    const found = faceOf(character, face, before);
    if (found) before = found;
    else if (!BELONGS.test(character)) missing.add(character);
  }
  return [...missing];
}

interface Piece {
  font: string;
  level: number;
  text: string;
}

/**
 * A line in runs, in the order they are set: each in the piece of the face that has its letters, right-to-left ones by
 * the Unicode Bidirectional Algorithm (UAX #9).
 */
export function lineRuns(text: string, face: Face): Run[] {
  const line = plain(text);
  const embedding = bidirectional().getEmbeddingLevels(line);
  const mirrored = bidirectional().getMirroredCharactersMap(line, embedding.levels);
  const pieces: Piece[] = [];
  let at = 0;
  for (const character of line) {
    const last = pieces[pieces.length - 1];
    const level = embedding.levels[at];
    const found = faceOf(character, face, last?.font);
    const shown = found ? (mirrored.get(at) ?? character) : BELONGS.test(character) ? '' : MISSING;
    at += character.length;
    if (last && last.font === (found ?? face) && last.level === level) last.text += shown;
    else pieces.push({ font: found ?? face, level, text: shown });
  }
  return inOrder(pieces).map(({ font: name, text: words, level }) => ({
    font: name,
    // The engine goes by the letters, the line by its levels: signs alone would be set from the left, numbers in Arabic
    // digits from the right. Where the two differ the run is handed over backwards.
    text: (level % 2 === 1) !== RIGHT_TO_LEFT.test(words) ? [...words].reverse().join('') : words,
  }));
}

/** Rule L2: from the highest level down to the lowest odd one, what lies at it or above is reversed. */
function inOrder(pieces: Piece[]): Piece[] {
  const order = [...pieces];
  const highest = Math.max(0, ...pieces.map((p) => p.level));
  for (let level = highest; level > 0; level--)
    for (let from = 0; from < order.length; from++) {
      if (order[from].level < level) continue;
      let to = from;
      while (to < order.length && order[to].level >= level) to++;
      order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = to;
    }
  return order;
}
