import { nodeLab } from '../characterisation/lab-axes.ts';
import { nodePlaces } from '../characterisation/lattice.ts';
import { throughPrinted } from '../characterisation/printed.ts';
import { compensated } from '../characterisation/renderings.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { chroma } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import type { LaidSheet, PrintedSheet } from './sheet.ts';

/** A sheet with all that does not depend on a picture told beforehand: hundreds can be asked at once. */
export interface ReadySheet {
  readonly nodes: number;
  /** At each node: how far what is printed lies from its aim in L*, a* and b*, and ΔE00 between file and print; in `UNIT`. */
  readonly losses: Int16Array;
  /** At each node: a* and b* as they are seen where the print will hang, relative to the white there; in `UNIT`. */
  readonly seenAb: Int16Array;
  /** At each node: C* of its aim there, what laying black on black leaves of it, were every colour within reach. */
  readonly chromasAimed: Int16Array;
  /** 1 at each node from which a cell begins where no colour is lost: what lies in it need not be looked at. */
  readonly held: Uint8Array;
  /** The paper's white as measured, and L* of its black relative to it. */
  readonly white: Lab;
  readonly blackL: number;
  /** The same as seen where it will hang, and the L* that greys of L* 0, 1 … 100 are seen with. */
  readonly seenWhite: Lab;
  readonly seenBlackL: number;
  readonly greysL: readonly number[];
  /** How far greys of L* 0, 1 … 100 are printed from their aim, L*; above 0: lighter. As an instrument reads them. */
  readonly greysOff: readonly number[];
  /** Greatest C* by which greys that are sent through the rendering come out off the line from white to black. */
  readonly greysDeviation: number;
}

/** What a loss of 1 is kept as: finer than any instrument. */
export const UNIT = 250;
const packed = (v: number): number => Math.max(-32_768, Math.min(32_767, Math.round(v * UNIT)));

/** What is aimed at for a colour of a file: black laid on black. Every figure of a match is held against it. */
export const matchAim = (blackL: number): ((lab: Lab) => Lab) => compensated(0, blackL);

/** A colour that comes out nearer than this to its aim is held (one step an eye may see side by side; practice). */
export const HELD_DELTA_E = 1;

/**
 * Is a difference in L*, a*, b* too small to be a step, whatever the colour? ΔE00 stretches a* and b* by no more than a
 * half (its G), and their turn against each other by no more than √2 (its R_T); its weights only make it smaller.
 */
export const surelyHeld = (dL: number, da: number, db: number): boolean =>
  dL * dL + 4.5 * (da * da + db * db) <= HELD_DELTA_E * HELD_DELTA_E;

export function readySheet({ bare, seen }: LaidSheet): ReadySheet {
  const { nodes, values } = bare.lattice;
  const [aimAt, aimSeenAt] = [matchAim(bare.blackL), matchAim(seen.blackL)];
  const losses = new Int16Array(nodes ** 3 * 4);
  const [seenAb, chromasAimed] = [new Int16Array(nodes ** 3 * 2), new Int16Array(nodes ** 3)];
  const looked = seen.lattice.values;
  let n = 0;
  for (const at of nodePlaces(3, nodes)) {
    const lab = nodeLab(at);
    const printed: Lab = [values[n * 3]!, values[n * 3 + 1]!, values[n * 3 + 2]!];
    const aim = aimAt(lab);
    for (let c = 0; c < 3; c++) losses[n * 4 + c] = packed(printed[c]! - aim[c]!);
    losses[n * 4 + 3] = packed(deltaE2000(lab, printed));
    for (let c = 0; c < 2; c++) seenAb[n * 2 + c] = packed(looked[n * 3 + 1 + c]!);
    chromasAimed[n] = packed(chroma(aimSeenAt(lab)));
    n++;
  }
  return {
    nodes,
    losses,
    seenAb,
    chromasAimed,
    held: cellsHeld(nodes, losses),
    white: bare.white,
    blackL: bare.blackL,
    seenWhite: seen.white,
    seenBlackL: seen.blackL,
    greysL: greysOf(seen).map((lab) => lab[0]),
    greysOff: greysOf(bare).map((lab, L) => lab[0] - aimAt([L, 0, 0])[0]),
    greysDeviation: deviationOf(greysOf(bare)),
  };
}

/** A colour within a cell is lost no more than the corners are. */
function cellsHeld(nodes: number, losses: Int16Array): Uint8Array {
  const held = new Uint8Array(nodes ** 3);
  const at = (n: number) => surelyHeld(losses[n * 4]! / UNIT, losses[n * 4 + 1]! / UNIT, losses[n * 4 + 2]! / UNIT);
  const corners = [0, 1].flatMap((x) => [0, 1].flatMap((y) => [0, 1].map((z) => (x * nodes + y) * nodes + z)));
  for (let x = 0; x < nodes - 1; x++)
    for (let y = 0; y < nodes - 1; y++)
      for (let z = 0; z < nodes - 1; z++) {
        const n = (x * nodes + y) * nodes + z;
        held[n] = corners.every((c) => at(n + c)) ? 1 : 0;
      }
  return held;
}

/** Greys of L* 0, 1 … 100 of a file, as they are printed. */
function greysOf({ lattice }: PrintedSheet): Lab[] {
  const greys = Float32Array.from({ length: 101 * 3 }, (_, i) => (i % 3 === 0 ? i / 3 : 0));
  throughPrinted(lattice, greys, greys);
  return Array.from({ length: 101 }, (_, i): Lab => [greys[i * 3]!, greys[i * 3 + 1]!, greys[i * 3 + 2]!]);
}

function deviationOf(greys: readonly Lab[]): number {
  const [black, white] = [greys[0]!, greys[greys.length - 1]!];
  return greys.reduce((most, [L, a, b]) => {
    const t = Math.min(1, Math.max(0, (L - black[0]) / (white[0] - black[0])));
    const line = (c: 1 | 2) => black[c] + t * (white[c] - black[c]);
    return Math.max(most, Math.hypot(a - line(1), b - line(2)));
  }, 0);
}
