import { rampSd } from '../resample.ts';
import type { PatchMeasure } from './measure.ts';

export const neutrality: PatchMeasure = {
  key: 'neutrality',
  name: 'Greys off the line',
  unit: 'ΔC*',
  definition: 'Largest chroma of any grey away from the straight line between paper white and black.',
  source: 'CIELAB, CIE 15; greys where R = G = B, or black ink alone',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  words: ['less neutral', 'more neutral'],
  compute: (facts) => {
    const { ramp } = facts;
    if (!ramp) return { shape: 'missing', why: 'A neutral ramp of at least five greys with device values is missing.' };
    const most = (steps: typeof ramp) => steps.reduce((m, s) => Math.max(m, s.chromaOffLine), 0);
    return { shape: 'scalar', value: most(ramp), sd: rampSd(facts, most) };
  },
};
