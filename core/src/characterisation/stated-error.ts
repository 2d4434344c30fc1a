import { halton } from '../halton.ts';
import { seededNormal } from '../random.ts';
import { nearest, placeList } from './nearest.ts';

/** ΔE00 a print is off what a model says of it: the mean, and what 95 of 100 colours stay below. */
export interface StatedError {
  readonly mean: number;
  readonly p95: number;
}

/** A patch as the model predicts it from all the others. */
export interface LeftOut {
  readonly device: readonly number[];
  /** Predicted against read. */
  readonly deltaE00: number;
  /** Noise of the reading itself, ΔE00. */
  readonly noise: number;
  /** Standard deviation of the prediction in the fit's own unit, once the patch is left out. */
  readonly spread: number;
}

const POINTS = 160;

/** Device values all over the solid of an RGB or CMYK printer (Halton 1960). */
const ofAll = (axes: number) =>
  Array.from({ length: POINTS }, (_, i) =>
    [2, 3, 5, 7].slice(0, axes).map((base) => (halton(i + 1, base) + SHIFT) % 1),
  );
/** Charts are laid out by the same sequence: unshifted, every colour asked for would be a patch of such a chart. */
const SHIFT = 0.382;

/**
 * How far the channels of a picture's colours lie from their grey, one standard deviation of device values (our own
 * choice: the open photographs of the tests have 0.04 to 0.11).
 */
const CHROMATIC = 0.07;
/** Colours as pictures have them: every tone, near neutral. */
function ofPictures(axes: number): number[][] {
  const normal = seededNormal(17);
  return Array.from({ length: POINTS }, (_, i) => {
    const tone = halton(i + 1, 2);
    const rgb = [0, 1, 2].map(() => Math.min(1, Math.max(0, tone + CHROMATIC * normal())));
    return axes === 3 ? rgb : [...rgb.map((v) => (1 - v) * 0.6), (1 - tone) * 0.4];
  });
}

/** Device values at which an error is stated. */
export const statedPlaces = (axes: number) => ({ all: ofAll(axes), pictures: ofPictures(axes) });

/** How many of the nearest patches speak for a colour. */
const NEAREST = 24;
/** So many errors say how they scatter; more say the same at more cost. */
const MAX_SCATTER = 100;
/** A ramp of greys is read so closely that its errors say nothing of the colours beside it. */
const RAMP = 0.02;

/**
 * The error of a model at colours that were not read. A patch that is left out lies further from its neighbours than a
 * colour between patches does, and is read with noise itself: its error is therefore taken as a multiple of the
 * uncertainty of its prediction, and that multiple, as it is nearby, times the uncertainty at each colour asked for.
 * @param places colours asked for, as device values
 * @param spreads standard deviation of the fit there, in its own unit
 * @param calibration stated over true, as measured on printers that are not the model's own
 */
export function statedError(
  leftOut: readonly LeftOut[],
  places: readonly (readonly number[])[],
  spreads: ArrayLike<number>,
  calibration: number,
): StatedError {
  const off = leftOut.filter(({ device }) => device.length !== 3 || Math.max(...device) - Math.min(...device) > RAMP);
  const judges = off.length >= NEAREST ? off : leftOut;
  const multiples = judges.map(({ deltaE00, noise, spread }) => {
    const own = Math.sqrt(Math.max(0, deltaE00 ** 2 - noise ** 2));
    return own / Math.max(spread, 1e-6);
  });
  const judged = placeList(judges.map((j) => j.device));
  const nearby = (at: readonly number[]) => {
    const near = nearest(judged, at, NEAREST);
    return near.reduce((sum, p) => sum + multiples[p]!, 0) / near.length;
  };
  const expected = places.map((at, i) => (nearby(at) * spreads[i]!) / calibration);
  const mean = expected.reduce((s, v) => s + v, 0) / expected.length;
  // How far single errors scatter about what is expected where they are.
  const every = Math.max(1, Math.floor(judges.length / MAX_SCATTER));
  const scatter = judges.flatMap(({ device }, p) => (p % every === 0 ? [multiples[p]! / (nearby(device) || 1)] : []));
  return { mean, p95: quantileOfProducts(expected, scatter, 0.95) };
}

/** A quantile of every expected value times every scatter. */
function quantileOfProducts(expected: readonly number[], scatter: readonly number[], share: number): number {
  const products = Float64Array.from(expected.flatMap((e) => scatter.map((s) => e * s))).sort();
  return products[Math.min(products.length - 1, Math.floor(share * products.length))] ?? 0;
}
