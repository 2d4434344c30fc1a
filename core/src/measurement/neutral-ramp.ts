import type { Lab } from '../colour/types.ts';
import type { PatchGroup } from './repeats.ts';
import type { Reading } from './reading.ts';

/** One grey of a neutral ramp, from black (0) to paper (1). */
export interface RampStep {
  /** 0 = full ink, 1 = bare paper. */
  readonly step: number;
  readonly lab: Lab;
  /** Distance along a* and along b* from that line. */
  readonly offLine: readonly [a: number, b: number];
  /** Distance in a*b* from the straight line between paper white and black, at the step's L*. */
  readonly chromaOffLine: number;
}

const FEWEST_STEPS = 5;

/**
 * Greys of a reading, dark to light: R = G = B in RGB; black ink alone in CMYK.
 * @returns undefined when the device values hold fewer than five
 */
export function neutralRamp(
  reading: Reading,
  groups: readonly PatchGroup[],
  white: Lab,
  black: Lab,
): RampStep[] | undefined {
  const stepOf = (device: readonly number[]): number | undefined => {
    if (reading.deviceSpace === 'RGB')
      return device[0] === device[1] && device[1] === device[2] ? device[0] : undefined;
    return device[0] + device[1] + device[2] === 0 ? 1 - device[3] : undefined;
  };
  const steps = groups.flatMap((g): RampStep[] => {
    const step = g.device && stepOf(g.device);
    if (step === undefined) return [];
    return [rampStep(step, g.lab, white, black)];
  });
  return steps.length >= FEWEST_STEPS ? steps.sort((p, q) => p.step - q.step) : undefined;
}

/** A grey with its distance from the straight line between paper white and black. */
export function rampStep(step: number, lab: Lab, white: Lab, black: Lab): RampStep {
  // Where the line has no length in L* (a sheet of one tone) there is no line to stray from.
  const t = white[0] === black[0] ? 0 : (white[0] - lab[0]) / (white[0] - black[0]);
  const a = white[1] + (black[1] - white[1]) * t;
  const b = white[2] + (black[2] - white[2]) * t;
  return { step, lab, offLine: [lab[1] - a, lab[2] - b], chromaOffLine: Math.hypot(lab[1] - a, lab[2] - b) };
}
