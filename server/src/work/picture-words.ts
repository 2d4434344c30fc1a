import { XMLParser } from 'fast-xml-parser';

/** What a file says of itself, in its own words. */
export interface PictureWords {
  readonly title?: string;
  readonly caption?: string;
}

const MOST_LETTERS = { title: 160, caption: 2000 } as const;
/** Metadata larger than this is not words. */
const MOST_BYTES = 2 ** 20;

/** Title and caption of a picture from its XMP (ISO 16684-1, dc:title and dc:description), else its IPTC (IIM 2:05, 2:120). */
export function wordsIn(meta: { xmp?: Uint8Array; iptc?: Uint8Array }): PictureWords {
  const [xmp, iptc] = [fromXmp(meta.xmp), fromIptc(meta.iptc)];
  const title = tidy(xmp.title ?? iptc.title, MOST_LETTERS.title);
  const caption = tidy(xmp.caption ?? iptc.caption, MOST_LETTERS.caption);
  return { ...(title && { title }), ...(caption && { caption }) };
}

const tidy = (text: string | undefined, most: number): string | undefined =>
  text
    // eslint-disable-next-line no-control-regex -- control signs are what is taken out
    ?.replace(/[\u0000-\u001f\u007f]+/g, ' ')
    .trim()
    .slice(0, most) || undefined;

function fromXmp(bytes: Uint8Array | undefined): PictureWords {
  if (!bytes || bytes.length > MOST_BYTES) return {};
  try {
    const parser = new XMLParser({ ignoreAttributes: true, removeNSPrefix: true, processEntities: false });
    const parsed = parser.parse(Buffer.from(bytes).toString('utf8')) as Record<string, unknown>;
    return { title: firstText(find(parsed, 'title')), caption: firstText(find(parsed, 'description')) };
  } catch {
    // Words that can't be read are no reason to refuse a picture.
    return {};
  }
}

/** The first entry of that name, wherever it stands. */
function find(node: unknown, name: string): unknown {
  if (typeof node !== 'object' || node === null) return undefined;
  for (const [key, value] of Object.entries(node)) {
    if (key === name) return value;
    const deeper = find(value, name);
    if (deeper !== undefined) return deeper;
  }
  return undefined;
}

function firstText(node: unknown): string | undefined {
  if (typeof node === 'string') return node;
  if (typeof node === 'number') return String(node);
  if (typeof node !== 'object' || node === null) return undefined;
  for (const value of Object.values(node)) {
    const text = firstText(value);
    if (text) return text;
  }
  return undefined;
}

/** Datasets of the second record: 0x1C, record, dataset, length in two bytes. */
function fromIptc(bytes: Uint8Array | undefined): PictureWords {
  if (!bytes || bytes.length > MOST_BYTES) return {};
  const text = (dataset: number): string | undefined => {
    for (let at = 0; at + 5 <= bytes.length; at++) {
      if (bytes[at] !== 0x1c || bytes[at + 1] !== 2 || bytes[at + 2] !== dataset) continue;
      const length = bytes[at + 3] * 256 + bytes[at + 4];
      if (at + 5 + length <= bytes.length) return Buffer.from(bytes.subarray(at + 5, at + 5 + length)).toString('utf8');
    }
    return undefined;
  };
  return { title: text(5), caption: text(120) };
}
