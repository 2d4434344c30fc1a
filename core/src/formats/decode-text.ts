import { FormatError } from './format-error.ts';

const TEXT_SAMPLE_BYTES = 65_536;

/**
 * Text of a measurement file: UTF-8 where the bytes are valid UTF-8, else Latin-1; a byte order mark is dropped; CR, LF and CRLF
 * all end a line.
 * @returns the lines, without their ends, and the encoding that was found
 * @throws FormatError for a file that is empty or not text
 */
export function decodeLines(bytes: Uint8Array): { lines: string[]; encoding: 'UTF-8' | 'Latin-1' } {
  if (bytes.length === 0) throw new FormatError({ message: 'The file is empty.', remedy: 'Export the readings again.' });
  const sample = bytes.subarray(0, TEXT_SAMPLE_BYTES);
  let control = 0;
  for (const b of sample) if (b < 9 || (b > 13 && b < 32 && b !== 26)) control++;
  if (control > sample.length / 200) {
    throw new FormatError({
      message: 'This is not a text file.',
      remedy: 'Choose the text file the instrument software wrote: CGATS (often .txt, .cgats, .it8, .cie or .ti3) or CxF3 (.cxf).',
    });
  }
  let text: string;
  let encoding: 'UTF-8' | 'Latin-1' = 'UTF-8';
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    encoding = 'Latin-1';
    text = new TextDecoder('windows-1252').decode(bytes);
  }
  return { lines: text.split(/\r\n|\r|\n/), encoding };
}
