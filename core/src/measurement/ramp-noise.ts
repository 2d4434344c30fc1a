import type { Lab } from '../colour/types.ts';
import { seededNormal } from '../random.ts';
import { rampOf, type RampStep } from './neutral-ramp.ts';
import type { ReadingFacts } from './reading-facts.ts';
import { noiseAt } from './repeats.ts';

const RESAMPLES = 48;

/**
 * Standard deviation of a figure of the grey ramp for which no formula serves: the ramp is read again and again with the noise its
 * repeatability tells at each lightness, and the figure computed each time. A resample that gives no figure is left out.
 */
export function rampSd(
  { ramp, groups, white, repeatability }: ReadingFacts,
  figure: (ramp: readonly RampStep[]) => number | undefined,
): number {
  if (!ramp) return 0;
  const normal = seededNormal(1);
  const counts = new Map(groups.map((g) => [g.lab, g.count]));
  const again = (lab: Lab): Lab => {
    const by = 1 / Math.sqrt(counts.get(lab) ?? 1);
    const [L, a, b] = noiseAt(repeatability, lab[0]);
    return [lab[0] + L * by * normal(), lab[1] + a * by * normal(), lab[2] + b * by * normal()];
  };
  const values = Array.from({ length: RESAMPLES }, () =>
    figure(
      rampOf(
        ramp.map(({ step, lab }) => ({ step, lab: again(lab) })),
        again(white.lab),
      ),
    ),
  ).filter((v) => v !== undefined);
  if (values.length < 2) return 0;
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1));
}
