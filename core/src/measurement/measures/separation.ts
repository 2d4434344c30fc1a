import { deltaE2000 } from '../../colour/difference.ts';
import type { Figure } from '../figure.ts';
import type { RampStep } from '../neutral-ramp.ts';
import type { ReadingFacts } from '../reading-facts.ts';
import { rampSd } from '../resample.ts';
import { DEFAULT_THRESHOLDS } from '../thresholds.ts';
import type { PatchMeasure } from './measure.ts';

/** Neighbours are compared over at least this much of the ramp: a visible step can't be asked of steps finer than the eye. */
const LEAST_APART = 0.02;

/**
 * First step, coming from one end, that differs from its neighbour on that side by a visible amount (ΔE00 1); the steps before it
 * are blocked. Given in percent of the ramp from that end.
 */
export function firstSeparate(
  ramp: readonly RampStep[],
  end: 'black' | 'white',
): { percent: number; blocked: number } | undefined {
  const steps = end === 'black' ? ramp : [...ramp].reverse();
  const from = (s: RampStep) => Math.abs(s.step - steps[0].step);
  for (const [i, s] of steps.entries()) {
    const neighbour = steps
      .slice(0, i)
      .reverse()
      .find((n) => from(s) - from(n) >= LEAST_APART - 1e-9);
    if (neighbour && deltaE2000(s.lab, neighbour.lab) >= DEFAULT_THRESHOLDS.deltaE.edgeToEdge) {
      const blocked = steps.slice(0, i).filter((b) => from(b) > 0).length;
      return { percent: from(s) * 100, blocked };
    }
  }
  return undefined;
}

function separation(facts: ReadingFacts, end: 'black' | 'white'): Figure {
  if (!facts.ramp)
    return { shape: 'missing', why: 'A neutral ramp of at least five greys with device values is missing.' };
  const found = firstSeparate(facts.ramp, end);
  if (!found) return { shape: 'missing', why: 'No grey of the ramp can be told from its neighbour.' };
  const { percent, blocked } = found;
  return {
    shape: 'scalar',
    value: percent,
    sd: rampSd(facts, (ramp) => firstSeparate(ramp, end)?.percent),
    note: blocked === 0 ? 'no step blocked' : `${blocked} ${blocked === 1 ? 'step' : 'steps'} blocked`,
  };
}

export const shadowSeparation: PatchMeasure = {
  key: 'shadowSeparation',
  name: 'First separate shadow',
  unit: '% from black',
  definition:
    'First grey from black that differs from its neighbour by ΔE00 1; the steps before it are blocked. It can be no finer than the ramp that was read.',
  source: 'CIEDE2000 between neighbours of the grey ramp',
  digits: 1,
  scale: 'unjudged',
  better: 'lower',
  words: ['later to open its shadows', 'sooner to open its shadows'],
  compute: (facts) => separation(facts, 'black'),
};

export const highlightSeparation: PatchMeasure = {
  ...shadowSeparation,
  key: 'highlightSeparation',
  name: 'First separate highlight',
  unit: '% from white',
  definition:
    'First grey from the paper that differs from its neighbour by ΔE00 1; the steps before it are lost in the white. It can be no finer than the ramp that was read.',
  words: ['later to hold a highlight', 'sooner to hold a highlight'],
  compute: (facts) => separation(facts, 'white'),
};
