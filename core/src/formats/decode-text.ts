import { FormatError } from './format-error.ts';

const TEXT_SAMPLE_BYTES = 65_536;

export type TextEncodingName = 'UTF-8' | 'UTF-16' | 'Latin-1';

/**
 * Text of a measurement file: UTF-16 by its byte order mark or its zero bytes, UTF-8 where the bytes are valid UTF-8, else Latin-1; a byte
 * order mark is dropped; CR, LF and CRLF all end a line.
 * @returns the lines, without their ends, and the encoding that was found
 * @throws FormatError for a file that is empty or not text
 */
export function decodeLines(bytes: Uint8Array): { lines: string[]; encoding: TextEncodingName } {
  if (bytes.length === 0)
    throw new FormatError({ message: 'The file is empty.', remedy: 'Export the readings again.' });
  const { text, encoding } = decodeText(bytes);
  let control = 0;
  const most = Math.min(text.length, TEXT_SAMPLE_BYTES);
  for (let i = 0; i < most; i++) {
    const c = text.charCodeAt(i);
    if (c < 9 || (c > 13 && c < 32 && c !== 26)) control++;
  }
  if (control > most / 200) {
    throw new FormatError({
      message: 'This is not a text file.',
      remedy: 'Choose the text file the instrument software wrote: CGATS (often .txt or .cgats), CSV or CxF3 (.cxf).',
    });
  }
  return { lines: text.split(/\r\n|\r|\n/), encoding };
}

/** Text as it stands, whatever it holds. */
export function decodeText(bytes: Uint8Array): { text: string; encoding: TextEncodingName } {
  const wide = wideLabel(bytes);
  if (wide) return { text: new TextDecoder(wide).decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Latin-1' };
  }
}

/** UTF-16 has a byte order mark, or a zero in every other byte of plain text. */
function wideLabel(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const sample = bytes.subarray(0, 400);
  if (sample.length < 8) return undefined;
  const zeros = [0, 0];
  sample.forEach((b, i) => b === 0 && zeros[i % 2]!++);
  const half = sample.length / 2;
  if (zeros[1]! > 0.8 * half && zeros[0]! < 0.05 * half) return 'utf-16le';
  if (zeros[0]! > 0.8 * half && zeros[1]! < 0.05 * half) return 'utf-16be';
  return undefined;
}
