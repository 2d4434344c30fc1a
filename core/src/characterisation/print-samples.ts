import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import type { MeasurementCondition, PatchReading, Reading, SpectralGrid } from '../measurement/reading.ts';
import { groupPatches, type PatchGroup } from '../measurement/repeats.ts';
import { groupSpectrum } from '../measurement/spectra-of-group.ts';

/** One device value with what was read of it, the mean of its repeats. */
export interface PrintSample {
  readonly device: readonly number[];
  /** Name on the chart of the first patch that was driven so. */
  readonly id: string;
  readonly lab: Lab;
  /** Total factor, or the part without luminescence where that is known. */
  readonly reflected?: readonly number[];
  /** What luminescence adds. */
  readonly luminous?: readonly number[];
  /** Repeats make a mean surer, but not without end. */
  readonly weight: number;
  /** ΔE00 of each repeat from the mean of them. */
  readonly repeats: readonly number[];
}

/** Of several readings the one with UV as ISO 13655 has it speaks first. */
const FIRST: readonly (MeasurementCondition | undefined)[] = ['M1', 'M0', undefined, 'M2', 'M3'];
const MOST_WEIGHT = 4;

/**
 * Readings of one print condition as samples, repeats together. Readings under the condition that speaks are joined (a
 * chart of several files); one without UV beside it tells the luminescence apart.
 */
export function samplesOf(readings: readonly Reading[]): { samples: PrintSample[]; reading: Reading } {
  const speaks = FIRST.find((c) => readings.some((r) => r.condition === c && r.deviceSpace)) ?? readings[0]?.condition;
  const own = readings.filter((r) => r.condition === speaks);
  const reading = joined(own);
  const dark = speaks === 'M1' ? joined(readings.filter((r) => r.condition === 'M2')) : undefined;
  const withoutUv = dark && sameGrid(dark.spectralGrid, reading?.spectralGrid) ? byDevice(dark) : undefined;
  if (!reading) return { samples: [], reading: readings[0]! };
  const groups = groupPatches(reading).filter((g) => g.device);
  const dulls = groups.map((g) => withoutUv?.get(keyOf(g.device!)));
  const apart = groups.length > 0 && dulls.every((d) => d !== undefined);
  return {
    reading,
    samples: groups.map((g, i): PrintSample => {
      const total = groupSpectrum(reading, g)?.values;
      const dull = apart ? dulls[i] : undefined;
      return {
        device: g.device!,
        id: g.members[0]!.id,
        lab: g.lab,
        reflected: dull ?? total,
        luminous: dull && total!.map((v, b) => v - dull[b]!),
        weight: Math.min(g.count, MOST_WEIGHT),
        repeats: g.count > 1 ? g.members.map((m) => deltaE2000(m.lab, g.lab)) : [],
      };
    }),
  };
}

const keyOf = (device: readonly number[]) => device.map((v) => Math.round(v * 10_000)).join();

const sameGrid = (a: SpectralGrid | undefined, b: SpectralGrid | undefined) =>
  a !== undefined && b !== undefined && a.startNm === b.startNm && a.stepNm === b.stepNm && a.count === b.count;

function byDevice(reading: Reading): Map<string, readonly number[]> {
  return new Map(
    groupPatches(reading).flatMap((g: PatchGroup) => {
      const values = g.device && groupSpectrum(reading, g)?.values;
      return values ? [[keyOf(g.device), values] as const] : [];
    }),
  );
}

/** Readings of one condition as one: spectra stay only where all have them on one grid. */
function joined(readings: readonly Reading[]): Reading | undefined {
  if (readings.length < 2) return readings[0];
  const first = readings[0]!;
  const alike = readings.filter((r) => r.deviceSpace === first.deviceSpace);
  const spectral = alike.every((r) => sameGrid(r.spectralGrid, first.spectralGrid));
  const patches = alike.flatMap((r): PatchReading[] =>
    spectral ? [...r.patches] : r.patches.map(({ reflectance: _, ...rest }) => rest),
  );
  return { ...first, patches, spectralGrid: spectral ? first.spectralGrid : undefined };
}
