import type { RampStep } from '../neutral-ramp.ts';
import { rampSd } from '../ramp-noise.ts';
import type { PatchMeasure } from './measure.ts';

export const linearity: PatchMeasure = {
  key: 'linearity',
  name: 'Linearity',
  unit: 'ΔL*',
  definition: 'Largest departure of a grey’s L* from equal steps between black and paper.',
  source: 'L* of a grey ramp against its aim, CIE 15',
  digits: 1,
  scale: 'deltaE',
  better: 'lower',
  trial: true,
  words: ['less linear', 'more linear'],
  needs: ['ramp'],
  compute: (facts) => {
    const worst = worstDeparture(facts.ramp!);
    return {
      shape: 'scalar',
      value: Math.abs(worst.by),
      sd: rampSd(facts, (ramp) => Math.abs(worstDeparture(ramp).by)),
      note: noteOf(worst),
    };
  },
  underLight: ({ ramp }) => {
    if (ramp.length === 0) return undefined;
    const worst = worstDeparture(ramp);
    return { value: Math.abs(worst.by), note: noteOf(worst) };
  },
};

const noteOf = ({ by, step }: { by: number; step: number }) =>
  `${by > 0 ? 'lighter' : 'darker'} than its aim at ${Math.round(step * 100)} %`;

/** The grey that lies furthest from equal steps of L* between black and paper, and by how much. */
function worstDeparture(ramp: readonly RampStep[]): { by: number; step: number } {
  const [first, last] = [ramp[0]!, ramp[ramp.length - 1]!];
  return ramp
    .map((s) => ({
      step: s.step,
      by: s.lab[0] - (first.lab[0] + ((last.lab[0] - first.lab[0]) * (s.step - first.step)) / (last.step - first.step)),
    }))
    .reduce((most, d) => (Math.abs(d.by) > Math.abs(most.by) ? d : most));
}
