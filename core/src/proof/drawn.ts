import { widened } from './hung.ts';
import type { ColourLattice } from '../characterisation/lattice.ts';
import { throughPrinted } from '../characterisation/printed.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { labToXyz } from '../colour/lab.ts';
import { apply, type Matrix3 } from '../colour/matrix.ts';
import { absoluteOnWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import { aimed, aimOf } from './aim.ts';
import { applyLocal, type LocalBase } from './local-contrast.ts';
import { inPart, inPicture, type Part } from './part.ts';
import { applyRecipe, type Recipe } from './recipe.ts';
import { holdingBoth, NOTHING_AROUND, onPicture, type Around } from './surround.ts';

/** What may be hatched over a proof. */
export const MAPS = [
  'none',
  'out of reach',
  'beyond this screen',
  'closed shadows',
  'blown lights',
  'between the two',
] as const;
export type MapName = (typeof MAPS)[number];

/** A picture as Lab, or a part of it: L*, a*, b* of each pixel in units of 1 over `units`. */
export interface LabPixels {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lab: Int16Array;
  readonly units: number;
}

/** A sheet as it is seen: its lattice is relative to its white. */
export interface DrawnSheet {
  readonly lattice: ColourLattice;
  readonly white: Lab;
  readonly blackL: number;
}

/** How colours of a file come to a screen. */
export interface OnScreen {
  /** The eye has settled on the paper's white. */
  readonly settled: boolean;
  /** X, Y, Z (D50, perfect diffuser 100) to linear light of the screen, 0–1. */
  readonly toScreen: Matrix3;
  /** By how much light is multiplied. */
  readonly dim: number;
}

/** A picture on two sheets, and how it is looked at. */
export interface Drawing extends OnScreen {
  readonly picture: LabPixels;
  /** A part of the picture with its own pixels. */
  readonly detail?: { readonly part: Part; readonly image: LabPixels };
  readonly base?: LocalBase;
  readonly sheets: readonly [DrawnSheet, DrawnSheet];
  readonly recipes: readonly [Recipe, Recipe];
  /** Where the right hand's sheet begins, 0–1. */
  readonly split: number;
  readonly beside: boolean;
  readonly map: MapName;
  readonly part: Part;
  readonly around?: readonly [Around, Around];
  /** What is left free outside the paper of both, for what it hangs in. */
  readonly beyond?: Around;
}

/** Linear light of the screen, three numbers a colour, for printed colours relative to a sheet's white. */
export function screenLight(printed: Float32Array, { white }: DrawnSheet, screen: OnScreen): Float32Array {
  const absolute = absoluteOnWhite(white);
  const out = new Float32Array(printed.length);
  for (let p = 0; p < printed.length; p += 3) {
    const relative: Lab = [printed[p]!, printed[p + 1]!, printed[p + 2]!];
    const [x, y, z] = labToXyz(screen.settled ? relative : absolute(relative));
    out.set(apply(screen.toScreen, [x * screen.dim, y * screen.dim, z * screen.dim]), p);
  }
  return out;
}

/** Codes lie on this side of what a screen shows, or a rounding beyond it. */
const WITHIN = 0.002;

/** Share of a picture, on a sheet, that a screen can't show, 0–1. @param labs of the file, a sample of it; used up */
export function shareBeyond(labs: Float32Array, recipe: Recipe, sheet: DrawnSheet, screen: OnScreen): number {
  applyRecipe(labs, recipe);
  throughPrinted(sheet.lattice, labs, labs);
  const light = screenLight(labs, sheet, screen);
  let beyond = 0;
  for (let p = 0; p < light.length; p += 3)
    if ([light[p], light[p + 1], light[p + 2]].some((v) => v! < -WITHIN || v! > 1 + WITHIN)) beyond++;
  return labs.length === 0 ? 0 : (beyond * 3) / labs.length;
}

/** A colour between the pixels of a picture, as a graphics processor reads between them. */
function read({ widthPx, heightPx, lab, units }: LabPixels, x: number, y: number, out: Float32Array, to: number): void {
  const u = Math.min(widthPx - 1, Math.max(0, x * widthPx - 0.5));
  const v = Math.min(heightPx - 1, Math.max(0, y * heightPx - 0.5));
  const [l, t] = [Math.floor(u), Math.floor(v)];
  const right = l + 1 < widthPx ? 3 : 0;
  const down = t + 1 < heightPx ? widthPx * 3 : 0;
  for (let c = 0; c < 3; c++) {
    const at = (t * widthPx + l) * 3 + c;
    const above = lab[at]! + (lab[at + right]! - lab[at]!) * (u - l);
    const below = lab[at + down]! + (lab[at + down + right]! - lab[at + down]!) * (u - l);
    out[to + c] = (above + (below - above) * (v - t)) / units;
  }
}

/** What comes of a row of the picture in a hand: colours as they are sent for, and as printed. */
interface HandRow {
  readonly made: Float32Array;
  readonly printed: Float32Array;
  readonly light: Float32Array;
}

const encoded = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);
const fraction = (v: number): number => v - Math.floor(v);

/**
 * The proof, drawn by the processor: for a browser without WebGL 2. The same colours as the graphics processor draws;
 * the sheet's own surface is not drawn.
 * @returns red, green, blue, alpha of each pixel, dithered by less than a code; beyond the sheet nothing is drawn
 */
export function drawProof(d: Drawing, widthPx: number, heightPx: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(widthPx * heightPx * 4);
  const around = d.around ?? [NOTHING_AROUND, NOTHING_AROUND];
  const frame = widened(holdingBoth(...around), d.beyond ?? NOTHING_AROUND);
  const panes = d.beside ? 2 : 1;
  const wide = Math.floor(widthPx / panes);
  const greys = d.sheets.map((sheet) => greysOf(sheet));
  const file = new Float32Array(wide * 3);
  for (let row = 0; row < heightPx; row++) {
    const { x: from, y } = onPicture(frame, 0, (row + 0.5) / heightPx);
    const width = onPicture(frame, 1, 0).x - from;
    const strip = { ...inPicture(d.part, from, y), width: width * d.part.width, height: 0 };
    for (let i = 0; i < wide; i++) {
      const spot = { x: strip.x + ((i + 0.5) / wide) * strip.width, y: strip.y };
      const near = d.detail && inPart(d.detail.part, spot.x, spot.y);
      if (near) read(d.detail.image, near.x, near.y, file, i * 3);
      else read(d.picture, spot.x, spot.y, file, i * 3);
    }
    const rows: (HandRow | undefined)[] = [];
    const ofHand = (hand: 0 | 1) => (rows[hand] ??= handRow(d, hand, file, strip));
    for (let pane = 0; pane < panes; pane++)
      for (let i = 0; i < wide; i++) {
        const across = (i + 0.5) / wide;
        const hand: 0 | 1 = d.beside ? (pane as 0 | 1) : across > d.split ? 1 : 0;
        const [column, x] = [pane * wide + i, from + across * width];
        const to = (row * widthPx + column) * 4;
        const blank = x < 0 || x > 1 || y < 0 || y > 1;
        if (blank && !onPaper(around[hand], x, y)) continue;
        const { made, printed, light } = blank ? bare(d, hand) : ofHand(hand);
        const p = blank ? 0 : i * 3;
        // Interleaved gradient noise: no banding in a sky.
        const noise = fraction(52.9829189 * fraction((column + 0.5) * 0.06711056 + (row + 0.5) * 0.00583715)) - 0.5;
        const codes = [0, 1, 2].map((c) => encoded(Math.min(1, Math.max(0, light[p + c]!))) * 255 + noise);
        const amount = blank || d.map === 'none' ? 0 : amountOf(d, hand, { made, printed, light }, p, greys, ofHand);
        if (amount >= 1 && hatched(amount, column, row)) {
          const ink = codes[0]! * 0.3 + codes[1]! * 0.6 + codes[2]! * 0.1 > 0.45 * 255 ? 0 : 255;
          for (let c = 0; c < 3; c++) codes[c]! += (ink - codes[c]!) * 0.85;
        }
        out.set([...codes, 255], to);
      }
  }
  return out;
}

const onPaper = ({ left, top, right, bottom }: Around, x: number, y: number): boolean =>
  x >= -left && y >= -top && x <= 1 + right && y <= 1 + bottom;

function handRow(d: Drawing, hand: 0 | 1, file: Float32Array, part: Part): HandRow {
  const made = Float32Array.from(file);
  if (d.base) applyLocal(made, d.recipes[hand], d.base, { widthPx: made.length / 3, heightPx: 1, first: 0, part });
  applyRecipe(made, d.recipes[hand]);
  return printedRow(d, hand, made);
}

function printedRow(d: Drawing, hand: 0 | 1, made: Float32Array): HandRow {
  const printed = new Float32Array(made.length);
  throughPrinted(d.sheets[hand].lattice, made, printed);
  return { made, printed, light: screenLight(printed, d.sheets[hand], d) };
}

const bare = (d: Drawing, hand: 0 | 1): HandRow => printedRow(d, hand, Float32Array.of(100, 0, 0));

/** L* below which a step of tone is one of the shadows, above which one of the lights, and from which the paper is bare. */
const SHADOW_L = 30;
const LIGHT_L = 90;
const BARE_L = 99.5;

/** L* that comes out for greys of L* 0, 1 … 100. */
function greysOf({ lattice }: DrawnSheet): Float32Array {
  const labs = Float32Array.from({ length: 303 }, (_, i) => (i % 3 === 0 ? i / 3 : 0));
  throughPrinted(lattice, labs, labs);
  return labs.filter((_, i) => i % 3 === 0);
}

/** How densely a place is hatched. */
function amountOf(
  d: Drawing,
  hand: 0 | 1,
  { made, printed, light }: HandRow,
  p: number,
  greys: readonly Float32Array[],
  ofHand: (hand: 0 | 1) => HandRow,
): number {
  const at = (v: Float32Array): Lab => [v[p]!, v[p + 1]!, v[p + 2]!];
  switch (d.map) {
    case 'out of reach':
      return deltaE2000(aimed(aimOf(d.recipes[hand].rendering, d.sheets[hand]), at(made)), at(printed));
    case 'beyond this screen':
      return 60 * Math.max(...at(light).map((v) => Math.max(v - 1, -v)), 0);
    case 'closed shadows':
      return made[p]! < SHADOW_L ? stepsLost(greys[hand]!, made[p]!) : 0;
    case 'blown lights':
      return made[p]! > BARE_L ? 5 : made[p]! > LIGHT_L ? stepsLost(greys[hand]!, made[p]!) : 0;
    case 'between the two': {
      const seen = ([0, 1] as const).map((h) => {
        const relative = at(ofHand(h).printed);
        return d.settled ? relative : absoluteOnWhite(d.sheets[h].white)(relative);
      });
      return deltaE2000(seen[0]!, seen[1]!);
    }
    default:
      return 0;
  }
}

/** How much of a step of tone about L* the sheet takes away, as dense as it is hatched. */
function stepsLost(greys: Float32Array, l: number): number {
  const low = Math.min(98, Math.max(0, Math.round(l - 1)));
  const lost = 1 - Math.min(1, Math.max(0, (greys[low + 2]! - greys[low]!) / 2));
  return lost > 0.15 ? lost * 9 : 0;
}

/** An engraver's hatching: the more, the denser. */
function hatched(amount: number, x: number, y: number): boolean {
  const one = (x + y) % 8 < 1.2;
  if (amount < 2.5) return one;
  const two = one || (x + y + 4) % 8 < 1.2;
  return amount < 5 ? two : two || (((x - y) % 8) + 8) % 8 < 1.2;
}
