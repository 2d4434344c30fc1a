import { deltaE2000 } from '../../colour/difference.ts';
import type { Lab } from '../../colour/types.ts';
import type { Figure } from '../figure.ts';
import type { RampStep } from '../neutral-ramp.ts';
import { NOISE_WIDTH } from '../difference.ts';
import { rampSd } from '../ramp-noise.ts';
import type { ReadingFacts } from '../reading-facts.ts';
import { noiseAt } from '../repeats.ts';
import { formatNumber } from '../show.ts';
import { risingCurve } from '../tone-curve.ts';
import type { LitFacts, LitScalar, PatchMeasure } from './measure.ts';

type End = 'black' | 'white';

/** Where a grey first parts from the end of the ramp. Both in percent of the ramp. */
export interface Separation {
  /** Distance from the end. */
  readonly percent: number;
  /** Width of the gap between the read steps in which it lies: what the ramp is too coarse to tell. */
  readonly gap: number;
}

const END_STEP = { black: 0, white: 1 } as const;
const AT_THE_END = 1e-4;
/** Places tried between two read steps before the crossing is closed in on. */
const PLACES = 16;
const HALVINGS = 24;

/** The read steps from an end on; undefined where the end itself was not read. */
function fromEnd(ramp: readonly RampStep[], end: End) {
  const steps = ramp
    .map(({ step, lab }) => ({ x: Math.abs(step - END_STEP[end]), lab }))
    .sort((p, q) => p.x - q.x)
    .filter((s, i, all) => i === 0 || s.x > all[i - 1]!.x);
  return steps.length >= 2 && steps[0]!.x < AT_THE_END ? steps : undefined;
}

/**
 * The smallest step from an end of the ramp that can be told from the end. L* is taken as a smooth curve of the device grey that never
 * turns back, so that the answer belongs to the paper and not to the chart's own steps.
 * @param threshold ΔE00 from which two greys can be told apart
 */
export function firstSeparate(ramp: readonly RampStep[], end: End, threshold: number): Separation | undefined {
  const steps = fromEnd(ramp, end);
  if (!steps) return undefined;
  const away = end === 'black' ? 1 : -1;
  const curve = risingCurve(steps.map(({ x, lab }) => ({ x, y: away * lab[0] })));
  const at = (i: number, x: number): Lab => {
    const [p, q] = [steps[i]!, steps[i + 1]!];
    const t = (x - p.x) / (q.x - p.x);
    return [away * curve(x), p.lab[1] + (q.lab[1] - p.lab[1]) * t, p.lab[2] + (q.lab[2] - p.lab[2]) * t];
  };
  const first: Lab = [away * curve(0), steps[0]!.lab[1], steps[0]!.lab[2]];
  for (let i = 0; i + 1 < steps.length; i++) {
    const [from, to] = [steps[i]!.x, steps[i + 1]!.x];
    for (let n = 1; n <= PLACES; n++) {
      const x = from + ((to - from) * n) / PLACES;
      if (deltaE2000(first, at(i, x)) < threshold) continue;
      let [low, high] = [x - (to - from) / PLACES, x];
      for (let h = 0; h < HALVINGS; h++) {
        const middle = (low + high) / 2;
        if (deltaE2000(first, at(i, middle)) < threshold) low = middle;
        else high = middle;
      }
      return { percent: high * 100, gap: (to - from) * 100 };
    }
  }
  return undefined;
}

/** Steps that can't be told from the end of the ramp by the readings themselves: they are blocked. */
function blockedSteps({ ramp, groups, repeatability }: ReadingFacts, end: End): number {
  const counts = new Map(groups.map((g) => [g.lab, g.count]));
  const variance = (lab: Lab) => Math.hypot(...noiseAt(repeatability, lab[0])) ** 2 / (counts.get(lab) ?? 1);
  const [first, ...others] = fromEnd(ramp!, end)!;
  const sure = others.findIndex(
    ({ lab }) => deltaE2000(first!.lab, lab) > NOISE_WIDTH * Math.sqrt(variance(first!.lab) + variance(lab)),
  );
  return sure < 0 ? others.length : sure;
}

function separation(facts: ReadingFacts, end: End): Figure {
  const ramp = facts.ramp!;
  if (!fromEnd(ramp, end))
    return { shape: 'missing', why: `The ramp does not reach ${end === 'black' ? 'full black' : 'the bare paper'}.` };
  const found = firstSeparate(ramp, end, facts.toldFrom);
  if (!found) return { shape: 'missing', why: 'No grey of the ramp can be told from its end.' };
  const blocked = blockedSteps(facts, end);
  return {
    shape: 'scalar',
    value: found.percent,
    // Somewhere in the gap between two read steps: the even distribution's own deviation.
    sd: Math.hypot(
      rampSd(facts, (again) => firstSeparate(again, end, facts.toldFrom)?.percent),
      found.gap / Math.sqrt(12),
    ),
    note: `${blocked === 0 ? 'no step' : blocked === 1 ? '1 step' : `${blocked} steps`} blocked, ${howTold(found, facts.toldFrom)}`,
  };
}

const howTold = ({ gap }: Separation, toldFrom: number) =>
  `told from ΔE00 ${formatNumber(toldFrom, 1)}, read in steps of ${formatNumber(gap, 1)} %`;

const inLight =
  (end: End) =>
  ({ ramp, toldFrom }: LitFacts): LitScalar | undefined => {
    const found = firstSeparate(ramp, end, toldFrom);
    return found && { value: found.percent, note: howTold(found, toldFrom) };
  };

export const shadowSeparation: PatchMeasure = {
  key: 'shadowSeparation',
  name: 'First separate shadow',
  unit: '% from black',
  definition:
    'Smallest step from black at which a grey can be told from it (by the ΔE00 you see edge to edge, as the settings say), on a smooth curve through the ramp. The spread holds the readings’ noise and the gap between the steps that were read; steps that read like black itself are blocked.',
  source: 'CIEDE2000 along the grey ramp; monotone curve after Fritsch & Carlson 1980',
  digits: 1,
  scale: 'unjudged',
  better: 'lower',
  trial: true,
  words: ['later to open its shadows', 'sooner to open its shadows'],
  needs: ['ramp'],
  compute: (facts) => separation(facts, 'black'),
  underLight: inLight('black'),
};

export const highlightSeparation: PatchMeasure = {
  ...shadowSeparation,
  key: 'highlightSeparation',
  name: 'First separate highlight',
  unit: '% from white',
  definition:
    'Smallest step from the paper at which a grey can be told from it (by the ΔE00 you see edge to edge, as the settings say), on a smooth curve through the ramp. The spread holds the readings’ noise and the gap between the steps that were read; steps that read like the paper itself are lost in the white.',
  trial: undefined,
  words: ['later to hold a highlight', 'sooner to hold a highlight'],
  needs: ['ramp'],
  compute: (facts) => separation(facts, 'white'),
  underLight: inLight('white'),
};
