import type { Measure } from './measure.ts';

export const neutrality: Measure = {
  key: 'neutrality',
  name: 'Greys off the line',
  unit: 'ΔC*',
  definition: 'Largest chroma of any grey away from the straight line between paper white and black.',
  source: 'CIELAB, CIE 15; greys where R = G = B, or black ink alone',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  words: ['less neutral', 'more neutral'],
  compute: ({ ramp, repeatability: r, groups }) => {
    if (!ramp) return { shape: 'missing', why: 'A neutral ramp of at least five greys with device values is missing.' };
    const worst = ramp.reduce((most, s) => (s.chromaOffLine > most.chromaOffLine ? s : most));
    const count = groups.find((g) => g.lab === worst.lab)?.count ?? 1;
    return { shape: 'scalar', value: worst.chromaOffLine, sd: Math.hypot(r.lab[1], r.lab[2]) / Math.sqrt(count) };
  },
};
