import { placeOf } from '../characterisation/lab-axes.ts';
import { simplexOf } from '../characterisation/lattice.ts';
import { colourWords } from '../colour/hue-names.ts';
import { chroma, labToXyz } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { CELL_SIZE, type OccupiedCells } from '../picture/cells.ts';
import type { Gist } from '../picture/gist.ts';
import { toneAt } from '../picture/structure.ts';

/** The colours of a picture with all that does not depend on a sheet told beforehand: they can be laid on hundreds. */
export interface Palette {
  readonly count: number;
  /** Sum of the shares: 1, or what rounding left of it. */
  readonly total: number;
  /** X, Y, Z of each. */
  readonly xyzs: Float32Array;
  /** C* of each. */
  readonly chromas: Float32Array;
  /** a*, b* of each. */
  readonly ab: Float32Array;
  /** Which tone of `TONE_BOUNDS_L` each is in. */
  readonly tone: Uint8Array;
  /** Share of the picture, 0–1. */
  readonly shares: Float32Array;
  /** Nodes along an axis of the lattices they are laid on; the four nodes about each colour, and what each counts. */
  readonly nodes: number;
  readonly corners: Int32Array;
  readonly weights: Float32Array;
  /** Which of `families` each is of. */
  readonly family: Uint8Array;
  readonly families: readonly string[];
  /** The nodes that any colour touches, and how much of the picture each counts for: a mean over the picture is a sum over them. */
  readonly touched: Int32Array;
  readonly touchedShares: Float32Array;
  /** Share of the picture at each L*, rounded. */
  readonly tones: Float64Array;
  /** Share of the picture below each L*, in steps of `STEP_L`. */
  readonly below: Float64Array;
  /** Shares below `SHADOW_L`, above `HIGHLIGHT_L`. */
  readonly shadowShare: number;
  readonly highlightShare: number;
}

export const SHADOW_L = 25;
export const HIGHLIGHT_L = 90;
export const STEP_L = 0.05;

/**
 * Cells that hold less than this are put together with their neighbours in L*: no bound that runs through what came
 * together parts more than this wrongly, and on both sides alike.
 */
const LEAST_SHARE = 0.0002;
/** So many cells of the histogram lie in one that they come together in, along L*. */
const TOGETHER = 8;

/** Colours of a picture that a recipe may change, and the palette of what they become; the tones stay the picture’s own. */
export interface PictureColours {
  readonly colours: OccupiedCells;
  /** @param nodes along an axis of the lattices that the colours will be laid on */
  readonly palette: (changed: OccupiedCells, nodes: number) => Palette;
}

export function allColours(cells: OccupiedCells): PictureColours {
  const tones = tonesOf(cells);
  return { colours: together(cells), palette: (changed, nodes) => ({ ...coloursOf(changed, nodes), ...tones }) };
}

export function gistColours(gist: Gist): PictureColours {
  const tones = tonesOfGist(gist.tones);
  return { colours: gist.colours, palette: (changed, nodes) => ({ ...coloursOf(changed, nodes), ...tones }) };
}

/** @param nodes along an axis of the lattices that the colours will be laid on */
export function paletteOf(cells: OccupiedCells, nodes: number): Palette {
  const { colours, palette } = allColours(cells);
  return palette(colours, nodes);
}

/** The palette of a picture of which only the gist is known. @param nodes as for `paletteOf` */
export function gistPalette(gist: Gist, nodes: number): Palette {
  const { colours, palette } = gistColours(gist);
  return palette(colours, nodes);
}

type Tones = Pick<Palette, 'tones' | 'below' | 'shadowShare' | 'highlightShare'>;

/** Shares by node while a palette is made; all 0 between two of them. */
let scratch = new Float64Array(0);

function coloursOf({ count, data }: OccupiedCells, nodes: number): Omit<Palette, keyof Tones> {
  const xyzs = new Float32Array(count * 3);
  const shares = new Float32Array(count);
  const chromas = new Float32Array(count);
  const ab = new Float32Array(count * 2);
  const tone = new Uint8Array(count);
  const corners = new Int32Array(count * 4);
  const weights = new Float32Array(count * 4);
  const family = new Uint8Array(count);
  const families: string[] = [];
  if (scratch.length !== nodes ** 3) scratch = new Float64Array(nodes ** 3);
  const byNode = scratch;
  const nodesTouched: number[] = [];
  let total = 0;
  for (let i = 0; i < count; i++) {
    const lab: Lab = [data[i * 4]!, data[i * 4 + 1]!, data[i * 4 + 2]!];
    const share = data[i * 4 + 3]!;
    xyzs.set(labToXyz(lab), i * 3);
    shares[i] = share;
    chromas[i] = chroma(lab);
    ab[i * 2] = lab[1];
    ab[i * 2 + 1] = lab[2];
    tone[i] = toneAt(lab[0]);
    simplexOf(3, nodes, placeOf(lab), corners, weights, i * 4);
    for (let k = i * 4; k < i * 4 + 4; k++) {
      const add = share * weights[k]!;
      if (add > 0 && byNode[corners[k]!] === 0) nodesTouched.push(corners[k]!);
      byNode[corners[k]!]! += add;
    }
    const name = colourWords(lab);
    let known = families.indexOf(name);
    if (known < 0) known = families.push(name) - 1;
    family[i] = known;
    total += share;
  }
  const touched = Int32Array.from(nodesTouched).sort();
  const touchedShares = Float32Array.from(touched, (n) => byNode[n]!);
  for (const n of touched) byNode[n] = 0;
  return {
    count,
    total,
    xyzs,
    chromas,
    ab,
    tone,
    shares,
    nodes,
    corners,
    weights,
    family,
    families,
    touched,
    touchedShares,
  };
}

/**
 * Bounds of L* are held against the cells as they were counted: those put together would all fall on one side of a bound
 * amid them.
 */
function tonesOf({ count, data }: OccupiedCells): Tones {
  const below = new Float64Array(100 / STEP_L + 1);
  const tones = new Float64Array(101);
  let [shadowShare, highlightShare] = [0, 0];
  for (let i = 0; i < count * 4; i += 4) {
    const L = data[i]!;
    const share = data[i + 3]!;
    tones[Math.max(0, Math.min(100, Math.round(L)))]! += share;
    if (L < SHADOW_L) shadowShare += share;
    if (L > HIGHLIGHT_L) highlightShare += share;
    below[Math.max(0, Math.min(below.length - 1, Math.ceil(L / STEP_L + 1e-9)))]! += share;
  }
  for (let i = 1; i < below.length; i++) below[i]! += below[i - 1]!;
  return { tones, below, shadowShare, highlightShare };
}

/** Bounds of L* amid a tone part it evenly. */
function tonesOfGist(shares: Float32Array): Tones {
  const below = new Float64Array(100 / STEP_L + 1);
  let sum = 0;
  for (let i = 0, tone = 0; i < below.length; i++) {
    // A tone reaches half an L* to both sides.
    const within = i * STEP_L - (tone - 0.5);
    if (within >= 1 && tone < 100) sum += shares[tone++]!;
    below[i] = sum + shares[tone]! * Math.min(1, Math.max(0, i * STEP_L - (tone - 0.5)));
  }
  const at = (L: number) => below[Math.round(L / STEP_L)]!;
  return {
    tones: Float64Array.from(shares),
    below,
    shadowShare: at(SHADOW_L),
    highlightShare: shares.reduce((s, v) => s + v, 0) - at(HIGHLIGHT_L),
  };
}

/** The many cells that hold next to nothing, put together, each with its mean colour. */
function together({ count, data }: OccupiedCells): OccupiedCells {
  const flat: number[] = [];
  const open = new Map<number, number>();
  for (let i = 0; i < count * 4; i += 4) {
    const share = data[i + 3]!;
    if (share >= LEAST_SHARE) {
      flat.push(data[i]!, data[i + 1]!, data[i + 2]!, share);
      continue;
    }
    const L = Math.floor(data[i]! / (CELL_SIZE.L * TOGETHER)) + 64;
    const a = Math.floor(data[i + 1]! / CELL_SIZE.a) + 64;
    const b = Math.floor(data[i + 2]! / CELL_SIZE.b) + 64;
    const key = (L << 16) | (a << 8) | b;
    const at = open.get(key);
    if (at === undefined) {
      open.set(key, flat.push(data[i]!, data[i + 1]!, data[i + 2]!, share) - 4);
      continue;
    }
    const sum = flat[at + 3]! + share;
    for (let c = 0; c < 3; c++) flat[at + c]! += ((data[i + c]! - flat[at + c]!) * share) / sum;
    flat[at + 3] = sum;
    if (sum >= LEAST_SHARE) open.delete(key);
  }
  return { count: flat.length / 4, data: Float32Array.from(flat) };
}
