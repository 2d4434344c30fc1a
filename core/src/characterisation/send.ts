import type { Lab, Rgb } from '../colour/types.ts';
import { inverter, type Sent } from './inverse.ts';
import { labAt } from './lattice.ts';
import type { RelativePrint } from './relative-print.ts';

/** What is sent for a colour that is aimed at, relative to the sheet's white. */
export type Sender = (aim: Lab, near?: Rgb) => Sent;

/** Steps of L* in which the darkest neutral grey is looked for, and how far above black. */
const STEP_L = 0.25;
const MAX_ABOVE_BLACK_L = 25;
/** Distance, in the finder's measure, below which a grey is reached: half of what is seen side by side. */
const REACHED = 0.5;
/** Steps of the way from black to the darkest neutral grey. */
const WAY = 64;
/** Chroma from which a colour no longer follows the greys towards black (our own choice). */
const COLOURFUL = 6;

/**
 * Finds device values for colours; see {@link inverter}. The sheet's black is seldom neutral: below the darkest neutral
 * grey the greys go straight on to that black, in device values, so that a picture's black prints as the darkest the
 * sheet has, and not as the nearest neutral, which is lighter, and so that no grey on the way falls back.
 */
export function sender(print: RelativePrint): Sender {
  const send = inverter(print.lattice, print.reach);
  const way = wayToBlack(print, send);
  return (aim, near) => {
    const [L, a, b] = aim;
    const share = 1 - Math.hypot(a, b) / COLOURFUL;
    if (share <= 0 || L >= way.neutralFrom) return send(aim, near);
    const { device, lab } = way.at(L);
    const to: Lab = [L + share * (Math.max(L, way.blackL) - L), a + share * lab[1], b + share * lab[2]];
    return send(to, device);
  };
}

interface WayToBlack {
  readonly blackL: number;
  /** L* of the darkest neutral grey. */
  readonly neutralFrom: number;
  readonly at: (L: number) => { readonly device: Rgb; readonly lab: Lab };
}

function wayToBlack({ lattice, blackL }: RelativePrint, send: Sender): WayToBlack {
  let neutralFrom = blackL;
  while (neutralFrom < blackL + MAX_ABOVE_BLACK_L && send([neutralFrom, 0, 0]).off > REACHED) neutralFrom += STEP_L;
  const end = send([neutralFrom, 0, 0]).device;
  const steps = Array.from({ length: WAY + 1 }, (_, i) => {
    const device: Rgb = [(end[0] * i) / WAY, (end[1] * i) / WAY, (end[2] * i) / WAY];
    return { device, lab: labAt(lattice, device) };
  });
  return {
    blackL,
    neutralFrom,
    at: (L) => {
      const next = steps.findIndex(({ lab }) => lab[0] >= L);
      if (next <= 0) return steps[next < 0 ? WAY : 0]!;
      const [p, q] = [steps[next - 1]!, steps[next]!];
      const t = (L - p.lab[0]) / (q.lab[0] - p.lab[0] || 1);
      const device: Rgb = [
        p.device[0] + t * (q.device[0] - p.device[0]),
        p.device[1] + t * (q.device[1] - p.device[1]),
        p.device[2] + t * (q.device[2] - p.device[2]),
      ];
      return { device, lab: labAt(lattice, device) };
    },
  };
}
