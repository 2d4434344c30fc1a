import type { RampStep } from '../neutral-ramp.ts';
import type { ReadingFacts } from '../reading-facts.ts';
import { rampSd } from '../ramp-noise.ts';
import type { PatchMeasure } from './measure.ts';

/**
 * Only a grey this far off the line, ΔE along an axis, says on which side it lies; nearer than that no eye finds a
 * tinge (our own choice).
 */
const SIDE = 0.5;

interface Crossing {
  readonly axis: 'a*' | 'b*';
  /** Where the ramp has changed sides, 0 black to 1 paper. */
  readonly step: number;
}

/** Where the greys, from black to paper, change from one side of the line to the other. */
function crossings(ramp: readonly RampStep[]): Crossing[] {
  return (['a*', 'b*'] as const).flatMap((axis, i) => {
    let side = 0;
    return ramp.flatMap((s): Crossing[] => {
      const off = s.offLine[i as 0 | 1];
      if (Math.abs(off) < SIDE) return [];
      const before = side;
      side = Math.sign(off);
      return before !== 0 && before !== side ? [{ axis, step: s.step }] : [];
    });
  });
}

const noted = (found: readonly Crossing[]) => found.map((c) => `${c.axis} at ${Math.round(c.step * 100)} %`).join(', ');

export const crossovers: PatchMeasure = {
  key: 'crossovers',
  name: 'Greys cross over',
  unit: 'times',
  definition:
    'How often the greys, from black to paper, change from one side of the paper-to-black line to the other along a* or b*, by at least half a ΔE either side: a split tone nobody asked for.',
  source: 'CIELAB, CIE 15; the half ΔE is our own choice',
  digits: 0,
  scale: 'unjudged',
  better: 'lower',
  whole: true,
  words: ['more often crossed', 'less often crossed'],
  needs: ['ramp', 'white'],
  compute: (facts: ReadingFacts) => {
    const found = crossings(facts.ramp!);
    return {
      shape: 'scalar',
      value: found.length,
      sd: rampSd(facts, (ramp) => crossings(ramp).length),
      note: found.length > 0 ? noted(found) : undefined,
    };
  },
};
