import { asThree } from '../src/colour/three.ts';
import type { Rgb } from '../src/colour/types.ts';
import { seededNormal } from '../src/random.ts';
import { press, type PressModel } from '../src/simulation/printer.ts';
import { BENCH_GRID } from '../src/simulation/sheet.ts';

/** A printed sheet on the glass of a flatbed. */
export interface SheetOnGlass {
  readonly raster: {
    readonly widthPx: number;
    readonly heightPx: number;
    readonly dpi: number;
    readonly data: Uint16Array;
  };
  readonly printed: PressModel;
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
}

/** Middles and widths of the scanner’s three filters, nm, and its tone curve: no eye’s, and nobody was told them. */
const FILTERS = [
  [605, 34],
  [540, 32],
  [455, 26],
] as const;
const GAMMA = 2;
const NOISE = 0.004;
/** Colours are printed to so many steps a channel. */
const STEPS = 63;

/** What a flatbed gives of sheets on a white glass: 8-bit codes, by filters of its own over every printed spectrum, with noise. */
export function flatbed(sheets: readonly SheetOnGlass[], widthMm: number, heightMm: number, ppi: number, seed: number) {
  const [width, height] = [widthMm, heightMm].map((mm) => Math.round((mm / 25.4) * ppi));
  const { floor, exp, round, max, min, cos, sin, PI } = Math;
  const filters = FILTERS.map(([middle, wide]) => {
    const values = Array.from({ length: BENCH_GRID.count }, (_, i) =>
      exp(-0.5 * ((BENCH_GRID.startNm + i * BENCH_GRID.stepNm - middle) / wide) ** 2),
    );
    const sum = values.reduce((a, b) => a + b, 0);
    return values.map((v) => v / sum);
  });
  const data = Buffer.alloc(width * height * 3, 245);
  const normal = seededNormal(seed);
  for (const { raster, printed, xMm, yMm, turnDeg } of sheets) {
    const print = press(printed, 'M1');
    const known = new Map<number, Rgb>();
    const codes = (at: number): Rgb => {
      const [r, g, b] = [0, 1, 2].map((c) => round((raster.data[at + c] / 65_535) * STEPS));
      const key = (r * 64 + g) * 64 + b;
      const found = known.get(key);
      if (found) return found;
      const spectrum = print([r / STEPS, g / STEPS, b / STEPS]);
      const made = asThree(
        filters.map(
          (f) =>
            245 *
            max(
              0,
              f.reduce((sum, v, i) => sum + v * spectrum[i], 0),
            ) **
              (1 / GAMMA),
        ),
      );
      known.set(key, made);
      return made;
    };
    const [c, s] = [cos((turnDeg * PI) / 180), sin((turnDeg * PI) / 180)];
    const perPx = 25.4 / ppi;
    const onSheet = raster.dpi / 25.4;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [dx, dy] = [(x + 0.5) * perPx - xMm, (y + 0.5) * perPx - yMm];
        const u = floor((dx * c + dy * s) * onSheet);
        const v = floor((dy * c - dx * s) * onSheet);
        if (u < 0 || v < 0 || u >= raster.widthPx || v >= raster.heightPx) continue;
        const code = codes((v * raster.widthPx + u) * 3);
        const at = (y * width + x) * 3;
        for (let k = 0; k < 3; k++) data[at + k] = max(0, min(255, round(code[k] * (1 + NOISE * normal()))));
      }
  }
  return { width, height, data };
}
