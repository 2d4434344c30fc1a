import type { Matrix3 } from '../../colour/matrix.ts';
import type { Xyz } from '../../colour/types.ts';
import type { Lut16 } from './lut16.ts';
import { localized, plainText, profileOf, textDescription, typed, type Tag } from './profile-parts.ts';

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

/** The bytes of a profile. */
export function writeProfile(profile: OutputProfile): Uint8Array {
  const white = profile.mediaWhite.map((v) => v / 100);
  const tables = new Map<Lut16, Uint8Array>();
  const table = (lut: Lut16) => {
    if (!tables.has(lut)) tables.set(lut, lut16(lut));
    return tables.get(lut)!;
  };
  const words = profile.version === 2 ? textDescription : localized;
  const tags: Tag[] = [
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
  return profileOf({
    version: profile.version,
    kind: 'prtrRGB Lab ',
    createdAt: profile.createdAt,
    // Bit 1 says matt, the others reflective, positive, colour.
    attributes: profile.matt ? 2 : 0,
    tags,
  });
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
