import type { Finding } from './strip-check.ts';

/** A white of the chart, as one strip has it. */
export interface DriftWhite {
  /** Strips read since the last calibration. */
  readonly sinceCalibration: number;
  readonly Y: number;
}

/** Share of Y lost or gained a strip, with its standard error. */
export interface Drift {
  readonly perStrip: number;
  readonly error: number;
  readonly strips: number;
}

/** Drift below this share of Y over the strips read is left alone: a tenth of an L* near white (our own choice). */
const WORTH_A_WORD = 0.003;
const FEWEST = 6;

/** Line through the whites since calibration, by least squares; undefined with too few of them. */
export function whiteDrift(whites: readonly DriftWhite[]): Drift | undefined {
  if (whites.length < FEWEST) return undefined;
  const n = whites.length;
  const mx = whites.reduce((s, w) => s + w.sinceCalibration, 0) / n;
  const my = whites.reduce((s, w) => s + w.Y, 0) / n;
  const sxx = whites.reduce((s, w) => s + (w.sinceCalibration - mx) ** 2, 0);
  if (sxx === 0) return undefined;
  const slope = whites.reduce((s, w) => s + (w.sinceCalibration - mx) * (w.Y - my), 0) / sxx;
  const residual = whites.reduce((s, w) => s + (w.Y - my - slope * (w.sinceCalibration - mx)) ** 2, 0) / (n - 2);
  const strips =
    Math.max(...whites.map((w) => w.sinceCalibration)) - Math.min(...whites.map((w) => w.sinceCalibration));
  return { perStrip: slope / my, error: Math.sqrt(residual / sxx) / my, strips };
}

/** Says so when the drift is more than its noise and large enough to matter. */
export function driftFinding(whites: readonly DriftWhite[]): Finding | undefined {
  const drift = whiteDrift(whites);
  if (!drift) return undefined;
  const total = drift.perStrip * drift.strips;
  if (Math.abs(drift.perStrip) < 2.5 * drift.error || Math.abs(total) < WORTH_A_WORD) return undefined;
  return {
    misread: 'drift',
    saw: `The repeated whites ${total < 0 ? 'fell' : 'rose'} by ${(100 * Math.abs(total)).toFixed(2)} % of Y over ${drift.strips} strips since the calibration.`,
  };
}
