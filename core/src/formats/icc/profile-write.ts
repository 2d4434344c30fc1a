import type { Matrix3 } from '../../colour/matrix.ts';
import type { Xyz } from '../../colour/types.ts';
import { ByteWriter } from './bytes.ts';
import type { Lut16 } from './lut16.ts';

/** An output profile before it is written: ICC.1:2001-04 (v2.4) or ICC.1:2010 (v4.3). */
export interface OutputProfile {
  readonly version: 2 | 4;
  readonly description: string;
  readonly licence: string;
  readonly createdAt: Date;
  /** The bare sheet under the adopted light, adapted to D50; Y of the perfect diffuser 100. */
  readonly mediaWhite: Xyz;
  /** Takes the viewing light's white to D50; the identity for D50. */
  readonly adaptation: Matrix3;
  readonly matt: boolean;
  /** The readings it was made from, as text (ASCII). */
  readonly readings: string;
  /** By rendering: perceptual 0, colorimetric 1, saturation 2. Tables that are the same object are written once. */
  readonly toLab: readonly [Lut16, Lut16, Lut16];
  readonly fromLab: readonly [Lut16, Lut16, Lut16];
  /** Lab to one number: 0 within the gamut. */
  readonly gamut: Lut16;
}

const HEADER = 128;
const D50 = [0.9642, 1, 0.8249] as const;
const VERSION = { 2: 0x02400000, 4: 0x04300000 } as const;

/** The bytes of a profile. Tags that hold the same table share its bytes. */
export function writeProfile(profile: OutputProfile): Uint8Array {
  const white = profile.mediaWhite.map((v) => v / 100);
  const tables = new Map<Lut16, Uint8Array>();
  const table = (lut: Lut16) => {
    if (!tables.has(lut)) tables.set(lut, lut16(lut));
    return tables.get(lut)!;
  };
  const words = profile.version === 2 ? textDescription : localized;
  const tags: [signature: string, content: Uint8Array][] = [
    ['desc', words(profile.description)],
    ['cprt', profile.version === 2 ? plainText(profile.licence) : localized(profile.licence)],
    [
      'wtpt',
      typed('XYZ ')
        .fixed(...white)
        .done(),
    ],
    [
      'chad',
      typed('sf32')
        .fixed(...profile.adaptation.flat())
        .done(),
    ],
    ['A2B0', table(profile.toLab[0])],
    ['A2B1', table(profile.toLab[1])],
    ['A2B2', table(profile.toLab[2])],
    ['B2A0', table(profile.fromLab[0])],
    ['B2A1', table(profile.fromLab[1])],
    ['B2A2', table(profile.fromLab[2])],
    ['gamt', table(profile.gamut)],
    ['targ', plainText(profile.readings)],
  ];

  const places = new Map<Uint8Array, number>();
  const body = new ByteWriter();
  const start = HEADER + 4 + tags.length * 12;
  for (const [, content] of tags) {
    if (places.has(content)) continue;
    places.set(content, start + body.length);
    body.bytes(content).align();
  }
  const { createdAt } = profile;
  const out = new ByteWriter();
  out.u32(start + body.length, 0, VERSION[profile.version]).ascii('prtrRGB Lab ');
  out.u16(
    createdAt.getUTCFullYear(),
    createdAt.getUTCMonth() + 1,
    createdAt.getUTCDate(),
    createdAt.getUTCHours(),
    createdAt.getUTCMinutes(),
    createdAt.getUTCSeconds(),
  );
  // Attributes: bit 1 says matt, the others reflective, positive, colour.
  out
    .ascii('acsp')
    .u32(0, 0, 0, 0, 0, profile.matt ? 2 : 0, 1)
    .fixed(...D50);
  out.zeros(HEADER - out.length).u32(tags.length);
  for (const [signature, content] of tags) out.ascii(signature).u32(places.get(content)!, content.length);
  return out.bytes(body.done()).done();
}

const typed = (signature: string) => new ByteWriter().ascii(signature).zeros(4);

const plainText = (text: string) => typed('text').ascii(text).u8(0).done();

/** textDescriptionType of v2: ASCII, and no Unicode or Macintosh words beside it. */
function textDescription(text: string): Uint8Array {
  return typed('desc')
    .u32(text.length + 1)
    .ascii(text)
    .u8(0)
    .zeros(4 + 4 + 2 + 1 + 67)
    .done();
}

/** multiLocalizedUnicodeType of v4, in English. */
function localized(text: string): Uint8Array {
  const out = typed('mluc')
    .u32(1, 12)
    .ascii('enUS')
    .u32(text.length * 2, 28);
  for (let i = 0; i < text.length; i++) out.u16(text.charCodeAt(i));
  return out.done();
}

function lut16(lut: Lut16): Uint8Array {
  const { inputs, outputs, grid, inputCurves, lattice, outputCurves } = lut;
  return typed('mft2')
    .u8(inputs, outputs, grid, 0)
    .fixed(1, 0, 0, 0, 1, 0, 0, 0, 1)
    .u16(inputCurves.length / inputs, outputCurves.length / outputs)
    .words(inputCurves)
    .words(lattice)
    .words(outputCurves)
    .done();
}
