import { whiteDrift, type DriftWhite } from './white-drift.ts';

/**
 * By what a strip's spectra are multiplied so that the instrument's drift, as the repeated whites tell it, is taken out.
 * @param whites the chart's whites, strip by strip
 * @returns factor by strips read since the calibration; 1 where too few whites tell anything
 */
export function driftOut(whites: readonly DriftWhite[]): (sinceCalibration: number) => number {
  const drift = whiteDrift(whites);
  if (!drift) return () => 1;
  // The line is taken at its own start: what the instrument read right after the calibration is right.
  const atCalibration = 1 - drift.perStrip * meanSince(whites);
  return (since) => atCalibration / (atCalibration + drift.perStrip * since);
}

const meanSince = (whites: readonly DriftWhite[]) => whites.reduce((s, w) => s + w.sinceCalibration, 0) / whites.length;
