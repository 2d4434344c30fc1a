import { three } from '../../colour/three.ts';
import { FormatError } from '../format-error.ts';
import type { Lut16 } from './lut16.ts';

/** What the header of a profile says. */
export interface ProfileHeader {
  readonly bytes: number;
  /** Major version: 2, 4 or 5. */
  readonly major: number;
  readonly deviceClass: string;
  readonly colourSpace: string;
  readonly connectionSpace: string;
}

/** A profile whose header, tag table and tags hold together. */
export interface ReadProfile {
  readonly header: ProfileHeader;
  readonly description: string;
  readonly tags: ReadonlyMap<string, Uint8Array>;
}

const HEADER = 128;
const MOST_TAGS = 200;
const REMEDY = 'Fetch the profile again, or export it anew.';
const damaged = (what: string) => new FormatError({ message: `The ICC profile is damaged: ${what}.`, remedy: REMEDY });

const text4 = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/**
 * Reads a profile (ICC.1, v2 and v4) as far as to know that every tag is whole: within the file, of a type that
 * belongs to it, and as long as its own counts say.
 * @throws FormatError that names the tag
 */
export function readProfile(bytes: Uint8Array): ReadProfile {
  if (bytes.length < HEADER + 4 || text4(bytes, 36) !== 'acsp')
    throw new FormatError({ message: 'It is not an ICC profile: its signature is missing.', remedy: REMEDY });
  const view = viewOf(bytes);
  const size = view.getUint32(0);
  if (size > bytes.length) throw damaged(`it says it is ${size} bytes long and is ${bytes.length}`);
  const header: ProfileHeader = {
    bytes: size,
    major: bytes[8]!,
    deviceClass: text4(bytes, 12).trim(),
    colourSpace: text4(bytes, 16).trim(),
    connectionSpace: text4(bytes, 20).trim(),
  };
  if (![2, 4, 5].includes(header.major)) throw damaged(`its version, ${header.major}, is none that is known`);
  const count = view.getUint32(HEADER);
  if (count === 0 || count > MOST_TAGS || HEADER + 4 + count * 12 > size)
    throw damaged(`its table lists ${count} tags`);
  const tags = new Map<string, Uint8Array>();
  for (let i = 0; i < count; i++) {
    const at = HEADER + 4 + i * 12;
    const name = text4(bytes, at);
    const [offset, length] = [view.getUint32(at + 4), view.getUint32(at + 8)];
    if (!/^[\x20-\x7e]{4}$/.test(name)) throw damaged(`tag ${i + 1} of its table has no readable name`);
    if (tags.has(name)) throw damaged(`tag “${name}” stands twice`);
    if (offset < HEADER || length < 8 || offset + length > size) throw damaged(`tag “${name}” lies outside the file`);
    tags.set(name, bytes.subarray(offset, offset + length));
  }
  for (const [name, tag] of tags) checkTag(name, tag, header);
  if (!tags.has('desc')) throw damaged('it has no description');
  return { header, description: descriptionOf(tags.get('desc')!), tags };
}

/** Types that may stand in a tag (ICC.1, 9.2), for the tags whose content is used here. */
const TYPES: readonly (readonly [tag: RegExp, types: readonly string[]])[] = [
  [/^(A2B|B2A)\d$|^(gamt|pre\d)$/, ['mft1', 'mft2', 'mAB ', 'mBA ']],
  [/^(wtpt|bkpt|[rgb]XYZ|lumi)$/, ['XYZ ']],
  [/^[rgbk]TRC$/, ['curv', 'para']],
  [/^(desc|dmdd|dmnd)$/, ['desc', 'mluc', 'text']],
  [/^cprt$/, ['text', 'mluc', 'desc']],
  [/^chad$/, ['sf32']],
  [/^targ$/, ['text']],
];

const CHANNELS: Readonly<Record<string, number>> = { GRAY: 1, RGB: 3, CMYK: 4, Lab: 3, XYZ: 3 };

function checkTag(name: string, tag: Uint8Array, header: ProfileHeader): void {
  const type = text4(tag, 0);
  const allowed = TYPES.find(([pattern]) => pattern.test(name))?.[1];
  if (allowed && !allowed.includes(type)) throw damaged(`tag “${name}” is of a type that doesn’t belong there`);
  if (viewOf(tag).getUint32(4) !== 0) throw damaged(`tag “${name}” does not begin as its type does`);
  const need = (length: number) => {
    if (length > tag.length) throw damaged(`tag “${name}” is shorter than it says`);
  };
  const view = viewOf(tag);
  if (type === 'mft1' || type === 'mft2') {
    need(type === 'mft2' ? 52 : 48);
    const [inputs, outputs, grid] = [view.getUint8(8), view.getUint8(9), view.getUint8(10)];
    checkTableChannels(name, inputs, outputs, header);
    if (grid < 2) throw damaged(`the table of tag “${name}” has no nodes`);
    const entries = type === 'mft2' ? [view.getUint16(48), view.getUint16(50)] : [256, 256];
    if (entries.some((n) => n < 2 || n > 4096))
      throw damaged(`a curve of tag “${name}” has too few or too many entries`);
    const numbers = inputs * entries[0]! + grid ** inputs * outputs + outputs * entries[1]!;
    need(type === 'mft2' ? 52 + numbers * 2 : 48 + numbers);
  } else if (type === 'mAB ' || type === 'mBA ') {
    need(32);
    checkTableChannels(name, tag[8]!, tag[9]!, header);
    for (let at = 12; at < 32; at += 4) need(view.getUint32(at));
  } else if (type === 'curv') {
    need(12);
    need(12 + view.getUint32(8) * 2);
  } else if (type === 'XYZ ') {
    need(20);
    const [X, Y, Z] = three((c) => view.getInt32(8 + 4 * c) / 65536);
    if (name === 'wtpt' && !(Y > 0.1 && Y < 1.5 && X > 0 && X < 2 && Z > 0 && Z < 2))
      throw damaged('its white is none that a sheet or a screen can have');
  } else if (type === 'sf32') {
    if (name === 'chad') need(8 + 36);
  } else if (type === 'desc') {
    need(12);
    need(12 + view.getUint32(8));
  } else if (type === 'mluc') {
    need(16);
    const [records, width] = [view.getUint32(8), view.getUint32(12)];
    if (width < 12) throw damaged(`tag “${name}” has records that are too short`);
    need(16 + records * width);
    for (let i = 0; i < records; i++) need(view.getUint32(16 + i * width + 4) + view.getUint32(16 + i * width + 8));
  }
}

function checkTableChannels(name: string, inputs: number, outputs: number, header: ProfileHeader): void {
  const device = CHANNELS[header.colourSpace];
  if (device === undefined) return;
  const wanted = name.startsWith('A2B')
    ? [device, 3]
    : name === 'gamt'
      ? [3, 1]
      : name.startsWith('B2A')
        ? [3, device]
        : undefined;
  if (wanted && (inputs !== wanted[0] || outputs !== wanted[1]))
    throw damaged(
      `the table of tag “${name}” takes ${inputs} and gives ${outputs} channels, not ${wanted[0]} and ${wanted[1]}`,
    );
}

function descriptionOf(tag: Uint8Array): string {
  const type = text4(tag, 0);
  const view = viewOf(tag);
  if (type === 'mluc') {
    if (view.getUint32(8) === 0) return '';
    const [length, from] = [view.getUint32(20), view.getUint32(24)];
    let text = '';
    for (let at = from; at + 1 < from + length; at += 2) text += String.fromCharCode(view.getUint16(at));
    return text;
  }
  const from = type === 'desc' ? 12 : 8;
  const length = type === 'desc' ? view.getUint32(8) : tag.length - 8;
  return String.fromCharCode(...tag.subarray(from, from + Math.min(length, 512))).replace(/\0.*$/s, '');
}

/** A lut16Type tag as a table. @throws FormatError where the tag is of another type */
export function readLut16({ tags }: ReadProfile, name: string): Lut16 {
  const tag = tags.get(name);
  if (!tag || text4(tag, 0) !== 'mft2')
    throw new FormatError({ message: `The profile has no 16-bit table “${name}”.`, remedy: REMEDY });
  const view = viewOf(tag);
  const [inputs, outputs, grid] = [view.getUint8(8), view.getUint8(9), view.getUint8(10)];
  const words = (from: number, count: number) =>
    Uint16Array.from({ length: count }, (_, i) => view.getUint16(from + i * 2));
  const [ins, outs, nodes] = [inputs * view.getUint16(48), outputs * view.getUint16(50), grid ** inputs * outputs];
  return {
    inputs,
    outputs,
    grid,
    inputCurves: words(52, ins),
    lattice: words(52 + ins * 2, nodes),
    outputCurves: words(52 + (ins + nodes) * 2, outs),
  };
}
