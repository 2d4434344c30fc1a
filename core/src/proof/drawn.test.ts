import { nodeLab } from '../characterisation/lab-axes.ts';
import { nodePlaces } from '../characterisation/lattice.ts';
import { linearOfPcs, rgbToLab, SRGB } from '../colour/rgb-space.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { drawProof, shareBeyond, type Drawing, type DrawnSheet } from './drawn.ts';
import { WHOLE } from './part.ts';
import { PLAIN } from './recipe.ts';

const GRID = 33;
/** A sheet that prints every colour as `to` says, on a white of its own. */
function sheet(to: (lab: Lab) => Lab, white: Lab = [100, 0, 0]): DrawnSheet {
  const values: number[] = [];
  for (const at of nodePlaces(3, GRID)) values.push(...to(nodeLab(at)));
  return { lattice: { axes: 3, nodes: GRID, values: Float32Array.from(values) }, white, blackL: 0 };
}
const AS_IT_IS = sheet((lab) => lab);
const GREY = sheet(([L]) => [20 + 0.8 * L, 0, 0]);

const [W, H] = [24, 16];
const colourAt = (x: number, y: number): Rgb => [x / W, y / H, 0.5];
const picture = {
  widthPx: W,
  heightPx: H,
  units: 250,
  lab: Int16Array.from({ length: W * H * 3 }, (_, i) => {
    const p = Math.floor(i / 3);
    return Math.round(250 * rgbToLab(SRGB, colourAt(p % W, Math.floor(p / W)))[i % 3]);
  }),
};
const drawing: Drawing = {
  picture,
  sheets: [AS_IT_IS, GREY],
  recipes: [PLAIN, PLAIN],
  split: 1,
  beside: false,
  map: 'none',
  part: WHOLE,
  settled: false,
  toScreen: linearOfPcs(SRGB),
  dim: 1,
};
const labOf = (pixels: Uint8ClampedArray, at: number): Lab =>
  rgbToLab(SRGB, [pixels[at] / 255, pixels[at + 1] / 255, pixels[at + 2] / 255]);

it('a sheet that prints everything shows the file, to a code and its dither', () => {
  const pixels = drawProof(drawing, W, H);
  for (let p = 0; p < W * H; p++) {
    const wanted = colourAt(p % W, Math.floor(p / W));
    wanted.forEach((v, c) => expect(Math.abs(pixels[p * 4 + c] - v * 255)).toBeLessThan(2.2));
    expect(pixels[p * 4 + 3]).toBe(255);
  }
});

it('each side of the line is its own sheet, and beside each other both are whole', () => {
  const split = drawProof({ ...drawing, split: 0.5 }, W, H);
  const beside = drawProof({ ...drawing, beside: true }, 2 * W, H);
  const chroma = ([, a, b]: Lab) => Math.hypot(a, b);
  expect(chroma(labOf(split, (3 * W + 20) * 4))).toBeLessThan(2);
  expect(chroma(labOf(split, (3 * W + 2) * 4))).toBeGreaterThan(20);
  expect(deltaE2000(labOf(beside, (3 * 2 * W + 2) * 4), labOf(split, (3 * W + 2) * 4))).toBeLessThan(1);
  expect(deltaE2000(labOf(beside, (3 * 2 * W + W + 20) * 4), labOf(split, (3 * W + 20) * 4))).toBeLessThan(1);
});

it('bare paper has the sheet’s own white, and beyond it nothing is drawn', () => {
  const cream: Lab = [94, 1, 8];
  const around = { top: 0.25, right: 0, bottom: 0, left: 0 };
  const none = { ...around, top: 0 };
  const both = { ...drawing, sheets: [sheet((lab) => lab, cream), GREY] as const, split: 0.5 };
  const pixels = drawProof({ ...both, around: [around, none] }, W, H + 4);
  expect(deltaE2000(labOf(pixels, (1 * W + 3) * 4), cream)).toBeLessThan(1);
  expect(pixels[(1 * W + 20) * 4 + 3]).toBe(0);
  expect(pixels[(6 * W + 20) * 4 + 3]).toBe(255);
});

it('a recipe is done before the sheet, for its hand alone', () => {
  const lifted = drawProof({ ...drawing, recipes: [{ ...PLAIN, liftStops: 1 }, PLAIN] }, W, H);
  const bare = drawProof(drawing, W, H);
  const at = (8 * W + 12) * 4;
  expect(labOf(lifted, at)[0]).toBeGreaterThan(labOf(bare, at)[0] + 8);
});

it('maps hatch what they name: nothing where the sheet prints everything, much where it prints greys', () => {
  const inked = (over: Partial<Drawing>) => {
    const [plain, mapped] = [
      drawProof({ ...drawing, ...over, map: 'none' }, W, H),
      drawProof({ ...drawing, ...over }, W, H),
    ];
    return mapped.filter((v, i) => Math.abs(v - plain[i]) > 60).length;
  };
  expect(inked({ map: 'out of reach' })).toBe(0);
  expect(inked({ map: 'out of reach', split: 0 })).toBeGreaterThan(100);
  expect(inked({ map: 'between the two' })).toBeGreaterThan(100);
  expect(inked({ map: 'beyond this screen' })).toBe(0);
  expect(inked({ map: 'closed shadows', split: 0 })).toBeGreaterThan(0);
});

it('what a screen can’t show is counted', () => {
  const screen = { settled: false, toScreen: linearOfPcs(SRGB), dim: 1 };
  // Inside sRGB, and a green, a cyan and a red far outside it.
  const labs = Float32Array.of(50, 10, 10, 60, -120, 80, 60, -90, -60, 50, 110, 90);
  expect(shareBeyond(Float32Array.from(labs), PLAIN, AS_IT_IS, screen)).toBeCloseTo(0.75, 6);
  expect(shareBeyond(Float32Array.from(labs), PLAIN, GREY, screen)).toBe(0);
});
