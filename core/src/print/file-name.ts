/** What the name of a file that goes to the printer or the lab can hold. */
export interface FileWords {
  readonly picture: string;
  readonly paper: string;
  /** Longer side, mm, in whole ones. */
  readonly size: string;
  readonly ppi: string;
  /** The profile or the space its values are of. */
  readonly profile: string;
  /** ISO 8601 day. */
  readonly date: string;
}
export const FILE_WORDS = [
  'picture',
  'paper',
  'size',
  'ppi',
  'profile',
  'date',
] as const satisfies readonly (keyof FileWords)[];
export const FILE_PATTERN = '{picture}, {paper}, {size} mm';

/** Letters a name may have on the file systems that are in use. */
const MOST_LETTERS = 120;
/** What one of them can't have in a name: separators, wildcards, control characters. */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[\u0000-\u001f\u007f/\\:*?"<>|]/g;

/**
 * The name of a file by a pattern, its words in braces: `{picture}, {paper}`. What is no such word stays as it is written.
 * @returns without ending; the picture’s name where the pattern leaves nothing
 */
export function fileName(pattern: string, words: FileWords): string {
  const filled = pattern.replace(/\{(\w+)\}/g, (whole, word: string) =>
    (FILE_WORDS as readonly string[]).includes(word) ? words[word as keyof FileWords] : whole,
  );
  const plain = (text: string) =>
    [...text.replace(FORBIDDEN, '-').trim()].slice(0, MOST_LETTERS).join('').trim().replace(/^\.+/, '');
  return plain(filled) || plain(words.picture) || 'print';
}
