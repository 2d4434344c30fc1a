import type { Lab } from '../colour/types.ts';

/** A figure that is one number. `sd` is its standard deviation, carried from repeated readings, in the same unit. */
export interface ScalarFigure {
  readonly shape: 'scalar';
  readonly value: number;
  readonly sd: number;
  /** A word that belongs to the number: a class, a place on the ramp, a limit that was passed. */
  readonly note?: string;
  /** Estimated and not measured: nine times in ten it lies between these. */
  readonly between?: readonly [low: number, high: number];
  /** What was estimated; the brightener where absent. */
  readonly estimatedFrom?: Estimated;
}

/** What stands behind an estimate: the brightener of a sheet read once, the UV of a lamp that was not measured, or both. */
export type Estimated = 'brightener' | 'lamp' | 'both';

/** A figure that is a colour. `sd` is the standard deviation of its place, in ΔE. */
export interface ColourFigure {
  readonly shape: 'colour';
  readonly lab: Lab;
  readonly sd: number;
  /** Estimated and not measured: nine times in ten its b* lies between these. */
  readonly between?: readonly [low: number, high: number];
  readonly estimatedFrom?: Estimated;
}

/** A figure that can't be computed, and which reading it wants. */
export interface MissingFigure {
  readonly shape: 'missing';
  readonly why: string;
}

export type Figure = ScalarFigure | ColourFigure | MissingFigure;

/** Between what a number lies that is estimated. */
export const betweenOf = (figure: Figure | undefined): readonly [number, number] | undefined =>
  figure?.shape === 'scalar' ? figure.between : undefined;

/** Whether a figure rests on an estimate; it is of a kind of its own, and drawn apart. */
export const isEstimated = (figure: Figure | undefined): boolean =>
  figure !== undefined && figure.shape !== 'missing' && figure.between !== undefined;

/** Standard deviation of a normal distribution nine tenths of which lie between two values. */
export const sdBetween = ([low, high]: readonly [number, number]): number => Math.abs(high - low) / 3.29;
