import type { Spectrum } from '../colour/types.ts';
import type { Reading } from './reading.ts';
import type { PatchGroup } from './repeats.ts';

/** Mean reflectance of a group's readings; undefined where the reading holds no spectra. */
export function groupSpectrum(reading: Reading, group: PatchGroup): Spectrum | undefined {
  const grid = reading.spectralGrid;
  const spectra = group.members.flatMap((m) => (m.reflectance ? [m.reflectance] : []));
  if (!grid || spectra.length === 0) return undefined;
  return {
    startNm: grid.startNm,
    stepNm: grid.stepNm,
    values: spectra[0]!.map((_, i) => spectra.reduce((sum, s) => sum + s[i]!, 0) / spectra.length),
  };
}

/** Standard deviation between the group's readings of a figure computed from each spectrum; 0 where there is only one. */
export function spreadOver(reading: Reading, group: PatchGroup, figure: (spectrum: Spectrum) => number): number {
  const grid = reading.spectralGrid;
  const values = grid
    ? group.members.flatMap((m) =>
        m.reflectance ? [figure({ startNm: grid.startNm, stepNm: grid.stepNm, values: m.reflectance })] : [],
      )
    : [];
  if (values.length < 2) return 0;
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  // Of the mean, hence the division by n once more.
  return Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1) / values.length);
}

export const NO_SPECTRA = 'Spectra are missing from the readings.';
