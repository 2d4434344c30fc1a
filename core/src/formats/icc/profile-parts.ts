import { ByteWriter } from './bytes.ts';

const HEADER = 128;
export const D50 = [0.9642, 1, 0.8249] as const;
const VERSION = { 2: 0x02400000, 4: 0x04300000 } as const;

export type Tag = readonly [signature: string, content: Uint8Array];

/** A profile of any kind before it is written: ICC.1:2001-04 (v2.4) or ICC.1:2010 (v4.3). */
export interface ProfileParts {
  readonly version: 2 | 4;
  /** Device class, device space and connection space, four letters each. */
  readonly kind: string;
  readonly createdAt: Date;
  /** Lower word of the device attributes. */
  readonly attributes: number;
  readonly tags: readonly Tag[];
}

/** The bytes of a profile. Tags that hold the same content share its bytes. */
export function profileOf({ version, kind, createdAt, attributes, tags }: ProfileParts): Uint8Array {
  const places = new Map<Uint8Array, number>();
  const body = new ByteWriter();
  const start = HEADER + 4 + tags.length * 12;
  for (const [, content] of tags) {
    if (places.has(content)) continue;
    places.set(content, start + body.length);
    body.bytes(content).align();
  }
  const out = new ByteWriter();
  out.u32(start + body.length, 0, VERSION[version]).ascii(kind);
  out.u16(
    createdAt.getUTCFullYear(),
    createdAt.getUTCMonth() + 1,
    createdAt.getUTCDate(),
    createdAt.getUTCHours(),
    createdAt.getUTCMinutes(),
    createdAt.getUTCSeconds(),
  );
  out
    .ascii('acsp')
    .u32(0, 0, 0, 0, 0, attributes, 1)
    .fixed(...D50);
  out.zeros(HEADER - out.length).u32(tags.length);
  for (const [signature, content] of tags) out.ascii(signature).u32(places.get(content)!, content.length);
  return out.bytes(body.done()).done();
}

/** The beginning of a tag of a type. */
export const typed = (signature: string) => new ByteWriter().ascii(signature).zeros(4);

export const plainText = (text: string) => typed('text').ascii(text).u8(0).done();

/** textDescriptionType of v2: ASCII, and no Unicode or Macintosh words beside it. */
export function textDescription(text: string): Uint8Array {
  return typed('desc')
    .u32(text.length + 1)
    .ascii(text)
    .u8(0)
    .zeros(4 + 4 + 2 + 1 + 67)
    .done();
}

/** multiLocalizedUnicodeType of v4, in English. */
export function localized(text: string): Uint8Array {
  const out = typed('mluc')
    .u32(1, 12)
    .ascii('enUS')
    .u32(text.length * 2, 28);
  for (let i = 0; i < text.length; i++) out.u16(text.charCodeAt(i));
  return out.done();
}
