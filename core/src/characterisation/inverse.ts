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
 * A finder of device values: exact where the sheet reaches, else the nearest colour by a distance like ΔE00's (its S_L = 1, S_C and S_H at the wanted
 * colour) that keeps hue first. A step of Levenberg and Marquardt at a time within the device cube, from the nearest of a coarse net.
 * @param lattice colours of an RGB condition, in the space the wanted ones are given in; the finder takes a place to begin at, `near`, which saves time where
 * it leads there and costs little where it does not
 * @param reach how far the colours reach: what lies within is looked for from many places before it is given up
 */
export function inverter(lattice: ColourLattice, reach?: Reach): (wanted: Lab, near?: Rgb) => Sent {
  const { nodes, values } = lattice;
  const along = Array.from({ length: SEEDS_ALONG }, (_, i) => Math.round((i * (nodes - 1)) / (SEEDS_ALONG - 1)));
  const seeds = new Float64Array(SEEDS_ALONG ** 3 * 6);
  let to = 0;
  for (const r of along)
    for (const g of along)
      for (const b of along) {
        const node = ((r * nodes + g) * nodes + b) * 3;
        seeds.set(
          [values[node], values[node + 1], values[node + 2], r / (nodes - 1), g / (nodes - 1), b / (nodes - 1)],
          to,
        );
        to += 6;
      }

  const x = new Float64Array(3);
  const kept = new Float64Array(3);
  const target = new Float64Array(7);

  return (wanted, near) => {
    measureFrom(wanted, target);
    let off = Infinity;
    if (near) {
      x.set(near);
      off = walk(lattice, target, x);
    }
    if (off > REACHED * REACHED) {
      // A walk may end in a hollow of the way: what it did not reach is looked for from elsewhere too, and the nearest that was found is taken.
      let beyond = -1;
      for (let tries = reach && isWithin(wanted, reach) ? MOST_TRIES : 1; tries > 0; tries--) {
        const first = off;
        kept.set(x);
        const seed = nearestSeed(seeds, target, beyond);
        beyond = offAt(target, seeds, seed);
        for (let i = 0; i < 3; i++) x[i] = seeds[seed + 3 + i];
        off = walk(lattice, target, x);
        if (off > first) {
          off = first;
          x.set(kept);
        }
        if (off < MISSED * MISSED) break;
      }
    }
    return { device: [x[0], x[1], x[2]], off: Math.sqrt(off) };
  };
}

/** Whether a colour lies well within what is reached. */
function isWithin([L, a, b]: Lab, reach: Reach): boolean {
  const C = Math.hypot(a, b);
  return C < WELL_WITHIN * (C < 1 ? reach.grey(L) : reach.chromaAt(L, Math.atan2(b, a)));
}

/** Sets from where is measured: L*, a*, b*, the direction of a* and b*, and what chroma and hue weigh there. */
function measureFrom([L, a, b]: Lab, target: Float64Array): void {
  const C = Math.hypot(a, b);
  target[0] = L;
  target[1] = a;
  target[2] = b;
  target[3] = C > 1e-9 ? a / C : 1;
  target[4] = C > 1e-9 ? b / C : 0;
  target[5] = 1 / (1 + 0.045 * C);
  target[6] = (1 + (HUE_WEIGHT - 1) * Math.min(1, C / COLOURFUL)) / (1 + 0.015 * C);
}

/** Distance, squared, of the colour that stands in a list from a place on. */
function offAt(target: Float64Array, labs: Float64Array, from: number): number {
  const dL = labs[from] - target[0];
  const da = labs[from + 1] - target[1];
  const db = labs[from + 2] - target[2];
  const dC = (target[3] * da + target[4] * db) * target[5];
  const dH = (target[3] * db - target[4] * da) * target[6];
  return dL * dL + dC * dC + dH * dH;
}

/** Place in the coarse net of the nearest that is no nearer than `beyond`, squared. */
function nearestSeed(seeds: Float64Array, target: Float64Array, beyond: number): number {
  let best = Infinity;
  let at = 0;
  for (let s = 0; s < seeds.length; s += 6) {
    const off = offAt(target, seeds, s);
    if (off < best && off > beyond) {
      best = off;
      at = s;
    }
  }
  return at;
}

/** Walks from where x stands as near as it gets. @returns the distance left, squared */
function walk({ nodes, values }: ColourLattice, target: Float64Array, x: Float64Array): number {
  const ca = target[3];
  const cb = target[4];
  const wC = target[5];
  const wH = target[6];
  readCube(nodes, values, x[0], x[1], x[2], LAB, 0);
  let off = offAt(target, LAB, 0);
  let damping = 1e-3;
  for (let step = 0; step < STEPS && off > REACHED * REACHED; step++) {
    cubeSlopes(nodes, values, x, SLOPES);
    for (let i = 0; i < 3; i++) {
      const da = SLOPES[3 + i];
      const db = SLOPES[6 + i];
      JACOBIAN[i] = SLOPES[i];
      JACOBIAN[3 + i] = (ca * da + cb * db) * wC;
      JACOBIAN[6 + i] = (ca * db - cb * da) * wH;
    }
    const da = LAB[1] - target[1];
    const db = LAB[2] - target[2];
    const e0 = LAB[0] - target[0];
    const e1 = (ca * da + cb * db) * wC;
    const e2 = (ca * db - cb * da) * wH;
    let moved = false;
    for (let attempt = 0; attempt < 6 && !moved; attempt++) {
      boundedStep(JACOBIAN, e0, e1, e2, x, damping, NEXT);
      readCube(nodes, values, NEXT[0], NEXT[1], NEXT[2], AHEAD, 0);
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
  const n = NORMAL;
  for (let i = 0; i < 3; i++) {
    GRADIENT[i] = j[i] * e0 + j[3 + i] * e1 + j[6 + i] * e2;
    for (let k = 0; k < 3; k++) n[i * 3 + k] = j[i] * j[k] + j[3 + i] * j[3 + k] + j[6 + i] * j[6 + k];
  }
  const scale = damping * (n[0] + n[4] + n[8] + 1e-9);
  for (let i = 0; i < 3; i++) HELD[i] = (x[i] <= 0 && GRADIENT[i] > 0) || (x[i] >= 1 && GRADIENT[i] < 0) ? 1 : 0;
  for (let round = 0; round < 3; round++) {
    solveHeld(n, scale);
    let again = false;
    for (let i = 0; i < 3; i++) {
      const v = x[i] + STEP[i];
      next[i] = v < 0 ? 0 : v > 1 ? 1 : v;
      if (HELD[i] === 0 && next[i] !== v && (x[i] <= 0 || x[i] >= 1)) {
        HELD[i] = 1;
        again = true;
      }
    }
    if (!again) return;
  }
}
const NORMAL = new Float64Array(9);
const GRADIENT = new Float64Array(3);
const STEP = new Float64Array(3);
const HELD = new Uint8Array(3);

/** Solves (N + scale·1)·step = −gradient over the channels that are free, by Cramer's rule. */
function solveHeld(n: Float64Array, scale: number): void {
  const m00 = HELD[0] ? 1 : n[0] + scale;
  const m11 = HELD[1] ? 1 : n[4] + scale;
  const m22 = HELD[2] ? 1 : n[8] + scale;
  const m01 = HELD[0] || HELD[1] ? 0 : n[1];
  const m02 = HELD[0] || HELD[2] ? 0 : n[2];
  const m12 = HELD[1] || HELD[2] ? 0 : n[5];
  const g0 = HELD[0] ? 0 : -GRADIENT[0];
  const g1 = HELD[1] ? 0 : -GRADIENT[1];
  const g2 = HELD[2] ? 0 : -GRADIENT[2];
  const c00 = m11 * m22 - m12 * m12;
  const c01 = m02 * m12 - m01 * m22;
  const c02 = m01 * m12 - m02 * m11;
  const det = m00 * c00 + m01 * c01 + m02 * c02;
  STEP[0] = (c00 * g0 + c01 * g1 + c02 * g2) / det;
  STEP[1] = (c01 * g0 + (m00 * m22 - m02 * m02) * g1 + (m01 * m02 - m00 * m12) * g2) / det;
  STEP[2] = (c02 * g0 + (m01 * m02 - m00 * m12) * g1 + (m00 * m11 - m01 * m01) * g2) / det;
}
