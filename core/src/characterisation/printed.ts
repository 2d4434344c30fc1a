import { deltaE2000 } from '../colour/difference.ts';
import { relativeToWhite } from '../colour/relative.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { nodeLab, placeOfAb } from './lab-axes.ts';
import { labAt, nodePlaces, readCube, type ColourLattice } from './lattice.ts';
import type { Progress } from './profile-tables.ts';
import type { RelativePrint } from './relative-print.ts';
import { RENDERINGS, type RenderingKey } from './renderings.ts';
import { sender } from './send.ts';

/** How a colour of a file fares on a sheet. */
export const LOSSES = ['kept', 'too dark', 'too light', 'too saturated'] as const;
export type Loss = (typeof LOSSES)[number];

/** What is sent for every colour of a file, for one sheet and one rendering: computed once, and looked at under any light. */
export interface SentLattice {
  readonly rendering: RenderingKey;
  /** Nodes along L*, a* and b*; they lie as `nodeLab` says. */
  readonly grid: number;
  /** Device values by node, three each. */
  readonly device: Float32Array;
  /** ΔE00 between what the rendering aims at and what the sheet gives, by node. */
  readonly deltaE00: Float32Array;
  /** Which of LOSSES, by node. */
  readonly loss: Uint8Array;
}

/** A loss smaller than this is none (one step an eye may see side by side; practice). */
const SEEN = 1;

/** Which of losses a miss is: by the part of it that is greatest. */
function lossOf(aim: Lab, got: Lab): Loss {
  const dL = got[0] - aim[0];
  const dC = Math.hypot(aim[1], aim[2]) - Math.hypot(got[1], got[2]);
  if (Math.abs(dL) < dC / 2) return 'too saturated';
  return dL > 0 ? 'too dark' : 'too light';
}

/** What to send for every colour a file may hold. @param print an RGB condition, relative to its white */
export function sentLattice(
  print: RelativePrint,
  key: RenderingKey,
  {
    grid = 33,
    sourceBlackL = 0,
    progress = () => {},
  }: { grid?: number; sourceBlackL?: number; progress?: Progress } = {},
): SentLattice {
  const rendering = RENDERINGS.find((r) => r.key === key)!;
  const { lattice } = print;
  const send = sender(print);
  const toRelative = relativeToWhite(print.white);
  const aimAt = rendering.absolute ? toRelative : rendering.aim(print, sourceBlackL);
  const count = grid ** 3;
  const device = new Float32Array(count * 3);
  const deltaE00 = new Float32Array(count);
  const loss = new Uint8Array(count);
  let near: Rgb | undefined;
  let n = 0;
  for (const at of nodePlaces(3, grid)) {
    if (n % (grid * grid) === 0) progress(n / count);
    const aim = aimAt(nodeLab(at));
    const sent = send(aim, near);
    near = sent.device;
    device.set(sent.device, n * 3);
    const got = labAt(lattice, sent.device);
    const off = deltaE2000(aim, got);
    deltaE00[n] = off;
    loss[n] = off < SEEN ? 0 : LOSSES.indexOf(lossOf(aim, got));
    n++;
  }
  return { rendering: key, grid, device, deltaE00, loss };
}

/**
 * The colours of a file as they are seen on a sheet: a lattice from Lab of the file (its white 100, 0, 0) to Lab.
 * @param seen what the sheet shows of device values: its model, under any light and behind any glass (`litModel`)
 */
export function printed({ grid, device }: SentLattice, seen: ColourLattice): ColourLattice {
  const values = new Float32Array(device.length);
  for (let n = 0; n < device.length; n += 3)
    readCube(seen.nodes, seen.values, device[n]!, device[n + 1]!, device[n + 2]!, values, n);
  return { axes: 3, nodes: grid, values };
}

/** Looks colours up in a printed lattice. @param labs L*, a*, b* one after another @param out the same, as seen */
export function throughPrinted(lattice: ColourLattice, labs: ArrayLike<number>, out: Float32Array): void {
  const { nodes, values } = lattice;
  for (let p = 0; p < labs.length; p += 3)
    readCube(nodes, values, labs[p]! * 0.01, placeOfAb(labs[p + 1]!), placeOfAb(labs[p + 2]!), out, p);
}
