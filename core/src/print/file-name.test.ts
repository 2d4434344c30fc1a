import { fileName, FILE_PATTERN } from './file-name.ts';

const WORDS = {
  picture: 'Salt / noon',
  paper: 'Kaolin Rag',
  size: '420',
  ppi: '360',
  profile: 'sRGB',
  date: '2026-11-26',
};

it.each([
  [FILE_PATTERN, 'Salt - noon, Kaolin Rag, 420 mm'],
  ['{date} {picture} {profile} {ppi}', '2026-11-26 Salt - noon sRGB 360'],
  ['{nobody} {picture}', '{nobody} Salt - noon'],
  ['  ', 'Salt - noon'],
  ['../../{paper}', '-..-Kaolin Rag'],
  ['x'.repeat(500), 'x'.repeat(120)],
])('%j', (pattern, name) => expect(fileName(pattern, WORDS)).toBe(name));
