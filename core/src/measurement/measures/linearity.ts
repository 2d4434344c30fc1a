import type { PatchMeasure } from './measure.ts';

const NO_RAMP = 'A neutral ramp of at least five greys with device values is missing.';

export const linearity: PatchMeasure = {
  key: 'linearity',
  name: 'Linearity',
  unit: 'ΔL*',
  definition: 'Largest departure of a grey’s L* from equal steps between black and paper.',
  source: 'L* of a grey ramp against its aim, CIE 15',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  words: ['less linear', 'more linear'],
  compute: ({ ramp, repeatability: r }) => {
    if (!ramp) return { shape: 'missing', why: NO_RAMP };
    const [first, last] = [ramp[0], ramp[ramp.length - 1]];
    const departure = (s: (typeof ramp)[number]) => s.lab[0] - (first.lab[0] + ((last.lab[0] - first.lab[0]) * (s.step - first.step)) / (last.step - first.step));
    const worst = ramp.reduce((most, s) => (Math.abs(departure(s)) > Math.abs(departure(most)) ? s : most));
    return { shape: 'scalar', value: Math.abs(departure(worst)), sd: r.lab[0], note: `${departure(worst) > 0 ? 'lighter' : 'darker'} than its aim at ${Math.round(worst.step * 100)} %` };
  },
};
