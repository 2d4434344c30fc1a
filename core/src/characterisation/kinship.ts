import { cholesky, solveCholesky } from './linear-algebra.ts';
import type { PrintSample } from './print-samples.ts';

/** How one print differs from a like of it: few numbers, each with a meaning at the printer. */
export interface Kinship {
  /** Light that leaves the surface itself, as a reflectance factor. */
  readonly surface: number;
  /** Strength of the inks in the long, middle and short waves, against the like's: a power of what they let through. */
  readonly strength: readonly [long: number, middle: number, short: number];
  /** Bend of each device channel, a power: optical and mechanical dot gain against the like's. */
  readonly bend: readonly [number, number, number];
}

/** A like: the spectrum it prints of a device value, on the new print's bands. */
export interface Like {
  /** Reflectance factors of a device value. */
  readonly print: (device: readonly number[]) => ArrayLike<number>;
  /** Where each band lies, 0 the shortest wave to 1 the longest. */
  readonly bands: Float64Array;
}

/**
 * How far likes of one printer and ink set lie apart, one standard deviation (our own choice); what is not told by the
 * patches stays near the like.
 */
const APART = { surface: 0.004, strength: 0.12, bend: 0.12 };
/** Standard deviation of a root of reflectance that such a difference can't explain. */
const UNEXPLAINED = 0.012;
const ROUNDS = 10;

/** What is known of the two whites and of the like's own surface. */
export interface Whites {
  readonly own: ArrayLike<number>;
  readonly like: Float64Array;
  readonly likeSurface: number;
}

/** Shares of three broad bands, long, middle, short, at each wavelength: smooth, summing to 1. */
function bandShares(bands: Float64Array): Float64Array[] {
  const bump = (at: number) => bands.map((x) => Math.exp(-(((x - at) / 0.22) ** 2)));
  const raw = [bump(0.8), bump(0.48), bump(0.15)];
  return raw.map((r) => r.map((v, i) => v / (raw[0]![i]! + raw[1]![i]! + raw[2]![i]!)));
}

/** The surface's part of a print is less than its darkest reading: this share of it (our own choice). */
const SURFACE_SHARE = 0.7;

/** @returns the whites, and a print's spectrum made from the like's by a kinship */
export function kinPrinter(like: Like, own: ArrayLike<number>) {
  const likeWhite = Float64Array.from(like.print([1, 1, 1]));
  const likeBlack = Float64Array.from(like.print([0, 0, 0]));
  const whites: Whites = { own, like: likeWhite, likeSurface: Math.max(0, SURFACE_SHARE * Math.min(...likeBlack)) };
  const shares = bandShares(like.bands);
  const print = ({ surface, strength, bend }: Kinship, device: readonly number[]): Float64Array => {
    const from = like.print(device.map((v, c) => 1 - (1 - Math.min(1, Math.max(0, v))) ** bend[c]!));
    return likeWhite.map((white, i) => {
      const through = Math.max(1e-6, (from[i]! - whites.likeSurface) / (white - whites.likeSurface));
      const power = strength[0] * shares[0]![i]! + strength[1] * shares[1]![i]! + strength[2] * shares[2]![i]!;
      return surface + (whites.own[i]! - surface) * through ** power;
    });
  };
  return { whites, print };
}

const asList = (k: Kinship): number[] => [k.surface, ...k.strength, ...k.bend];
const asKinship = (p: readonly number[]): Kinship => ({
  surface: Math.max(0, p[0]!),
  strength: [p[1]!, p[2]!, p[3]!],
  bend: [p[4]!, p[5]!, p[6]!],
});

/**
 * The kinship that explains a few readings best: least squares in roots of reflectance, with what likes usually differ by as the prior
 * (Gauss–Newton, slopes by differences).
 * @param read reflectance of each sample on the like's bands
 */
export function kinshipOf(
  like: Like,
  samples: readonly Pick<PrintSample, 'device'>[],
  read: readonly ArrayLike<number>[],
  own: ArrayLike<number>,
): Kinship {
  const { whites, print } = kinPrinter(like, own);
  const start = asList({ surface: whites.likeSurface, strength: [1, 1, 1], bend: [1, 1, 1] });
  const apart = [APART.surface, ...Array<number>(3).fill(APART.strength), ...Array<number>(3).fill(APART.bend)];
  const roots = read.map((r) => Float64Array.from(r, (v) => Math.cbrt(Math.max(0, v))));
  // Neighbouring bands tell the same: every third is enough, and is not counted as three.
  const every = Math.max(1, Math.floor(roots[0]!.length / 12));
  const residuals = (p: readonly number[]) => {
    const kin = asKinship(p);
    const out: number[] = p.map((v, i) => (v - start[i]!) / apart[i]!);
    samples.forEach((s, n) => {
      const said = print(kin, s.device);
      for (let i = 0; i < said.length; i += every)
        out.push((Math.cbrt(Math.max(0, said[i]!)) - roots[n]![i]!) / UNEXPLAINED);
    });
    return out;
  };
  let p = start;
  let now = residuals(p);
  const size = (r: readonly number[]) => r.reduce((s, v) => s + v * v, 0);
  for (let round = 0; round < ROUNDS; round++) {
    const slopes = p.map((v, i) => {
      const step = apart[i]! * 0.02;
      const moved = residuals(p.map((w, k) => (k === i ? v + step : w)));
      return moved.map((m, r) => (m - now[r]!) / step);
    });
    // The prior is among the residuals: the matrix is positive definite.
    const normal = Float64Array.from(slopes.flatMap((a) => slopes.map((b) => a.reduce((s, v, r) => s + v * b[r]!, 0))));
    const side = Float64Array.from(slopes, (a) => -a.reduce((s, v, r) => s + v * now[r]!, 0));
    const step = solveCholesky(cholesky(normal, p.length), p.length, side);
    const next = p.map((v, i) => v + step[i]!);
    const there = residuals(next);
    if (!(size(there) < size(now) * (1 - 1e-6))) break;
    [p, now] = [next, there];
  }
  return asKinship(p);
}
