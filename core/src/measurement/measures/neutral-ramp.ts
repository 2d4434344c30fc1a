import type { RampStep } from '../neutral-ramp.ts';
import { rampSd } from '../ramp-noise.ts';
import type { PatchMeasure } from './measure.ts';

const most = (ramp: readonly RampStep[]) => ramp.reduce((m, s) => Math.max(m, s.chromaOffLine), 0);

export const neutrality: PatchMeasure = {
  key: 'neutrality',
  name: 'Greys off the line',
  unit: 'ΔC*',
  definition:
    'Largest chroma of any grey away from the straight line between paper white and the ramp’s own black end.',
  source: 'CIELAB, CIE 15; greys where R = G = B, or black ink alone',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  trial: true,
  words: ['less neutral', 'more neutral'],
  needs: ['ramp', 'white'],
  compute: (facts) => {
    const ramp = facts.ramp!;
    return { shape: 'scalar', value: most(ramp), sd: rampSd(facts, most) };
  },
  underLight: ({ ramp }) => (ramp.length > 0 ? { value: most(ramp) } : undefined),
};
