import type { Lab } from '../colour/types.ts';

/** A figure that is one number. `sd` is its standard deviation, carried from repeated readings, in the same unit. */
export interface ScalarFigure {
  readonly shape: 'scalar';
  readonly value: number;
  readonly sd: number;
  /** A word that belongs to the number: a class, a place on the ramp, a limit that was passed. */
  readonly note?: string;
}

/** A figure that is a colour. `sd` is the standard deviation of its place, in ΔE. */
export interface ColourFigure {
  readonly shape: 'colour';
  readonly lab: Lab;
  readonly sd: number;
}

/** A figure that can't be computed, and which reading it wants. */
export interface MissingFigure {
  readonly shape: 'missing';
  readonly why: string;
}

export type Figure = ScalarFigure | ColourFigure | MissingFigure;
