import type { Lab, Rgb } from '../colour/types.ts';
import type { Reach } from './reach.ts';
import { cubeSlopes, readCube, type ColourLattice } from './lattice.ts';

/** What must be sent for a wanted colour, and how far from it the print lands. */
export interface Sent {
  readonly device: Rgb;
  /** Distance in the measure below: 0 within the gamut. */
  readonly off: number;
}

/** How much a turn of hue weighs against a loss of chroma of the same size where a colour can't be reached; greys have no hue to keep. */
const HUE_WEIGHT = 2;
const COLOURFUL = 12;
const SEEDS_ALONG = 7;
/** Numbers of a place of the net: its colour, and what is sent for it. */
const SEED = 6;
/** Places of the net that are begun from, at most, where a colour must be there to be found. */
const MOST_TRIES = 12;
const WELL_WITHIN = 0.95;
/** Further off than this, in the measure, a colour that is there to be found was missed. */
const MISSED = 0.3;
const STEPS = 24;
/** Close enough, in the measure: a twentieth of what an instrument tells apart. */
const REACHED = 0.002;
/** Share of the distance a step must win to be followed by another. */
const STANDS = 1e-4;

/**
 * A finder of device values: exact where the sheet reaches, else the nearest colour by a distance like ΔE00's (its S_L
 * = 1, S_C and S_H at the wanted colour) that keeps hue first. A step of Levenberg and Marquardt at a time within the
 * device cube, from the nearest of a coarse net.
 * @param lattice colours of an RGB condition, in the space the wanted ones are given in; the finder takes a place to
 * begin at, `near`, drawn into the cube, which saves time where it leads there and costs little where it does not
 * @param reach how far the colours reach: what lies within is looked for from many places before it is given up
 */
export function inverter(lattice: ColourLattice, reach?: Reach): (wanted: Lab, near?: Rgb) => Sent {
  const { nodes, values } = lattice;
  const along = Array.from({ length: SEEDS_ALONG }, (_, i) => Math.round((i * (nodes - 1)) / (SEEDS_ALONG - 1)));
  const net = along.flatMap((r) =>
    along.flatMap((g) =>
      along.map((b) => {
        const node = ((r * nodes + g) * nodes + b) * 3;
        return [values[node], values[node + 1], values[node + 2], r / (nodes - 1), g / (nodes - 1), b / (nodes - 1)];
      }),
    ),
  );
  // Dark ones first: what differs too much in lightness alone is not looked at.
  const seeds = Float64Array.from(net.sort((p, q) => p[0]! - q[0]!).flat());

  const x = new Float64Array(3);
  const kept = new Float64Array(3);
  const target = new Float64Array(7);

  return (wanted, near) => {
    measureFrom(wanted, target);
    let off = Infinity;
    if (near) {
      for (let i = 0; i < 3; i++) x[i] = near[i]! < 0 ? 0 : near[i]! > 1 ? 1 : near[i]!;
      off = walk(lattice, target, x);
    }
    if (off > REACHED * REACHED) {
      // A walk may end in a hollow of the way: what it did not reach is looked for from elsewhere too, and the
      // nearest that was found is taken.
      let beyond = -1;
      for (let tries = reach && isWithin(wanted, reach) ? MOST_TRIES : 1; tries > 0; tries--) {
        const first = off;
        kept.set(x);
        const seed = nearestSeed(seeds, target, beyond);
        beyond = offAt(target, seeds, seed);
        for (let i = 0; i < 3; i++) x[i] = seeds[seed + 3 + i]!;
        off = walk(lattice, target, x);
        if (off > first) {
          off = first;
          x.set(kept);
        }
        if (off < MISSED * MISSED) break;
      }
    }
    return { device: [x[0]!, x[1]!, x[2]!], off: Math.sqrt(off) };
  };
}

/** Whether a colour lies well within what is reached. */
function isWithin([L, a, b]: Lab, reach: Reach): boolean {
  const C = Math.sqrt(a * a + b * b);
  return C < WELL_WITHIN * (C < 1 ? reach.grey(L) : reach.chromaAt(L, Math.atan2(b, a)));
}

/** Sets from where is measured: L*, a*, b*, then what a* and b* give to chroma, b* and a* to hue, each by its weight. */
function measureFrom([L, a, b]: Lab, target: Float64Array): void {
  const C = Math.sqrt(a * a + b * b);
  const ca = C > 1e-9 ? a / C : 1;
  const cb = C > 1e-9 ? b / C : 0;
  const wC = 1 / (1 + 0.045 * C);
  const wH = (1 + (HUE_WEIGHT - 1) * Math.min(1, C / COLOURFUL)) / (1 + 0.015 * C);
  target[0] = L;
  target[1] = a;
  target[2] = b;
  target[3] = ca * wC;
  target[4] = cb * wC;
  target[5] = ca * wH;
  target[6] = cb * wH;
}

/** Distance, squared, of the colour that stands in a list from a place on. */
function offAt(target: Float64Array, labs: Float64Array, from: number): number {
  const dL = labs[from]! - target[0]!;
  const da = labs[from + 1]! - target[1]!;
  const db = labs[from + 2]! - target[2]!;
  const dC = target[3]! * da + target[4]! * db;
  const dH = target[5]! * db - target[6]! * da;
  return dL * dL + dC * dC + dH * dH;
}

/** Place in the coarse net of the nearest that is no nearer than `beyond`, squared. */
function nearestSeed(seeds: Float64Array, target: Float64Array, beyond: number): number {
  // Taken out of the list once: it is asked for every place of the net.
  const L = target[0]!;
  const a = target[1]!;
  const b = target[2]!;
  const ca = target[3]!;
  const cb = target[4]!;
  const hb = target[5]!;
  const ha = target[6]!;
  const middle = firstFrom(seeds, L);
  let best = Infinity;
  let at = 0;
  for (let step = SEED; step >= -SEED; step -= 2 * SEED)
    for (let s = step > 0 ? middle : middle - SEED; s >= 0 && s < seeds.length; s += step) {
      const dL = seeds[s]! - L;
      if (dL * dL >= best) break;
      const da = seeds[s + 1]! - a;
      const db = seeds[s + 2]! - b;
      const dC = ca * da + cb * db;
      const dH = hb * db - ha * da;
      const off = dL * dL + dC * dC + dH * dH;
      if (off < best && off > beyond) {
        best = off;
        at = s;
      }
    }
  return at;
}

/** Place in the net of the first that is no darker. */
function firstFrom(seeds: Float64Array, L: number): number {
  let low = 0;
  let high = seeds.length / SEED;
  while (low < high) {
    const half = (low + high) >> 1;
    if (seeds[half * SEED]! < L) low = half + 1;
    else high = half;
  }
  return low * SEED;
}

/** Walks from where x stands as near as it gets. @returns the distance left, squared */
function walk({ nodes, values }: ColourLattice, target: Float64Array, x: Float64Array): number {
  const ca = target[3]!;
  const cb = target[4]!;
  const hb = target[5]!;
  const ha = target[6]!;
  readCube(nodes, values, x[0]!, x[1]!, x[2]!, LAB, 0);
  let off = offAt(target, LAB, 0);
  let damping = 1e-3;
  for (let step = 0; step < STEPS && off > REACHED * REACHED; step++) {
    cubeSlopes(nodes, values, x, SLOPES);
    for (let i = 0; i < 3; i++) {
      const da = SLOPES[3 + i]!;
      const db = SLOPES[6 + i]!;
      JACOBIAN[i] = SLOPES[i]!;
      JACOBIAN[3 + i] = ca * da + cb * db;
      JACOBIAN[6 + i] = hb * db - ha * da;
    }
    const da = LAB[1]! - target[1]!;
    const db = LAB[2]! - target[2]!;
    const e0 = LAB[0]! - target[0]!;
    const e1 = ca * da + cb * db;
    const e2 = hb * db - ha * da;
    let moved = false;
    for (let attempt = 0; attempt < 6 && !moved; attempt++) {
      boundedStep(JACOBIAN, e0, e1, e2, x, damping, NEXT);
      readCube(nodes, values, NEXT[0]!, NEXT[1]!, NEXT[2]!, AHEAD, 0);
      const there = offAt(target, AHEAD, 0);
      if (there < off) {
        moved = off - there > STANDS * off;
        x.set(NEXT);
        LAB.set(AHEAD);
        off = there;
        damping = Math.max(1e-7, damping / 8);
        break;
      }
      damping *= 6;
    }
    if (!moved) break;
  }
  return off;
}
const NEXT = new Float64Array(3);
const LAB = new Float64Array(3);
const AHEAD = new Float64Array(3);
const SLOPES = new Float64Array(9);
const JACOBIAN = new Float64Array(9);

/** A damped Gauss–Newton step that stays within the cube: channels at a wall they would leave through are held there. */
function boundedStep(
  j: Float64Array,
  e0: number,
  e1: number,
  e2: number,
  x: Float64Array,
  damping: number,
  next: Float64Array,
): void {
  // Written out, channel by channel: it is asked a million times for one profile.
  const g0 = j[0]! * e0 + j[3]! * e1 + j[6]! * e2;
  const g1 = j[1]! * e0 + j[4]! * e1 + j[7]! * e2;
  const g2 = j[2]! * e0 + j[5]! * e1 + j[8]! * e2;
  const n00 = j[0]! * j[0]! + j[3]! * j[3]! + j[6]! * j[6]!;
  const n01 = j[0]! * j[1]! + j[3]! * j[4]! + j[6]! * j[7]!;
  const n02 = j[0]! * j[2]! + j[3]! * j[5]! + j[6]! * j[8]!;
  const n11 = j[1]! * j[1]! + j[4]! * j[4]! + j[7]! * j[7]!;
  const n12 = j[1]! * j[2]! + j[4]! * j[5]! + j[7]! * j[8]!;
  const n22 = j[2]! * j[2]! + j[5]! * j[5]! + j[8]! * j[8]!;
  const scale = damping * (n00 + n11 + n22 + 1e-9);
  const x0 = x[0]!;
  const x1 = x[1]!;
  const x2 = x[2]!;
  let held0 = (x0 <= 0 && g0 > 0) || (x0 >= 1 && g0 < 0);
  let held1 = (x1 <= 0 && g1 > 0) || (x1 >= 1 && g1 < 0);
  let held2 = (x2 <= 0 && g2 > 0) || (x2 >= 1 && g2 < 0);
  for (let round = 0; round < 3; round++) {
    // (N + scale·1)·step = −gradient over the channels that are free, by Cramer's rule.
    const m00 = held0 ? 1 : n00 + scale;
    const m11 = held1 ? 1 : n11 + scale;
    const m22 = held2 ? 1 : n22 + scale;
    const m01 = held0 || held1 ? 0 : n01;
    const m02 = held0 || held2 ? 0 : n02;
    const m12 = held1 || held2 ? 0 : n12;
    const r0 = held0 ? 0 : -g0;
    const r1 = held1 ? 0 : -g1;
    const r2 = held2 ? 0 : -g2;
    const c00 = m11 * m22 - m12 * m12;
    const c01 = m02 * m12 - m01 * m22;
    const c02 = m01 * m12 - m02 * m11;
    const c12 = m01 * m02 - m00 * m12;
    const by = 1 / (m00 * c00 + m01 * c01 + m02 * c02);
    const v0 = x0 + (c00 * r0 + c01 * r1 + c02 * r2) * by;
    const v1 = x1 + (c01 * r0 + (m00 * m22 - m02 * m02) * r1 + c12 * r2) * by;
    const v2 = x2 + (c02 * r0 + c12 * r1 + (m00 * m11 - m01 * m01) * r2) * by;
    next[0] = v0 < 0 ? 0 : v0 > 1 ? 1 : v0;
    next[1] = v1 < 0 ? 0 : v1 > 1 ? 1 : v1;
    next[2] = v2 < 0 ? 0 : v2 > 1 ? 1 : v2;
    // Whoever would leave through the wall he stands at is held there, and the others are solved again.
    const leaves0 = !held0 && next[0] !== v0 && (x0 <= 0 || x0 >= 1);
    const leaves1 = !held1 && next[1] !== v1 && (x1 <= 0 || x1 >= 1);
    const leaves2 = !held2 && next[2] !== v2 && (x2 <= 0 || x2 >= 1);
    if (!leaves0 && !leaves1 && !leaves2) return;
    held0 ||= leaves0;
    held1 ||= leaves1;
    held2 ||= leaves2;
  }
}
