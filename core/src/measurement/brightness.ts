import { spectrumAt } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';

/** Weights of R457 at 400, 410 … 510 nm (ISO 2470-1, (memory)). */
const R457_WEIGHTS = [1.0, 6.7, 18.2, 34.5, 57.6, 82.5, 100, 88.7, 53.1, 20.3, 5.6, 0.3];
const FROM_NM = 400;
const SUM = R457_WEIGHTS.reduce((s, w) => s + w, 0);

/** ISO brightness R457 in percent: the reflectance as a filter around 457 nm sees it. */
export function r457(spectrum: Spectrum): number {
  return (100 * R457_WEIGHTS.reduce((sum, w, i) => sum + w * spectrumAt(spectrum, FROM_NM + 10 * i), 0)) / SUM;
}

/** Class of a brightener by ΔB, the difference UV makes to R457 (ISO 15397, (memory)). */
export function brightenerClass(deltaB: number): 'none' | 'faint' | 'low' | 'moderate' | 'high' {
  if (deltaB < 0.5) return 'none';
  return deltaB <= 4 ? 'faint' : deltaB <= 8 ? 'low' : deltaB <= 14 ? 'moderate' : 'high';
}
