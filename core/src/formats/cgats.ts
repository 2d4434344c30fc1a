import { decodeLines, type TextEncodingName } from './decode-text.ts';
import { FormatError } from './format-error.ts';

/** One table of a CGATS file (ISO 28178, CGATS.17): its header, its columns and its rows as they stand in the file. */
export interface CgatsTable {
  /** First word of the file: any, for it is the writer’s own name for what follows. */
  readonly identifier: string;
  /** Header keywords in capitals; repeated ones are joined by a line break. */
  readonly keywords: ReadonlyMap<string, string>;
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Line in the file of each row, from 1. */
  readonly rowLines: readonly number[];
}

export interface CgatsFile {
  readonly encoding: TextEncodingName;
  readonly tables: readonly CgatsTable[];
}

const IDENTIFIER = /^[A-Z][\w./ -]{0,30}$/i;
/** Words that begin a block or end it; in quotes they are names like any other. */
const isWord = (token: Token | undefined, word: string) => token?.quoted === false && token.text.toUpperCase() === word;
const MAX_COLUMNS = 2000;
const HEAD_BYTES = 8192;

/**
 * Reads the structure of a CGATS text file: several tables, comments, quoted values, any line end. Numbers are not looked at.
 * @throws FormatError naming the line: not CGATS, cut short, counts that don't agree
 */
export function parseCgats(bytes: Uint8Array): CgatsFile {
  // The beginning alone is looked at first, so that a large file of something else is refused at once.
  const first = identifierLine(decodeLines(bytes.subarray(0, HEAD_BYTES)).lines);
  const { lines, encoding } = decodeLines(bytes);
  while (lines.length > 1 && lines[lines.length - 1]!.trim() === '') lines.pop();

  const tables: CgatsTable[] = [];
  let identifier = lines[first]!.trim();
  let keywords = new Map<string, string>();
  let columns: string[] | undefined;
  let i = first + 1;
  while (i < lines.length) {
    const found = tokens(lines[i]!);
    const words = found.map((t) => t.text);
    const lineNumber = i + 1;
    i++;
    if (words.length === 0) continue;
    const key = words[0]!.toUpperCase();
    if (isWord(found[0], 'BEGIN_DATA_FORMAT')) {
      const block = readBlock(lines, i, 'END_DATA_FORMAT', found.slice(1), lineNumber);
      columns = block.rows.flat();
      i = block.next;
      checkColumns(columns, keywords, lineNumber);
    } else if (isWord(found[0], 'BEGIN_DATA')) {
      if (!columns) {
        throw new FormatError({
          message: 'The data begin before any column is named.',
          line: lineNumber,
          remedy: 'A BEGIN_DATA_FORMAT block with the column names must come first. Export the file again.',
        });
      }
      const block = readBlock(lines, i, 'END_DATA', found.slice(1), lineNumber);
      i = block.next;
      const { rows, rowLines } = fitRows(block, columns);
      checkRowCount(rows.length, keywords, lineNumber);
      tables.push({ identifier, keywords, columns, rows, rowLines });
      // Some dialects give the columns once for several tables, so they stay; the header starts afresh.
      keywords = new Map();
    } else if (words.length === 1 && found[0]!.quoted === false && keywords.size === 0) {
      identifier = words[0]!;
    } else if (key !== 'KEYWORD') {
      const value = words.slice(1).join(' ');
      const before = keywords.get(key);
      keywords.set(key, before === undefined ? value : `${before}\n${value}`);
    }
  }

  if (tables.length === 0) {
    throw new FormatError({
      message: 'The file holds no data: there is no BEGIN_DATA block.',
      line: lines.length,
      remedy: 'It may be cut short. Export the readings again.',
    });
  }
  return { encoding, tables };
}

/** Number (from 0) of the line that names the format. */
function identifierLine(lines: readonly string[]): number {
  const first = lines.findIndex((l) => l.trim() !== '' && !l.trimStart().startsWith('#'));
  if (first < 0 || !IDENTIFIER.test(lines[first]!.trim())) {
    throw new FormatError({
      message: 'The file does not begin like a CGATS file.',
      line: Math.max(first, 0) + 1,
      remedy:
        'Its first line should name the format, for instance CGATS.17. Export the readings as CGATS or ISO 28178 text.',
    });
  }
  return first;
}

interface Block {
  readonly rows: string[][];
  readonly rowLines: number[];
  readonly next: number;
}

function readBlock(lines: readonly string[], from: number, end: string, head: Token[], beganAt: number): Block {
  const rows: string[][] = [];
  const rowLines: number[] = [];
  const take = (row: Token[], line: number) => {
    if (row.length === 0) return;
    rows.push(row.map((t) => t.text));
    rowLines.push(line);
  };
  const headEnd = head.findIndex((t) => isWord(t, end));
  if (headEnd >= 0) {
    take(head.slice(0, headEnd), beganAt);
    return { rows, rowLines, next: from };
  }
  take(head, beganAt);
  for (let i = from; i < lines.length; i++) {
    const row = tokens(lines[i]!);
    if (row.length === 0) continue;
    if (isWord(row[0], end)) return { rows, rowLines, next: i + 1 };
    const endAt = end === 'END_DATA_FORMAT' ? row.findIndex((t) => isWord(t, end)) : -1;
    if (endAt > 0) {
      take(row.slice(0, endAt), i + 1);
      return { rows, rowLines, next: i + 1 };
    }
    take(row, i + 1);
  }
  throw new FormatError({
    message: `The file ends inside the block that begins on line ${beganAt}: ${end} is missing.`,
    line: lines.length,
    remedy: 'It looks cut short. Copy or export it again.',
  });
}

function checkColumns(columns: readonly string[], keywords: ReadonlyMap<string, string>, line: number): void {
  if (columns.length > MAX_COLUMNS) {
    throw new FormatError({
      message: `The file names ${columns.length} columns; ${MAX_COLUMNS} is the most.`,
      line,
      remedy: 'Export fewer columns.',
    });
  }
  const stated = Number(keywords.get('NUMBER_OF_FIELDS'));
  // Some writers count their spectral columns wrongly by one or leave the sample number out; the rows decide.
  if (columns.length === 0 || (Number.isFinite(stated) && stated > 0 && Math.abs(stated - columns.length) > 1)) {
    throw new FormatError({
      message: `The header promises ${Number.isFinite(stated) ? stated : 'some'} columns (NUMBER_OF_FIELDS) and names ${columns.length}.`,
      line,
      remedy: 'Correct the header, or export the file again.',
    });
  }
}

/** One row a line; where a writer broke long rows, the values are counted off instead. */
function fitRows(block: Block, columns: readonly string[]): { rows: string[][]; rowLines: number[] } {
  const n = columns.length;
  const odd = block.rows.findIndex((r) => r.length !== n);
  if (odd < 0) return block;
  const longest = block.rows.reduce((most, r) => Math.max(most, r.length), 0);
  const values = block.rows.flat();
  const wrapped = longest < n && values.length % n === 0;
  if (!wrapped) {
    throw new FormatError({
      message: `The row has ${block.rows[odd]!.length} values; ${n} columns are named.`,
      line: block.rowLines[odd],
      field: columns[Math.min(block.rows[odd]!.length, n - 1)],
      remedy: 'Look for a missing value, or a space inside a name that is not in quotes.',
    });
  }
  const lineOfValue = block.rows.flatMap((r, k) => r.map(() => block.rowLines[k]));
  const rows = Array.from({ length: values.length / n }, (_, k) => values.slice(k * n, (k + 1) * n));
  return { rows, rowLines: rows.map((_, k) => lineOfValue[k * n]!) };
}

function checkRowCount(count: number, keywords: ReadonlyMap<string, string>, line: number): void {
  const stated = Number(keywords.get('NUMBER_OF_SETS'));
  if (count === 0)
    throw new FormatError({ message: 'The data block is empty.', line, remedy: 'Export the readings again.' });
  if (Number.isFinite(stated) && stated !== count) {
    throw new FormatError({
      message: `The header promises ${stated} patches (NUMBER_OF_SETS); the table holds ${count}.`,
      line,
      remedy: 'Rows are missing or were added. Export the file again, or correct the count.',
    });
  }
}

/** A word of a line, and whether it stood in quotes: only a bare one can be a keyword. */
interface Token {
  readonly text: string;
  readonly quoted: boolean;
}

/** Words of a line: quotes keep spaces together, # begins a comment outside quotes. */
function tokens(line: string): Token[] {
  if (!line.includes('"') && !line.includes('#')) {
    const t = line.trim();
    return t === '' ? [] : t.split(/\s+/).map((text) => ({ text, quoted: false }));
  }
  const words: Token[] = [];
  const pattern = /"((?:[^"]|"")*)"?|#.*$|[^\s"#]+/g;
  for (const m of line.matchAll(pattern)) {
    if (m[0].startsWith('#')) break;
    const quoted = m[0].startsWith('"');
    words.push({ text: quoted ? m[1]!.replaceAll('""', '"') : m[0], quoted });
  }
  return words;
}
