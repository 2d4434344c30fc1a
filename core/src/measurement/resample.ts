import type { Lab } from '../colour/types.ts';
import { seededNormal } from '../random.ts';
import type { ReadingFacts } from './reading-facts.ts';
import type { RampStep } from './neutral-ramp.ts';

const RESAMPLES = 48;

/**
 * Standard deviation of a figure of the grey ramp for which no formula serves: the ramp is read again and again with the noise its
 * repeatability tells, and the figure computed each time. A resample that gives no figure is left out.
 */
export function rampSd(
  { ramp, groups, repeatability: r }: ReadingFacts,
  figure: (ramp: readonly RampStep[]) => number | undefined,
): number {
  if (!ramp) return 0;
  const normal = seededNormal(1);
  const counts = new Map(groups.map((g) => [g.lab, g.count]));
  const values = Array.from({ length: RESAMPLES }, () =>
    figure(
      ramp.map((s): RampStep => {
        const by = 1 / Math.sqrt(counts.get(s.lab) ?? 1);
        const moved = r.lab.map((sd) => sd * by * normal());
        const lab: Lab = [s.lab[0] + moved[0], s.lab[1] + moved[1], s.lab[2] + moved[2]];
        return {
          ...s,
          lab,
          offLine: [s.offLine[0] + moved[1], s.offLine[1] + moved[2]],
          chromaOffLine: Math.hypot(s.offLine[0] + moved[1], s.offLine[1] + moved[2]),
        };
      }),
    ),
  ).filter((v) => v !== undefined);
  if (values.length < 2) return 0;
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1));
}
