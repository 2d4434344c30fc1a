import type { Lab, Xyz } from '../colour/types.ts';

/** ISO 13655 measurement condition: M0 unspecified light, M1 D50 with its UV, M2 UV excluded, M3 polarised. */
export type MeasurementCondition = 'M0' | 'M1' | 'M2' | 'M3';

export type DeviceSpace = 'RGB' | 'CMYK';

/** One patch as it was read. */
export interface PatchReading {
  readonly id: string;
  /** Device values 0–1: three for RGB, four for CMYK. */
  readonly device?: readonly number[];
  /** CIELAB, D50, 2°. */
  readonly lab: Lab;
  /** D50, 2°, Y of the perfect diffuser = 100. */
  readonly xyz: Xyz;
  /** Reflectance factors on the reading's grid, 1 = perfect diffuser. */
  readonly reflectance?: readonly number[];
}

/** Wavelengths of a reading's spectra. */
export interface SpectralGrid {
  readonly startNm: number;
  readonly stepNm: number;
  readonly count: number;
}

/** A set of patches read in one go, of one print condition, under one measurement condition. */
export interface Reading {
  readonly patches: readonly PatchReading[];
  readonly deviceSpace?: DeviceSpace;
  readonly spectralGrid?: SpectralGrid;
  /** What the colour was computed from. */
  readonly colourFrom: 'spectrum' | 'XYZ' | 'Lab';
  readonly condition?: MeasurementCondition;
  readonly instrument?: string;
  readonly backing?: 'white' | 'black';
  /** As written in the file. */
  readonly createdAt?: string;
  readonly description?: string;
}
