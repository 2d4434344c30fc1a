import { three } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';
import type { PatchGroup } from './repeats.ts';
import type { Reading } from './reading.ts';

/** One grey of a neutral ramp, from black (0) to paper (1). */
export interface RampStep {
  /** 0 = full ink, 1 = bare paper. */
  readonly step: number;
  readonly lab: Lab;
  /** Distance along a* and along b* from the straight line between the paper and the ramp's own black end. */
  readonly offLine: readonly [a: number, b: number];
  /** Distance in a*b* from that line, at the step's L*. */
  readonly chromaOffLine: number;
}

/** A grey as it was read, before it is held against any line. */
export interface Grey {
  readonly step: number;
  readonly lab: Lab;
}

const FEWEST_STEPS = 5;

/**
 * Greys of a reading, dark to light: R = G = B in RGB; black ink alone in CMYK, where the line ends at full black ink and not at four inks.
 * @returns undefined when the device values hold fewer than five
 */
export function neutralRamp(reading: Reading, groups: readonly PatchGroup[], white: Lab): RampStep[] | undefined {
  const stepOf = (device: readonly number[]): number | undefined => {
    if (reading.deviceSpace === 'RGB')
      return device[0] === device[1] && device[1] === device[2] ? device[0] : undefined;
    return device[0]! + device[1]! + device[2]! === 0 ? 1 - device[3]! : undefined;
  };
  const greys = groups.flatMap(({ device, lab }): Grey[] => {
    const step = device && stepOf(device);
    return step === undefined ? [] : [{ step, lab }];
  });
  return greys.length >= FEWEST_STEPS ? rampOf(greys, white) : undefined;
}

/** Greys dark to light, each with its distance from the straight line between the paper and the darkest end of the ramp. */
export function rampOf(greys: readonly Grey[], white: Lab): RampStep[] {
  const sorted = [...greys].sort((p, q) => p.step - q.step);
  const black = sorted[0]!.lab;
  return sorted.map(({ step, lab }) => {
    // Where the line has no length in L* (a sheet of one tone) there is no line to stray from.
    const t = white[0] === black[0] ? 0 : (white[0] - lab[0]) / (white[0] - black[0]);
    const a = lab[1] - (white[1] + (black[1] - white[1]) * t);
    const b = lab[2] - (white[2] + (black[2] - white[2]) * t);
    return { step, lab, offLine: [a, b], chromaOffLine: Math.hypot(a, b) };
  });
}

/** The grey at a device step, 0 black to 1 paper, between the steps that were read: two ramps are drawn alike whatever steps they have. */
export function greyAt(ramp: readonly Grey[], step: number): Lab {
  const after = ramp.findIndex((s) => s.step >= step);
  if (after < 0) return ramp[ramp.length - 1]!.lab;
  if (after === 0) return ramp[0]!.lab;
  const [p, q] = [ramp[after - 1]!, ramp[after]!];
  const t = (step - p.step) / (q.step - p.step);
  return three((c) => p.lab[c]! + (q.lab[c]! - p.lab[c]!) * t);
}
