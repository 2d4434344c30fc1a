import type { Reading } from '../measurement/reading.ts';
import { writeCgats } from './cgats-write.ts';
import { writeCsv } from './csv-write.ts';
import { writeCxf } from './cxf-write.ts';
import { readingsFromCxf } from './cxf.ts';
import type { ColumnMapping } from './column-mapping.ts';
import { decodeText } from './decode-text.ts';
import { looksDelimited, readingFromDelimited } from './delimited.ts';
import type { ImportedReading } from './imported-reading.ts';
import { readingsFromCgats } from './reading-from-cgats.ts';

/** A format of readings, declared. Adding one is adding a file like those beside this one and a line here. */
export interface ReadingFormat {
  readonly name: string;
  /** Standard it follows. */
  readonly source: string;
  /** Endings its files usually have; what a file is, its content says. */
  readonly extensions: readonly string[];
  /** What is said of it where files are asked for. */
  readonly hint: string;
  /** Does the beginning of a file look like it? */
  readonly recognises: (bytes: Uint8Array) => boolean;
  /** Readings of the file, one a measurement condition; at least one. @throws FormatError */
  readonly read: (bytes: Uint8Array, mapping?: ColumnMapping) => ImportedReading[];
}

const beginning = (bytes: Uint8Array) =>
  new TextDecoder('windows-1252').decode(bytes.subarray(0, 200)).replace(/^(ï»¿|\s)+/, '');

const HEAD_BYTES = 65_536;
const headOf = (bytes: Uint8Array) => decodeText(bytes.subarray(0, HEAD_BYTES)).text;

/** What a reading can be written as. */
export const WRITERS = {
  cgats: { name: 'CGATS', extension: 'txt', mediaType: 'text/plain', write: writeCgats },
  cxf: { name: 'CxF3', extension: 'cxf', mediaType: 'application/xml', write: (reading: Reading) => writeCxf(reading) },
  csv: { name: 'CSV', extension: 'csv', mediaType: 'text/csv', write: writeCsv },
} as const satisfies Record<
  string,
  { name: string; extension: string; mediaType: string; write: (reading: Reading) => string }
>;

/** In the order in which they are tried; a file that none recognises goes to the last, which says what is wrong with it. */
export const READING_FORMATS: readonly ReadingFormat[] = [
  {
    name: 'CxF3',
    source: 'ISO 17972',
    extensions: ['.cxf', '.xml'],
    hint: 'CxF3 (ISO 17972)',
    recognises: (bytes) => beginning(bytes).startsWith('<'),
    read: readingsFromCxf,
  },
  {
    name: 'CSV or TSV',
    source: 'RFC 4180',
    extensions: ['.csv', '.tsv'],
    hint: 'CSV or TSV',
    recognises: looksDelimited,
    read: (bytes, mapping) => [readingFromDelimited(bytes, mapping)],
  },
  {
    name: 'CGATS',
    source: 'ISO 28178, CGATS.17',
    extensions: ['.txt', '.cgats', '.it8', '.ascii'],
    hint: 'CGATS (ISO 28178)',
    recognises: (bytes) => /\bBEGIN_DATA(_FORMAT)?\b|^\s*(CGATS|ISO ?28178|IT8)/im.test(headOf(bytes)),
    read: readingsFromCgats,
  },
];

/** Readings of a file in any format that is known; `mapping` says what the columns of a table hold. @throws FormatError */
export function readingsFromFile(bytes: Uint8Array, mapping?: ColumnMapping): ImportedReading[] {
  const format = READING_FORMATS.find((f) => f.recognises(bytes)) ?? READING_FORMATS[READING_FORMATS.length - 1]!;
  return format.read(bytes, mapping);
}

/** Endings of all files of readings, for pickers. */
export const readingExtensions = (): string[] => [...new Set(READING_FORMATS.flatMap((f) => f.extensions))];

/** All formats in words, in the order of the registry. */
export const readingFormatsInWords = (): string => READING_FORMATS.map((f) => f.hint).join(', ');
