/** What a file of readings says of its paper and of how that was printed: proposed, and corrected by a hand. */
export interface ToldByFile {
  readonly maker?: string;
  readonly paper?: string;
  readonly weightGsm?: number;
  readonly printer?: string;
  readonly inkSet?: string;
  readonly blackInk?: 'photo black' | 'matt black' | 'dye black';
  readonly mediaSetting?: string;
  readonly resolution?: string;
  /** Parts that a keyword states; the others are told from the name or the description. */
  readonly stated: readonly (keyof Omit<ToldByFile, 'stated'>)[];
}

/** Words that the studio knows already: what a name holds of them is taken for them. */
export interface KnownWords {
  readonly makers: readonly string[];
  readonly printers: readonly string[];
  readonly inkSets: readonly string[];
  readonly mediaSettings: readonly string[];
}

type Part = keyof Omit<ToldByFile, 'stated' | 'weightGsm' | 'blackInk'>;

/** Keywords under which files say it: CGATS.17 lets anyone name their own (practice). */
const KEYWORDS: Readonly<Record<Part | 'weight' | 'black', readonly string[]>> = {
  maker: ['PAPER_MAKER', 'PAPER_MANUFACTURER', 'SUBSTRATE_MANUFACTURER', 'MEDIA_MANUFACTURER', 'MAKER', 'MILL'],
  paper: ['PAPER', 'PAPER_NAME', 'SUBSTRATE', 'SUBSTRATE_NAME', 'MEDIA', 'MEDIA_NAME', 'MATERIAL'],
  printer: ['PRINTER', 'PRINTER_MODEL', 'OUTPUT_DEVICE', 'DEVICE', 'PRESS'],
  inkSet: ['INK_SET', 'INKSET', 'INKS', 'INK', 'COLORANTS'],
  mediaSetting: ['MEDIA_SETTING', 'MEDIA_TYPE', 'PAPER_TYPE', 'PAPER_SETTING', 'DRIVER_MEDIA'],
  resolution: ['RESOLUTION', 'PRINT_RESOLUTION', 'DPI'],
  weight: ['PAPER_WEIGHT', 'SUBSTRATE_WEIGHT', 'MEDIA_WEIGHT', 'GRAMMAGE', 'WEIGHT'],
  black: ['BLACK_INK', 'BLACK'],
};

const MOST_LETTERS = 80;
const plain = (text: string) => text.normalize('NFC').replace(/\s+/g, ' ').trim().slice(0, MOST_LETTERS);

/** Grams a square metre: "310 g", "310gsm", "310 g/m²". */
const WEIGHT = /(?<![\d.,])(\d{2,3})\s*(?:g\s*\/\s*m(?:²|2)|gsm|gm2|g)(?![a-z])/i;
const DPI = /(?<!\d)(\d{3,4}(?:\s*[x×]\s*\d{3,4})?)\s*(?:dpi|ppi)\b/i;
/** No paper weighs less, or more. */
const WEIGHTS = { least: 30, most: 900 };
const BLACKS = [
  [/\b(?:photo|glossy?)[ _-]?black\b/i, 'photo black'],
  [/\bmatte?[ _-]?black\b/i, 'matt black'],
  [/\bdye[ _-]?black\b/i, 'dye black'],
] as const;
/** What stands in names of files and is no name of a paper. */
const NOISE = [
  /\bM[0-3]\b/gi,
  /\b\d{2,4}\s*(?:patches|patch|felder)\b/gi,
  /\b(?:19|20)\d{2}[-._]?\d{2}[-._]?\d{2}\b/g,
  /\b(?:rgb|cmyk|chart|target|readings?|measured|measurements?|spectral|spectra|copy|final|v\d+|test)\b/gi,
  /\(\d+\)/g,
];

const blackIn = (text: string) => BLACKS.find(([pattern]) => pattern.test(text))?.[1];

function weightIn(text: string): number | undefined {
  const found = Number(WEIGHT.exec(text)?.[1] ?? (/^\d{2,3}$/.test(text.trim()) ? text : NaN));
  return found >= WEIGHTS.least && found <= WEIGHTS.most ? found : undefined;
}

/** The longest known word that a text holds, whatever its letters' size. */
const knownIn = (text: string, words: readonly string[]): string | undefined =>
  [...words]
    .filter((w) => w.trim().length >= 2 && text.toLowerCase().includes(w.toLowerCase()))
    .sort((p, q) => q.length - p.length)[0];

const withoutEnding = (name: string) => name.replace(/\.[a-z0-9]{1,6}$/i, '').replace(/^.*[\\/]/, '');

/**
 * Keywords come first; what they leave open is told from the description and the file's name, by what is known here
 * and by its form; what is left of the name is the paper's.
 */
export function toldByFile(
  {
    keywords = {},
    description = '',
    fileName,
  }: { keywords?: Readonly<Record<string, string>>; description?: string; fileName: string },
  known: KnownWords = { makers: [], printers: [], inkSets: [], mediaSettings: [] },
): ToldByFile {
  const byName = new Map(Object.entries(keywords).map(([k, v]) => [k.toUpperCase(), v]));
  const keyword = (names: readonly string[]) => {
    const value = names.map((n) => byName.get(n)).find((v) => v?.trim());
    return value === undefined ? undefined : plain(value);
  };
  // An underscore parts words in a file's name, as a blank does.
  const name = withoutEnding(fileName).replaceAll('_', ' ');
  const words = `${description}\n${name}`;
  const stated = new Map<string, string | number>();
  const guessed = new Map<string, string | number>();
  const take = (part: string, said: string | number | undefined, guess: () => string | number | undefined) => {
    if (said !== undefined) stated.set(part, said);
    else {
      const found = guess();
      if (found !== undefined) guessed.set(part, found);
    }
  };
  const paperSaid = keyword(KEYWORDS.paper);
  const weightSaid = keyword(KEYWORDS.weight);
  take('maker', keyword(KEYWORDS.maker), () => knownIn(`${paperSaid ?? ''}\n${words}`, known.makers));
  take('printer', keyword(KEYWORDS.printer), () => knownIn(words, known.printers));
  take('inkSet', keyword(KEYWORDS.inkSet), () => knownIn(words, known.inkSets));
  take('mediaSetting', keyword(KEYWORDS.mediaSetting), () => knownIn(words, known.mediaSettings));
  take('weightGsm', weightSaid && weightIn(weightSaid), () => weightIn(`${paperSaid ?? ''}\n${words}`));
  const resolutionSaid = keyword(KEYWORDS.resolution);
  take(
    'resolution',
    resolutionSaid && (/^\d+$/.test(resolutionSaid) ? `${resolutionSaid} dpi` : resolutionSaid),
    () => {
      const dpi = DPI.exec(words)?.[1];
      return dpi && `${dpi.replace(/\s*[x×]\s*/i, ' × ')} dpi`;
    },
  );
  take('blackInk', blackIn(keyword(KEYWORDS.black) ?? ''), () => blackIn(words));
  const others = [...stated, ...guessed].flatMap(([part, v]) => (part === 'weightGsm' ? [] : [String(v)]));
  take('paper', paperSaid && withoutOthers(paperSaid, others.slice(0, 1)), () => {
    // A description of a few words names the paper; a long one tells of something else.
    const first = description.split(/[,;\n]/)[0]!.trim();
    const fromName = withoutOthers(name, others);
    return fromName || (first.length <= 40 ? withoutOthers(first, others) : undefined) || undefined;
  });
  return { ...Object.fromEntries([...guessed, ...stated]), stated: [...stated.keys()] as ToldByFile['stated'] };
}

/** What is left of a name without what was told of other things. */
function withoutOthers(text: string, others: readonly string[]): string {
  let left = text;
  for (const other of others) {
    const at = left.toLowerCase().indexOf(other.toLowerCase());
    if (at >= 0) left = `${left.slice(0, at)} ${left.slice(at + other.length)}`;
  }
  for (const pattern of [WEIGHT, DPI, ...BLACKS.map(([p]) => p), ...NOISE]) left = left.replace(pattern, ' ');
  return plain(left.replace(/[-–—,;|]+/g, ' '));
}
