import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype, { type Font } from 'opentype.js';

const require = createRequire(import.meta.url);

/** The two faces of the product, as files that ship with it: no font of the machine is asked for. */
export const FONT_FILES = {
  sans: require.resolve('@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff'),
  serif: require.resolve('@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff'),
} as const;
export type Face = keyof typeof FONT_FILES;

const loaded = new Map<Face, Font>();

export function font(face: Face): Font {
  let made = loaded.get(face);
  if (!made) {
    const file = readFileSync(FONT_FILES[face]);
    made = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
    loaded.set(face, made);
  }
  return made;
}
