import { mapThree } from '../colour/three.ts';
import type { Rgb } from '../colour/types.ts';
import { toRgb16, type Rgb16 } from './device16.ts';
import { blankRaster, fillBox, pixelAt, type Raster } from './raster.ts';
import { SHEET_SIZES, type SheetSize } from './sheet-sizes.ts';

interface Area {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A thing on the page. Fills are given as device colour by place, so that screen, TIFF and PDF come from one description. */
export type PageMark =
  | (Area & { readonly kind: 'flat'; readonly rgb: Rgb; readonly id?: string })
  /** Colour by place, u and v from 0 to 1 across and down. */
  | (Area & { readonly kind: 'sweep'; readonly name: string; readonly at: (u: number, v: number) => Rgb })
  | {
      readonly kind: 'text';
      readonly xMm: number;
      readonly yMm: number;
      readonly sizeMm: number;
      readonly face: 'serif' | 'sans';
      readonly text: string;
      readonly reversed?: true;
    };

export interface TestPage {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marks: readonly PageMark[];
}

/** What the box in the margin tells. */
export interface PageSettings {
  readonly paper: string;
  readonly printer: string;
  readonly mediaSetting: string;
  readonly printMode: string;
  readonly date: string;
  readonly resolution: string;
}

/** The sheets a test page is made for; it is laid out for A4 and put in the middle of a larger one. */
export const TEST_PAGE_SHEETS = ['A4', 'A3', 'A3+', 'letter'] as const satisfies readonly SheetSize[];

const grey = (v: number): Rgb => [v, v, v];
/** Saturated hue around the circle, 0–1. */
const hue = (h: number): Rgb =>
  mapThree([0, 2 / 3, 1 / 3], (shift) => Math.min(1, Math.max(0, Math.abs(((h + shift) % 1) * 6 - 3) - 1)));
const towards = (c: Rgb, to: number, t: number): Rgb => mapThree(c, (v) => v + (to - v) * t);

/** Greys a machine reads the page by: 0 to 100 % in 5 % steps, between a black, a white and a black at either end. */
export const BAR_STEPS = 21;
/**
 * Colours the eye knows by heart, as sRGB-like device values of our own choosing: skins from deep to fair, sky, grass,
 * brick, slate, sand, plum.
 */
const MEMORY: readonly (readonly [string, Rgb])[] = [
  ['deep skin', [0.3, 0.19, 0.14]],
  ['brown skin', [0.5, 0.33, 0.24]],
  ['olive skin', [0.69, 0.51, 0.39]],
  ['fair skin', [0.86, 0.69, 0.59]],
  ['pale skin', [0.95, 0.83, 0.76]],
  ['sky', [0.42, 0.58, 0.76]],
  ['grass', [0.33, 0.45, 0.2]],
  ['brick', [0.57, 0.26, 0.19]],
  ['slate', [0.35, 0.38, 0.41]],
  ['sand', [0.82, 0.73, 0.57]],
  ['plum', [0.37, 0.18, 0.33]],
  ['lemon', [0.95, 0.87, 0.3]],
];

/** Lays the visual test page out: what an eye looks at after a media setting was changed. */
export function testPage(sheet: (typeof TEST_PAGE_SHEETS)[number], dpi: number, settings: PageSettings): TestPage {
  const { widthMm, heightMm } = SHEET_SIZES[sheet];
  const left = (widthMm - 186) / 2;
  const top = (heightMm - 265) / 2;
  const marks: PageMark[] = [];
  const flat = (x: number, y: number, w: number, h: number, rgb: Rgb, id?: string) =>
    marks.push({ kind: 'flat', xMm: left + x, yMm: top + y, widthMm: w, heightMm: h, rgb, id });
  const sweep = (name: string, x: number, y: number, w: number, h: number, at: (u: number, v: number) => Rgb) =>
    marks.push({ kind: 'sweep', name, xMm: left + x, yMm: top + y, widthMm: w, heightMm: h, at });
  const text = (
    x: number,
    y: number,
    sizeMm: number,
    words: string,
    face: 'serif' | 'sans' = 'sans',
    reversed?: true,
  ) => marks.push({ kind: 'text', xMm: left + x, yMm: top + y, sizeMm, face, text: words, reversed });

  // Settings, in the margin at the top.
  text(0, 4, 4, 'Rakuen test page', 'serif');
  const box = [
    [settings.paper, settings.printer],
    [settings.mediaSetting, settings.printMode],
    [settings.resolution, settings.date],
  ];
  const names = [
    ['Paper', 'Printer'],
    ['Media setting', 'Mode'],
    ['Resolution', 'Date'],
  ];
  box.forEach((row, r) => row.forEach((words, c) => text(58 + c * 66, 3 + r * 4, 2.6, `${names[r]![c]}: ${words}`)));
  for (const [x, y, w, h] of [
    [56, -1, 130, 0.2],
    [56, 13, 130, 0.2],
    [56, -1, 0.2, 14],
    [185.8, -1, 0.2, 14],
  ] as const)
    flat(x, y, w, h, grey(0));

  // Zone plate: rings finer and finer, to half a pixel's pitch at the rim. Where they close up or beat, the setting blocks.
  const ringMm = 60;
  const finest = dpi / 25.4 / 4;
  sweep('zone plate', 0, 18, ringMm, ringMm, (u, v) => {
    const r = Math.hypot(u - 0.5, v - 0.5) * ringMm;
    return r > ringMm / 2 ? grey(1) : grey(0.5 + 0.5 * Math.cos((Math.PI * finest * r * r) / (ringMm / 2)));
  });
  text(0, 81, 2.4, `rings, ${finest.toFixed(1)} a mm at the rim`);

  // One percent steps at both ends, each beside the full black or the bare paper it must part from.
  for (let i = 0; i <= 10; i++) {
    flat(64 + i * 11, 18, 11, 12, grey(i / 100), `shadow ${i} %`);
    flat(64 + i * 11, 32, 11, 12, grey(1 - i / 100), `highlight ${i} %`);
    text(64.5 + i * 11, 29, 2, `${i}`, 'sans', true);
    text(64.5 + i * 11, 43, 2, `${i}`);
  }
  flat(64, 44, 121, 0.2, grey(0));
  text(64, 48, 2.4, 'steps of 1 % from black, and from the paper');
  // Smooth and stepped ramps.
  sweep('grey ramp', 64, 51, 122, 9, (u) => grey(u));
  for (let i = 0; i < 26; i++) flat(64 + (i * 122) / 26, 61, 122 / 26, 8, grey(i / 25));
  sweep('dark ramp', 64, 70, 60, 8, (u) => grey(0.15 * u));
  sweep('light ramp', 126, 70, 60, 8, (u) => grey(0.85 + 0.15 * u));
  text(64, 81, 2.4, 'grey 0–100 %, smooth and in 4 % steps; 0–15 % and 85–100 %');

  // Saturated colour: hues to black and to paper, and each ink.
  sweep('hues', 0, 86, 186, 26, (u, v) => (v < 0.5 ? towards(hue(u), 1, 1 - 2 * v) : towards(hue(u), 0, 2 * v - 1)));
  (['red', 'green', 'blue', 'cyan', 'magenta', 'yellow'] as const).forEach((name, i) => {
    const full = (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
        [0, 1, 1],
        [1, 0, 1],
        [1, 1, 0],
      ] as const
    )[i]!;
    sweep(`${name} ramp`, 0, 114 + i * 6, 186, 5.4, (u) => towards(full, 1, 1 - u));
  });
  // Smooth sweeps that show banding and a tinge: a sky, a dusk, skin into shade.
  sweep('sky', 0, 153, 60, 32, (u, v) => [0.3 + 0.5 * v, 0.48 + 0.4 * v, 0.72 + 0.22 * v + 0.02 * u]);
  sweep('dusk', 63, 153, 60, 32, (u, v) => [0.09 + 0.45 * v ** 2, 0.1 + 0.26 * v ** 2 + 0.02 * u, 0.19 + 0.12 * v]);
  sweep('cheek', 126, 153, 60, 32, (u, v) => {
    const light = Math.max(0.06, 0.95 - 1.1 * Math.hypot(u - 0.38, 0.7 * (v - 0.42)));
    return [Math.min(1, 0.98 * light), Math.min(1, 0.8 * light), Math.min(1, 0.7 * light)];
  });
  // Colours the eye knows.
  MEMORY.forEach(([name, rgb], i) => {
    flat((i % 12) * 15.5, 189, 15.5, 14, rgb, name);
    text((i % 12) * 15.5 + 0.6, 206, 2, name);
  });

  // Hairlines and small type, black on the paper and the paper in black.
  [0.05, 0.1, 0.15, 0.2, 0.3, 0.5].forEach((w, i) => {
    flat(0, 211 + i * 3, 60, w, grey(0));
    flat(64 + i * 3, 210, w, 18, grey(0));
    text(86, 212.5 + i * 3, 2, `${w} mm`);
  });
  flat(104, 209, 82, 20, grey(0));
  [1.2, 1.5, 1.9, 2.4, 3].forEach((size, i) => {
    text(0, 233 + i * 4.6, size, 'Fog lay over the pylons until noon, and the salt kept its light.', 'serif');
    text(106, 212.6 + i * 3.6, size, 'The dish turned slowly through the night.', 'serif', true);
  });
  // The bar a machine reads.
  const cell = 186 / (BAR_STEPS + 6);
  [0, 1, 0].forEach((v, i) => {
    flat(i * cell, 253, cell, 8, grey(v));
    flat((BAR_STEPS + 5 - i) * cell, 253, cell, 8, grey(v));
  });
  for (let i = 0; i < BAR_STEPS; i++) flat((3 + i) * cell, 253, cell, 8, grey(i / (BAR_STEPS - 1)), `bar ${i * 5} %`);
  text(
    0,
    264.6,
    2.4,
    'bar of greys for an instrument: black, white, black, then 0 to 100 % in steps of 5, black, white, black',
  );
  return { widthMm, heightMm, marks };
}

/** Device values of the bar, in reading order: the page's own reference. */
export function barValues(): Rgb16[] {
  return [0, 1, 0, ...Array.from({ length: BAR_STEPS }, (_, i) => i / (BAR_STEPS - 1)), 0, 1, 0].map((v) =>
    toRgb16(grey(v)),
  );
}

/** The page in pixels, without its words. */
export function rasterisePage(page: TestPage, dpi: number): Raster {
  const raster = blankRaster(page.widthMm, page.heightMm, dpi);
  for (const mark of page.marks) {
    if (mark.kind === 'flat')
      fillBox(
        raster,
        mark.xMm,
        mark.yMm,
        Math.max(mark.widthMm, 25.4 / dpi),
        Math.max(mark.heightMm, 25.4 / dpi),
        toRgb16(mark.rgb),
      );
    else if (mark.kind === 'sweep') fillSweep(raster, mark);
  }
  return raster;
}

function fillSweep(
  { widthPx, data, dpi }: Raster,
  { xMm, yMm, widthMm, heightMm, at }: Extract<PageMark, { kind: 'sweep' }>,
): void {
  const [left, top, right, bottom] = [
    pixelAt(xMm, dpi),
    pixelAt(yMm, dpi),
    pixelAt(xMm + widthMm, dpi),
    pixelAt(yMm + heightMm, dpi),
  ];
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const rgb = toRgb16(at((x - left + 0.5) / (right - left), (y - top + 0.5) / (bottom - top)));
      data.set(rgb, (y * widthPx + x) * 3);
    }
  }
}
