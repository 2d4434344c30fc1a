import { READING_FORMATS } from './reading-formats.ts';

/** What a file may be to a studio. */
export type FileKind = 'picture' | 'readings' | 'bundle' | 'lamp';

/** So much of a file says what it is. */
export const HEAD_BYTES = 65_536;

const PICTURES: readonly (readonly number[])[] = [
  [0xff, 0xd8, 0xff],
  [0x89, 0x50, 0x4e, 0x47],
  [0x49, 0x49, 42, 0],
  [0x4d, 0x4d, 0, 42],
  [0x49, 0x49, 43, 0],
  [0x4d, 0x4d, 0, 43],
];
/** Bands a lamp is read in, nm. */
const NM = { least: 300, most: 1100 } as const;
const FEWEST_BANDS = 8;
/** Written before the bands. */
const MOST_HEAD_LINES = 12;

/**
 * What a file is by how it begins; its name proves nothing. Readings are what a reading format recognises, and ICC
 * profiles; whether one can be read, its reader says.
 * @returns undefined of what is none of them
 */
export function fileKind(head: Uint8Array): FileKind | undefined {
  if (PICTURES.some((magic) => magic.every((b, i) => head[i] === b))) return 'picture';
  if (String.fromCharCode(...head.subarray(36, 40)) === 'acsp') return 'readings';
  const text = textOf(head)?.trim();
  if (text && isLamp(text)) return 'lamp';
  if (READING_FORMATS.some((f) => f.recognises(head))) return 'readings';
  if (!text) return undefined;
  if (text.startsWith('{')) return 'bundle';
  // Other text may be readings that somebody damaged: their reader says what is wrong.
  return 'readings';
}

/** Text in UTF-8 or UTF-16, as far as it was fetched; undefined of what holds bytes no text does. */
function textOf(head: Uint8Array): string | undefined {
  const utf16 = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  if (utf16) return new TextDecoder(head[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(head);
  const control = head.reduce((n, b) => n + (b < 9 || (b > 13 && b < 32) ? 1 : 0), 0);
  return control > 0 ? undefined : new TextDecoder().decode(head);
}

/** Two columns, wavelengths that climb and a power each: no readings look so. */
function isLamp(text: string): boolean {
  const lines = text.split(/\r\n?|\n/).filter((l) => l.trim() && !l.trim().startsWith('#'));
  // Where columns are parted by something else, a comma is a decimal one. The last line may be cut.
  const split = (l: string) => (/[;\t]/.test(l) ? l.replaceAll(',', '.').split(/[;\t]+/) : l.split(/[\s,]+/));
  const rows = lines.slice(0, -1).map((l) => split(l.trim()).filter(Boolean));
  const pair = (row: readonly string[]) => row.length === 2 && row.every((v) => Number.isFinite(Number(v)));
  const first = rows.findIndex(pair);
  if (first < 0 || first > MOST_HEAD_LINES) return false;
  const bands = rows.slice(first);
  if (bands.length < FEWEST_BANDS || !bands.every(pair)) return false;
  const nm = bands.map((row) => Number(row[0]));
  return nm.every((v, i) => v >= NM.least && v <= NM.most && (i === 0 || v > nm[i - 1]!));
}
