import { deltaE2000 } from '../src/colour/difference.ts';
import { xyzToLab } from '../src/colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../src/colour/spectrum.ts';
import type { Lab, Rgb } from '../src/colour/types.ts';
import type { Reading, SpectralGrid } from '../src/measurement/reading.ts';
import { seededNormal, seededRandom } from '../src/random.ts';

/**
 * Printers that share nothing with the simulation the model was developed on: inks are dissolved in one layer and mix
 * by Kubelka and Munk's K/S (1931) with Saunderson's surface correction (1942), where the simulation lays halftone dots
 * after Neugebauer; colour separation is a curve of black over what the three inks have in common, with or without a
 * sudden start. Used by tests alone.
 */
export interface ForeignPrinter {
  readonly name: string;
  readonly print: (rgb: Rgb) => number[];
}

const GRID: SpectralGrid = { startNm: 380, stepNm: 10, count: 36 };
const WAVES = Array.from({ length: GRID.count }, (_, i) => GRID.startNm + i * GRID.stepNm);

interface Bump {
  readonly at: number;
  readonly width: number;
  readonly ks: number;
}
interface Recipe {
  readonly name: string;
  readonly inks: {
    readonly c: Bump[];
    readonly m: Bump[];
    readonly y: Bump[];
    readonly k: number;
    readonly kTint: number;
  };
  readonly paper: { readonly high: number; readonly blueFall: number };
  /** First-surface reflection that an instrument at 45°:0° still sees. */
  readonly surface: number;
  /** What the three inks have in common at which black starts, and the power with which it rises. */
  readonly black: { readonly from: number; readonly power: number; readonly replaces: number };
  /** How far the driver's curves bend from equal steps of colour difference in each ink alone: a power, 1 is even. */
  readonly curve: readonly [number, number, number];
  /** Most ink of all that the sheet takes; more is cut evenly. */
  readonly limit: number;
}

const WHITE = illuminantWhite();
const labOf = (values: readonly number[]) =>
  xyzToLab(spectrumToXyz({ startNm: GRID.startNm, stepNm: GRID.stepNm, values: [...values] }), WHITE);

const bell = (nm: number, { at, width, ks }: Bump) => ks / (1 + ((nm - at) / width) ** 4);
const sum = (list: readonly Bump[], nm: number) => list.reduce((s, b) => s + bell(nm, b), 0);

function printerOf({ name, inks, paper, surface, black, curve, limit }: Recipe): ForeignPrinter {
  const ks = (r: number) => (1 - r) ** 2 / (2 * r);
  const back = (v: number) => 1 + v - Math.sqrt(v * v + 2 * v);
  const paperKs = WAVES.map((nm) => ks(paper.high - paper.blueFall / (1 + Math.exp((nm - 425) / 14))));
  const [C, M, Y] = [inks.c, inks.m, inks.y].map((list) => WAVES.map((nm) => sum(list, nm) + 0.004));
  const K = WAVES.map((nm) => inks.k * (1 + (inks.kTint * (nm - 550)) / 200));
  const inner = 0.45;
  const seen = (mixed: number) => {
    const r = back(mixed);
    return surface + ((1 - surface) * (1 - inner) * r) / (1 - inner * r) / ((1 - inner) / (1 - inner * 0.995));
  };
  const evened = [C, M, Y].map((ink) => evenSteps((a) => labOf(paperKs.map((v, i) => seen(v + a * ink[i]!)))));
  // Black is evened over the grey it sets in on.
  const onset = evened.map((even, i) => even(black.from ** curve[i]!));
  const under = paperKs.map((v, i) => v + onset[0]! * C[i]! + onset[1]! * M[i]! + onset[2]! * Y[i]!);
  const evenedK = evenSteps((a) => labOf(under.map((v, i) => seen(v + a * K[i]!))));
  return {
    name,
    print: (rgb) => {
      const want = rgb.map((v) => 1 - Math.min(1, Math.max(0, v)));
      const common = Math.min(...want);
      const rise = Math.max(0, (common - black.from) / (1 - black.from)) ** black.power;
      const laid = evenedK(rise);
      let amounts = want.map((w, i) => evened[i]!(Math.max(0, w - black.replaces * rise * common) ** curve[i]!));
      const total = amounts.reduce((s, v) => s + v, rise);
      if (total > limit) amounts = amounts.map((v) => v * Math.max(0, (limit - rise) / (total - rise)));
      return WAVES.map((_, i) => {
        const mixed = paperKs[i]! + amounts[0]! * C![i]! + amounts[1]! * M![i]! + amounts[2]! * Y![i]! + laid * K[i]!;
        return seen(mixed);
      });
    },
  };
}

/** Ink for a share of the way from paper to full ink, by equal steps of ΔE*ab: what a driver's linearisation does. */
function evenSteps(lab: (amount: number) => Lab): (share: number) => number {
  const STEPS = 200;
  const way = [0];
  for (let i = 1, last = lab(0); i <= STEPS; i++) {
    const next = lab((i / STEPS) ** 2);
    way.push(way[i - 1]! + Math.hypot(next[0] - last[0], next[1] - last[1], next[2] - last[2]));
    last = next;
  }
  return (share) => {
    const target = Math.min(1, share) * way[STEPS]!;
    const i = Math.min(STEPS - 1, Math.max(0, way.findIndex((w) => w >= target) - 1));
    const t = (target - way[i]!) / (way[i + 1]! - way[i]! || 1);
    return ((i + t) / STEPS) ** 2;
  };
}

const PIGMENT = {
  c: [{ at: 640, width: 85, ks: 7 }],
  m: [
    { at: 540, width: 48, ks: 7.5 },
    { at: 430, width: 50, ks: 0.8 },
  ],
  y: [{ at: 420, width: 62, ks: 8.5 }],
};
const DYE = {
  c: [{ at: 650, width: 70, ks: 10 }],
  m: [{ at: 545, width: 42, ks: 11 }],
  y: [{ at: 415, width: 58, ks: 12 }],
};
const REFILL = {
  c: [
    { at: 632, width: 90, ks: 5 },
    { at: 420, width: 40, ks: 0.3 },
  ],
  m: [
    { at: 530, width: 52, ks: 5.5 },
    { at: 430, width: 60, ks: 1 },
  ],
  y: [{ at: 425, width: 70, ks: 6 }],
};

/** Six unlike printers: hard and soft onset of black, dye, refill, matt, uncoated. */
export const FOREIGN_PRINTERS: readonly ForeignPrinter[] = [
  printerOf({
    name: 'hard black onset',
    inks: { ...PIGMENT, k: 55, kTint: 0.1 },
    paper: { high: 0.93, blueFall: 0.03 },
    surface: 0.0018,
    black: { from: 0.859, power: 1, replaces: 0.35 },
    curve: [1.05, 1, 1.1],
    limit: 3.2,
  }),
  printerOf({
    name: 'soft black onset',
    inks: { ...PIGMENT, k: 60, kTint: -0.1 },
    paper: { high: 0.94, blueFall: 0.02 },
    surface: 0.0016,
    black: { from: 0.35, power: 1.15, replaces: 0.45 },
    curve: [1, 1.05, 0.95],
    limit: 2.6,
  }),
  printerOf({
    name: 'dye',
    inks: { ...DYE, k: 40, kTint: -0.5 },
    paper: { high: 0.92, blueFall: 0.02 },
    surface: 0.003,
    black: { from: 0.5, power: 1, replaces: 0.3 },
    curve: [1.1, 1.1, 1],
    limit: 2.8,
  }),
  printerOf({
    name: 'refill',
    inks: { ...REFILL, k: 22, kTint: 0.4 },
    paper: { high: 0.92, blueFall: 0.04 },
    surface: 0.004,
    black: { from: 0.6, power: 1, replaces: 0.3 },
    curve: [0.9, 1.2, 0.9],
    limit: 3,
  }),
  printerOf({
    name: 'matt',
    inks: { ...PIGMENT, k: 30, kTint: 0.05 },
    paper: { high: 0.91, blueFall: 0.05 },
    surface: 0.014,
    black: { from: 0.4, power: 1.1, replaces: 0.4 },
    curve: [1, 1, 1.05],
    limit: 2.4,
  }),
  printerOf({
    name: 'uncoated',
    inks: {
      c: [{ at: 635, width: 95, ks: 2.4 }],
      m: [{ at: 535, width: 55, ks: 2.6 }],
      y: [{ at: 425, width: 70, ks: 2.8 }],
      k: 7,
      kTint: 0.2,
    },
    paper: { high: 0.84, blueFall: 0.16 },
    surface: 0.021,
    black: { from: 0.3, power: 1, replaces: 0.4 },
    curve: [0.8, 0.8, 0.75],
    limit: 2.2,
  }),
];

/** What comes out, without an instrument. */
export const foreignTruth =
  ({ print }: ForeignPrinter) =>
  (rgb: Rgb): Lab =>
    labOf(print(rgb));

/** A reading of it: a share of noise for the whole patch, a floor, and some in each band. */
export function readForeign(printer: ForeignPrinter, patches: readonly Rgb[], seed: number): Reading {
  const normal = seededNormal(seed);
  return {
    deviceSpace: 'RGB',
    spectralGrid: GRID,
    colourFrom: 'spectrum',
    condition: 'M1',
    backing: 'white',
    patches: patches.map((rgb, i) => {
      const [lift, floor] = [1 + 0.0012 * normal(), 0.0001 * normal()];
      const reflectance = printer.print(rgb).map((r) => Math.max(0, r * lift * (1 + 0.0005 * normal()) + floor));
      const xyz = spectrumToXyz({ startNm: GRID.startNm, stepNm: GRID.stepNm, values: reflectance });
      return { id: `A${i + 1}`, device: rgb, reflectance, xyz, lab: xyzToLab(xyz, WHITE) };
    }),
  };
}

/**
 * A chart in the manner of many: a net, a ramp of greys, near-greys about it, a few repeats; sorted into no order the
 * model knows. 100, 460 or 900 patches.
 */
export function foreignChart(count: 100 | 460 | 900, seed = 3): Rgb[] {
  const steps = count === 900 ? 8 : count === 460 ? 6 : 4;
  const greys = count === 900 ? 52 : count === 460 ? 33 : 13;
  const random = seededRandom(seed);
  const net = Array.from({ length: steps }, (_, i) => Math.round((255 * i) / (steps - 1)) / 255);
  const patches: Rgb[] = net.flatMap((r) => net.flatMap((g) => net.map((b): Rgb => [r, g, b])));
  for (let i = 1; i < greys; i++) patches.push([i / greys, i / greys, i / greys].map(eight) as unknown as Rgb);
  patches.push([1, 1, 1], [1, 1, 1], [0, 0, 0], [0, 0, 0], [0.5, 0.5, 0.5].map(eight) as unknown as Rgb);
  while (patches.length < count) patches.push([random(), random(), random()].map(eight) as unknown as Rgb);
  return patches.slice(0, count);
}
const eight = (v: number) => Math.round(v * 255) / 255;

/** Mean and 95th percentile of the true error over a list of device values. */
export function trueError(truth: (rgb: Rgb) => Lab, told: (rgb: Rgb) => Lab, at: readonly Rgb[]) {
  const off = at.map((rgb) => deltaE2000(truth(rgb), told(rgb))).sort((a, b) => a - b);
  return {
    mean: off.reduce((s, v) => s + v, 0) / off.length,
    p95: off[Math.floor(0.95 * off.length)]!,
    max: off.at(-1)!,
  };
}
