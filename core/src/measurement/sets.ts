import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import { MEASURES, patchFigure, UNREAD } from './measures/registry.ts';
import type { Observation } from './observations.ts';
import type { ReadingFacts } from './reading-facts.ts';

/** A set of readings that may speak, with its facts. */
export interface SpeakingSet {
  readonly id: string;
  readonly facts: ReadingFacts;
}

/** Figures, and of each that does not come from the first set the set it comes from. */
export interface FiguresOfSets {
  readonly figures: Record<string, Figure>;
  readonly borrowed: Record<string, string>;
}

/**
 * Every measure from the first set that supports it: a chart of greys that was read after a full one gives the greys, and the full one
 * goes on giving the gamut.
 * @param sets in the order in which they speak
 */
export function figuresOfSets(sets: readonly SpeakingSet[], observations: readonly Observation[] = []): FiguresOfSets {
  const borrowed: Record<string, string> = {};
  const figureOf = (measure: Measure): Figure => {
    if ('observe' in measure) return measure.observe(observations);
    if (sets.length === 0) return UNREAD;
    const first = patchFigure(measure, sets[0]!.facts);
    if (first.shape !== 'missing') return first;
    for (const { id, facts } of sets.slice(1)) {
      const figure = patchFigure(measure, facts);
      if (figure.shape === 'missing') continue;
      borrowed[measure.key] = id;
      return figure;
    }
    return first;
  };
  return { figures: Object.fromEntries(MEASURES.map((m) => [m.key, figureOf(m)])), borrowed };
}
