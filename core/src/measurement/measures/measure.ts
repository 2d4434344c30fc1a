import type { Figure } from '../figure.ts';
import type { Observation } from '../observations.ts';
import type { ReadingFacts } from '../reading-facts.ts';

/** How a difference in a measure becomes a thing that can be seen. */
export type Scale =
  /** ΔE00 between two colours, or a difference in ΔE units. */
  | 'deltaE'
  /** A difference in density. */
  | 'density'
  /** A ratio of luminances, seen as its logarithm, a density. */
  | 'ratio'
  /** A difference in percent of the larger. */
  | 'percent'
  /** Not a thing for the eye, or not by itself: no verdict is given. */
  | 'unjudged';

/** One measure, declared. Adding a measure is adding a file like those beside this one and naming it in the registry. */
export interface MeasureFacts {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  /** One sentence, as a hover tells it. */
  readonly definition: string;
  readonly source: string;
  /** Most digits after the point that are ever shown; repeatability may show fewer. */
  readonly digits: number;
  readonly scale: Scale;
  /** Which way is better, where all schools agree. */
  readonly better?: 'higher' | 'lower';
  /** Words for more and less: "blacker", "less black". */
  readonly words: readonly [more: string, less: string];
  /** Key of the measure this one follows from: where that one is told, this one need not be. */
  readonly echoes?: string;
  /** A difference in percent is told in the measure's own unit: "glossier by 18 GU". */
  readonly toldInUnit?: true;
  /** No thing for the eye, and still said of a pair: the hand feels it, or the lamp shows it. */
  readonly spoken?: true;
  /** Judged by eye; measured where absent. */
  readonly judged?: true;
}

/** A measure of the patches that were read. */
export interface PatchMeasure extends MeasureFacts {
  readonly compute: (facts: ReadingFacts) => Figure;
}

/** A measure of what was observed otherwise: with a scale, a gloss meter, by eye. */
export interface BenchMeasure extends MeasureFacts {
  readonly observe: (observations: readonly Observation[]) => Figure;
}

export type Measure = PatchMeasure | BenchMeasure;
