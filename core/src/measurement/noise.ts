import type { Repeatability } from './repeats.ts';

/** Standard deviation of a mean colour's place, ΔE*ab, of `count` readings. */
export function channelSd(r: Repeatability, count: number): number {
  return Math.hypot(...r.lab) / Math.sqrt(count);
}

/** Standard deviation of a density: dD = 0.4343 · dY/Y. */
export function densitySd(sdY: number, Y: number, count: number): number {
  return (Math.LOG10E * sdY) / Math.max(Y, 1e-3) / Math.sqrt(count);
}
