import { deltaE2000 } from '../../colour/difference.ts';
import type { MeasurementCondition } from '../reading.ts';
import { channelSd } from '../noise.ts';
import type { PatchMeasure } from './measure.ts';

export const white: PatchMeasure = {
  key: 'white',
  name: 'Paper white',
  unit: 'L* a* b*',
  definition: 'CIELAB (D50, 2°) of the bare paper in this print condition.',
  source: 'ISO 13655, CIE 15',
  digits: 1,
  scale: 'deltaE',
  words: ['lighter', 'darker'],
  likeness: {
    name: 'White',
    unit: 'ΔE00',
    digits: 1,
    one: 1,
    weight: 1,
    unsigned: true,
    apart: (p, q) => (p.shape === 'colour' && q.shape === 'colour' ? deltaE2000(p.lab, q.lab) : undefined),
  },
  needs: ['white'],
  compute: ({ white: patch, repeatability }) => ({
    shape: 'colour',
    lab: patch.lab,
    sd: channelSd(repeatability, patch),
  }),
  underLight: ({ white: lab }) => ({ lab }),
};

/** The white as another measurement condition has it: from a companion reading, or the reading itself where it was read so. */
const under = (condition: MeasurementCondition, name: string, definition: string): PatchMeasure => ({
  ...white,
  key: `white${condition}`,
  ownCondition: true,
  name,
  definition,
  echoes: 'white',
  likeness: undefined,
  underLight: undefined,
  needs: [],
  compute: (facts) => {
    const itself = facts.reading.condition === condition && facts.holds.white ? facts : undefined;
    const source = itself ?? facts.others[condition];
    if (!source) return { shape: 'missing', why: facts.unserved[condition] ?? `A reading in ${condition} is missing.` };
    return { shape: 'colour', lab: source.white.lab, sd: channelSd(source.repeatability, source.white) };
  },
});

export const whiteM0 = under(
  'M0',
  'White in M0',
  'CIELAB of the bare paper under an unspecified, tungsten-like light with little UV.',
);
export const whiteM2 = under(
  'M2',
  'White in M2',
  'CIELAB of the bare paper with the UV taken out: what is left when the brightener sleeps.',
);
