import { decodeLines } from './decode-text.ts';
import { inert } from './csv-table.ts';

const TEXT = 'CGATS.17\r\nORIGINATOR "Größe"\r\nNUMBER_OF_FIELDS 4\r\n';
const LINES = ['CGATS.17', 'ORIGINATOR "Größe"', 'NUMBER_OF_FIELDS 4', ''];
const wide = (text: string) => new Uint8Array(Buffer.from(text, 'utf16le'));
const swapped = (text: string) => new Uint8Array(Buffer.from(text, 'utf16le').swap16());

describe('Text of a measurement file', () => {
  it.each([
    ['UTF-8', new TextEncoder().encode(TEXT), 'UTF-8'],
    ['UTF-8 with a mark', new TextEncoder().encode(`\uFEFF${TEXT}`), 'UTF-8'],
    ['Latin-1', new Uint8Array(Buffer.from(TEXT, 'latin1')), 'Latin-1'],
    ['UTF-16, little end first, with a mark', wide(`\uFEFF${TEXT}`), 'UTF-16'],
    ['UTF-16, big end first, with a mark', swapped(`\uFEFF${TEXT}`), 'UTF-16'],
    ['UTF-16, little end first, without a mark', wide(TEXT), 'UTF-16'],
    ['UTF-16, big end first, without a mark', swapped(TEXT), 'UTF-16'],
  ])('is read as %s', (_, bytes, encoding) => {
    expect(decodeLines(bytes)).toEqual({ lines: LINES, encoding });
  });

  it('is refused when it is none', () => {
    expect(() => decodeLines(new Uint8Array(400).fill(1))).toThrow('not a text file');
    expect(() => decodeLines(new Uint8Array(0))).toThrow('empty');
  });
});

describe('A cell of a table', () => {
  it.each(['=1+1', '+1', '-1', '@x', '|x', '\t=1', '  =1', '＝1'])('%j stays text in a spreadsheet', (text) => {
    expect(inert(text)).toBe(`'${text}`);
  });

  it('keeps numbers and plain names as they are', () => {
    expect(inert(-1.5)).toBe('-1.5');
    expect(inert('A1')).toBe('A1');
  });
});
