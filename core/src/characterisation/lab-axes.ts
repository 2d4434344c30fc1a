import type { Lab } from '../colour/types.ts';

/**
 * Where the nodes of a lattice of a file's Lab lie: evenly along L* 0–100; along a* and b* −128…128 closer about
 * neutral, where pictures have most of their colours and an eye tells most of them apart. Grey lies on the middle node,
 * whatever the lattice's size, as long as it is odd.
 */
export const MOST_AB = 128;
/** Distance of nodes about neutral over that of even ones: at most 1. */
export const CLOSER = 0.4;
const BENT = 1 - CLOSER;

/** a* or b* of a place 0–1 along its axis. */
export function abAt(place: number): number {
  const u = 2 * place - 1;
  return MOST_AB * u * (CLOSER + BENT * Math.abs(u));
}

/** The place, 0–1, of an a* or b* along its axis; what lies beyond ±128 has one beyond 0–1. */
export function placeOfAb(ab: number): number {
  const u = (Math.sqrt(CLOSER * CLOSER + (4 * BENT * Math.abs(ab)) / MOST_AB) - CLOSER) / (2 * BENT);
  return 0.5 + (ab < 0 ? -0.5 : 0.5) * u;
}

/** The place, 0–1 along each axis, of a colour. */
export const placeOf = (lab: Lab): Lab => [lab[0] / 100, placeOfAb(lab[1]), placeOfAb(lab[2])];

/** The colour of a node. @param at its place, 0–1 along each axis */
export const nodeLab = (at: ArrayLike<number>): Lab => [at[0]! * 100, abAt(at[1]!), abAt(at[2]!)];
