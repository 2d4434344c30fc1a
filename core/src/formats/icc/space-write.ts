import { labToXyz } from '../../colour/lab.ts';
import { rgbToLab, type RgbSpace } from '../../colour/rgb-space.ts';
import type { Rgb } from '../../colour/types.ts';
import { D50, profileOf, textDescription, typed, plainText } from './profile-parts.ts';

/** Entries of a decoding curve: fine enough that what lies between is right to a tenth of an 8-bit code. */
const ENTRIES = 4096;
const PRIMARIES: readonly (readonly [tag: string, rgb: Rgb])[] = [
  ['rXYZ', [1, 0, 0]],
  ['gXYZ', [0, 1, 0]],
  ['bXYZ', [0, 0, 1]],
];

/**
 * A working space as a matrix and curve profile (ICC.1:2001-04, v2.4), its primaries adapted to D50, for files that
 * are given away in it.
 */
export function spaceProfile(space: RgbSpace): Uint8Array {
  const curve = typed('curv').u32(ENTRIES);
  for (let i = 0; i < ENTRIES; i++) curve.u16(Math.round(space.decode(i / (ENTRIES - 1)) * 65_535));
  const decoding = curve.done();
  return profileOf({
    version: 2,
    kind: 'mntrRGB XYZ ',
    // The same space is the same bytes, whenever it is written.
    createdAt: new Date(Date.UTC(2026, 0, 1)),
    attributes: 0,
    tags: [
      ['desc', textDescription(space.name)],
      ['cprt', plainText('Public domain: numbers of the standard it is named after.')],
      [
        'wtpt',
        typed('XYZ ')
          .fixed(...D50)
          .done(),
      ],
      ...PRIMARIES.map(([tag, rgb]): [string, Uint8Array] => [
        tag,
        typed('XYZ ')
          .fixed(...labToXyz(rgbToLab(space, rgb)).map((v) => v / 100))
          .done(),
      ]),
      ...['rTRC', 'gTRC', 'bTRC'].map((tag): [string, Uint8Array] => [tag, decoding]),
    ],
  });
}
