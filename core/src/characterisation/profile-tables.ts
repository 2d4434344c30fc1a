import { xyzToLab } from '../colour/lab.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { clip16, encodeLab16, straight, type Lut16 } from '../formats/icc/lut16.ts';
import type { RelativePrint } from './relative-print.ts';
import { compensated, RENDERINGS, type RenderingKey } from './renderings.ts';
import { sender } from './send.ts';

/** L* of the black of the v4 perceptual reference medium (ICC.1:2010, 6.3.3). */
export const REFERENCE_BLACK_L = xyzToLab([0.336, 0.34731, 0.287])[0];

/** Entries of a curve that places the nodes. */
const CURVE = 4096;
/** How much closer the nodes of a* and b* stand near grey: 1.8 halves their distance there (our own choice). */
const CLOSER = 1.8;

/** Where along −1…1 (a* or b* over 128) a node lies, and back: closer near 0. */
const spreadAb = (u: number) => Math.sinh(CLOSER * u) / Math.sinh(CLOSER);
const gatherAb = (t: number) => Math.asinh(t * Math.sinh(CLOSER)) / CLOSER;

/** a* or b* of the nodes along an axis of the tables that start from Lab. */
const nodesAb = (grid: number) =>
  Float64Array.from({ length: grid }, (_, i) => 128 * spreadAb((2 * i) / (grid - 1) - 1));

/**
 * L* of the nodes: even below the sheet's black and above it, one of them on the black itself. Black point compensation
 * (ISO 18619) ends there, and what is read between nodes would be lighter.
 */
function lightnessNodes(grid: number, blackL: number): Float64Array {
  const last = grid - 1;
  const at = blackL > 0 ? Math.max(1, Math.round((blackL / 100) * last)) : 0;
  return Float64Array.from({ length: grid }, (_, l) =>
    l < at ? (blackL * l) / at : blackL + ((100 - blackL) * (l - at)) / (last - at),
  );
}

/** Curves that take 16-bit Lab to those nodes: L* 100 meets the last node, grey the middle one. */
function labCurves(nodesL: Float64Array): Uint16Array {
  const curves = new Uint16Array(3 * CURVE);
  const last = nodesL.length - 1;
  let low = 0;
  for (let i = 0; i < CURVE; i++) {
    const code = (i / (CURVE - 1)) * 65535;
    const L = Math.min(100, (code / 0xff00) * 100);
    while (low < last - 1 && L > nodesL[low + 1]!) low++;
    const place = low + (L - nodesL[low]!) / (nodesL[low + 1]! - nodesL[low]!);
    curves[i] = clip16((place / last) * 65535);
    const ab = gatherAb(Math.max(-1, Math.min(1, (code / 256 - 128) / 128)));
    curves[CURVE + i] = curves[2 * CURVE + i] = clip16(((ab + 1) / 2) * 65535);
  }
  return curves;
}

/** From what is sent to Lab, relative to the sheet's white. @param as what the colours are shown as, e.g. with the black moved */
export function toLabTable({ lattice }: RelativePrint, as: (lab: Lab) => Lab = (lab) => lab): Lut16 {
  const { nodes, values } = lattice;
  const out = new Uint16Array(values.length);
  for (let n = 0; n < values.length; n += 3)
    out.set(encodeLab16(...as([values[n]!, values[n + 1]!, values[n + 2]!])), n);
  return { inputs: 3, outputs: 3, grid: nodes, inputCurves: straight(3), lattice: out, outputCurves: straight(3) };
}

/** Distance, in the finder's measure, at which the gamut table says its most. */
const FAR = 40;

/** What is done along the way; may throw to stop. @param share 0–1 */
export type Progress = (share: number) => void;

/** As far beyond the second as it lies from the first: where the next along a row is looked for first. */
const further = (p: Rgb, q: Rgb): Rgb => [2 * q[0] - p[0], 2 * q[1] - p[1], 2 * q[2] - p[2]];

/** From Lab to what is sent, for one rendering; with it how far each node is out of reach. */
export function fromLabTable(
  print: RelativePrint,
  aim: (lab: Lab) => Lab,
  grid: number,
  progress: Progress = () => {},
): { table: Lut16; gamut: Lut16 } {
  const send = sender(print);
  const nodesL = lightnessNodes(grid, print.blackL);
  const lattice = new Uint16Array(grid ** 3 * 3);
  const off = new Uint16Array(grid ** 3);
  const ab = nodesAb(grid);
  let near: Rgb | undefined;
  for (let l = 0; l < grid; l++) {
    progress(l / grid);
    for (let row = 0; row < grid; row++) {
      let before: Rgb | undefined;
      for (let step = 0; step < grid; step++) {
        // There and back again: the last that was found is always a neighbour.
        const a = l % 2 === 0 ? row : grid - 1 - row;
        const b = (l + row) % 2 === 0 ? step : grid - 1 - step;
        const n = (l * grid + a) * grid + b;
        const sent = send(aim([nodesL[l]!, ab[a]!, ab[b]!]), near && before ? further(before, near) : near);
        before = near;
        near = sent.device;
        for (let i = 0; i < 3; i++) lattice[n * 3 + i] = clip16(near[i]! * 65535);
        off[n] = clip16((sent.off / FAR) * 65535);
      }
    }
  }
  // White is paper, without a dot of ink.
  const middle = (grid - 1) / 2;
  lattice.set([65535, 65535, 65535], (((grid - 1) * grid + middle) * grid + middle) * 3);
  const inputCurves = labCurves(nodesL);
  return {
    table: { inputs: 3, outputs: 3, grid, inputCurves, lattice, outputCurves: straight(3) },
    gamut: { inputs: 3, outputs: 1, grid, inputCurves, lattice: off, outputCurves: outsideCurve() },
  };
}

/** Below this, in the finder's measure, a colour counts as reached: between nodes the distance can't be told better. */
const WITHIN = 1;

function outsideCurve(): Uint16Array {
  const entries = 1024;
  return Uint16Array.from({ length: entries }, (_, i) => {
    const off = (i / (entries - 1)) * FAR;
    return off <= WITHIN ? 0 : clip16(((off - WITHIN) / (FAR - WITHIN)) * 65535);
  });
}

/** Tables of a profile, by rendering: perceptual, colorimetric, saturation. */
export interface ProfileTables {
  readonly toLab: readonly [Lut16, Lut16, Lut16];
  readonly fromLab: readonly [Lut16, Lut16, Lut16];
  readonly gamut: Lut16;
}

/**
 * Tables of an output profile. In v4 the perceptual and saturation tables meet the connection space at the reference
 * medium's black, in v2 at L* 0.
 * @param grid nodes along each axis of the tables that start from Lab; odd, so that greys lie on nodes
 */
export function profileTables(
  print: RelativePrint,
  {
    version,
    grid = 33,
    greysAim = (lab) => lab,
    progress = () => {},
  }: {
    readonly version: 2 | 4;
    readonly grid?: number;
    /** Where colours are shifted to before they are looked for. */
    readonly greysAim?: (lab: Lab) => Lab;
    readonly progress?: Progress;
  },
): ProfileTables {
  const colorimetric = toLabTable(print);
  const sourceBlackL = version === 4 ? REFERENCE_BLACK_L : 0;
  const shown = version === 4 ? toLabTable(print, compensated(print.blackL, REFERENCE_BLACK_L)) : colorimetric;
  const rendered = (key: RenderingKey, at: number) => {
    const aim = RENDERINGS.find((r) => r.key === key)!.aim(print, sourceBlackL);
    return fromLabTable(
      print,
      (lab) => greysAim(aim(lab)),
      grid,
      (share) => progress((at + share) / 3),
    ).table;
  };
  const { table, gamut } = fromLabTable(print, greysAim, grid, (share) => progress(share / 3));
  return {
    toLab: [shown, colorimetric, shown],
    fromLab: [rendered('perceptual', 1), table, rendered('saturation', 2)],
    gamut,
  };
}
