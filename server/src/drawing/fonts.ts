import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type OpenType from 'opentype.js';
import type { Font } from 'opentype.js';

const require = createRequire(import.meta.url);

/** The two faces of the product, as files that ship with it: no font of the machine is asked for. */
export const FONT_FILES = {
  sans: require.resolve('@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff'),
  serif: require.resolve('@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff'),
} as const;
export type Face = keyof typeof FONT_FILES;

/** Scripts that neither face has, for both: each by the piece of its own that has its letters. */
const OTHER_SCRIPTS = [
  // Kana and some seven thousand characters, then hangul.
  'noto-sans-jp/files/noto-sans-jp-japanese',
  'noto-sans-kr/files/noto-sans-kr-korean',
  'noto-sans-arabic/files/noto-sans-arabic-arabic',
  'noto-sans-hebrew/files/noto-sans-hebrew-hebrew',
  'noto-sans-devanagari/files/noto-sans-devanagari-devanagari',
  'noto-sans-thai/files/noto-sans-thai-thai',
].map((piece) => require.resolve(`@fontsource/${piece}-400-normal.woff`));
const pieces = (face: string): string[] => [
  ...['greek', 'latin-ext', 'cyrillic'].map((script) =>
    require.resolve(`@fontsource/${face}/files/${face}-${script}-400-normal.woff`),
  ),
  ...OTHER_SCRIPTS,
];

/** Each face comes in pieces by script; a letter the first piece lacks is looked for in these. */
export const FURTHER_FILES: Record<Face, readonly string[]> = {
  sans: pieces('source-sans-3'),
  serif: pieces('source-serif-4'),
};

const loaded = new Map<string, Font>();

/** A shipped face, or a piece of one by its file. */
export function font(face: string): Font {
  const path = face in FONT_FILES ? FONT_FILES[face as Face] : face;
  let made = loaded.get(path);
  if (!made) {
    const file = readFileSync(path);
    made = (require('opentype.js') as typeof OpenType).parse(
      file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength),
    );
    loaded.set(path, made);
  }
  return made;
}
