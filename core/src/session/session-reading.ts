import type { Rgb16 } from '../chart/device16.ts';
import { fromRgb16 } from '../chart/device16.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { MeasurementCondition, PatchReading, Reading, SpectralGrid } from '../measurement/reading.ts';

/** One patch as one pass read it, in every measurement condition the instrument gives. */
export interface PassedPatch {
  readonly id: string;
  readonly rgb16: Rgb16;
  /** From 0. */
  readonly pass: number;
  readonly reflectance: Readonly<Record<string, readonly number[]>>;
}

/**
 * Readings of a finished session, one a measurement condition. Every pass stands as a patch of its own ("B07", "B07
 * #2"): passes are averaged where the figures are made, and what they tell of the repeatability is not lost on the way.
 */
export function sessionReadings(
  patches: readonly PassedPatch[],
  conditions: readonly MeasurementCondition[],
  grid: SpectralGrid,
  head: Pick<Reading, 'instrument' | 'createdAt' | 'description' | 'backing'>,
): Reading[] {
  const white = illuminantWhite();
  return conditions.map((condition): Reading => ({
    patches: patches.map(({ id, rgb16, pass, reflectance }): PatchReading => {
      const values = reflectance[condition]!;
      const xyz = spectrumToXyz({ startNm: grid.startNm, stepNm: grid.stepNm, values });
      return {
        id: pass === 0 ? id : `${id} #${pass + 1}`,
        device: fromRgb16(rgb16),
        reflectance: values,
        xyz,
        lab: xyzToLab(xyz, white),
      };
    }),
    deviceSpace: 'RGB',
    spectralGrid: grid,
    colourFrom: 'spectrum',
    condition,
    ...head,
  }));
}
