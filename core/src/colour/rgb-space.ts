import { mapThree } from './three.ts';
import { bradford } from './adaptation.ts';
import { xyzToLab } from './lab.ts';
import { apply, invert, multiply, type Matrix3 } from './matrix.ts';
import type { Lab, Rgb, Xyz } from './types.ts';
import { WHITE_D65, WHITE_ICC } from './white.ts';

/** An RGB working space as plain data: primaries, white and the decoding curve. */
export interface RgbSpace {
  readonly name: string;
  readonly source: string;
  /** Chromaticities x, y of red, green, blue. */
  readonly primaries: readonly [readonly [number, number], readonly [number, number], readonly [number, number]];
  readonly white: Xyz;
  /** Device value 0–1 to linear light 0–1. */
  readonly decode: (v: number) => number;
  /** Linear light 0–1 to device value 0–1. */
  readonly encode: (v: number) => number;
}

export const SRGB: RgbSpace = {
  name: 'sRGB',
  source: 'IEC 61966-2-1',
  primaries: [
    [0.64, 0.33],
    [0.3, 0.6],
    [0.15, 0.06],
  ],
  white: WHITE_D65,
  decode: (v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4),
  encode: (v) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055),
};

/** The wide primaries of newer screens under the curve of sRGB. */
export const DISPLAY_P3: RgbSpace = {
  ...SRGB,
  name: 'Display P3',
  source: 'SMPTE RP 431-2 primaries, D65, curve of IEC 61966-2-1',
  primaries: [
    [0.68, 0.32],
    [0.265, 0.69],
    [0.15, 0.06],
  ],
};

const A98_GAMMA = 563 / 256;

export const ADOBE_RGB_1998: RgbSpace = {
  name: 'Adobe RGB (1998)',
  source: 'IEC 61966-2-5',
  primaries: [
    [0.64, 0.33],
    [0.21, 0.71],
    [0.15, 0.06],
  ],
  white: WHITE_D65,
  decode: (v) => v ** A98_GAMMA,
  encode: (v) => v ** (1 / A98_GAMMA),
};

/** A wide space whose greens and blues no eye can see: it encloses every print. */
export const ROMM_RGB: RgbSpace = {
  name: 'ROMM RGB',
  source: 'ISO 22028-2',
  primaries: [
    [0.7347, 0.2653],
    [0.1596, 0.8404],
    [0.0366, 0.0001],
  ],
  white: WHITE_ICC,
  decode: (v) => (v < 16 / 512 ? v / 16 : v ** 1.8),
  encode: (v) => (v < 1 / 512 ? v * 16 : v ** (1 / 1.8)),
};

const matrices = new WeakMap<RgbSpace, { toPcs: Matrix3; fromPcs: Matrix3 }>();

function matricesOf(space: RgbSpace) {
  const known = matrices.get(space);
  if (known) return known;
  const [r, g, b] = space.primaries.map(([x, y]) => [x / y, 1, (1 - x - y) / y]);
  const columns: Matrix3 = [
    [r![0]!, g![0]!, b![0]!],
    [r![1]!, g![1]!, b![1]!],
    [r![2]!, g![2]!, b![2]!],
  ];
  const scale = apply(invert(columns), space.white);
  const [x, y, z] = columns.map((row) => mapThree(row, (v, i) => v * scale[i]!));
  const toXyz: Matrix3 = [x!, y!, z!];
  const toPcs = multiply(bradford(space.white, WHITE_ICC), toXyz);
  const made = { toPcs, fromPcs: invert(toPcs) };
  matrices.set(space, made);
  return made;
}

/** Takes a D50 XYZ (Y 0–100) to linear light of a space, 0–1: rows of red, green, blue. */
export const linearOfPcs = (space: RgbSpace): Matrix3 => matricesOf(space).fromPcs;

/** CIELAB (D50, Bradford-adapted as ICC profiles are) of device RGB 0–1. */
export function rgbToLab(space: RgbSpace, rgb: Rgb): Lab {
  return xyzToLab(apply(matricesOf(space).toPcs, [space.decode(rgb[0]), space.decode(rgb[1]), space.decode(rgb[2])]));
}

/** Device RGB of a D50 XYZ (Y 0–100); values outside 0–1 are outside the space and are returned unclipped. */
export function xyzToRgb(space: RgbSpace, xyz: Xyz): Rgb {
  const linear = apply(matricesOf(space).fromPcs, xyz);
  const encode = (v: number) => (v < 0 ? -space.encode(-v) : space.encode(v));
  return [encode(linear[0]), encode(linear[1]), encode(linear[2])];
}
