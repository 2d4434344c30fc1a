import type { GamutMesh } from '../gamut/mesh.ts';
import type { ReadingFacts } from '../measurement/reading-facts.ts';
import { groupPatches, type PatchGroup } from '../measurement/repeats.ts';
import { groupSpectrum } from '../measurement/spectra-of-group.ts';
import type { SheetSpectra } from './lit-sheet.ts';

/** A print's spectra with what they stand for: places of white and black among the patches, of the greys, and of the gamut's corners. */
export interface PrintSpectra extends SheetSpectra {
  readonly white: number;
  readonly black: number;
  readonly greys: readonly { readonly step: number; readonly patch: number }[];
  /** Patch by vertex. */
  readonly corners: readonly number[];
  readonly triangles: GamutMesh['triangles'];
}

const keyOf = (device: readonly number[] | undefined) => device?.map((v) => Math.round(v * 10_000)).join();
const FEWEST_BANDS = 8;

/**
 * Readies a reading for any light. Where the sheet was read without UV too (M2), luminescence is what the reading has
 * beyond that; else it can't be told apart and stays in the reflectance.
 * @returns undefined where the reading holds no spectra
 */
export function printSpectra(facts: ReadingFacts): PrintSpectra | undefined {
  const { reading, groups, withoutUv } = facts;
  const grid = reading.spectralGrid;
  const spectra = groups.map((g) => groupSpectrum(reading, g)?.values);
  const bands = spectra[0]?.length ?? 0;
  if (!grid || bands < FEWEST_BANDS || spectra.some((s) => s?.length !== bands)) return undefined;
  const dark = withoutUv && darkSpectra(withoutUv.reading, grid, bands);
  const places = new Map(groups.map((g, i) => [g.lab.join(), i]));
  const greys = (facts.ramp ?? []).flatMap(({ step, lab }) => {
    const patch = places.get(lab.join());
    return patch === undefined ? [] : [{ step, patch }];
  });
  const vertices = (facts.gamut?.mesh.vertices ?? []).map((v) => places.get(v.join()) ?? -1);
  const corners = vertices.includes(-1) ? [] : vertices;
  const [white, black] = [groups.indexOf(facts.white), groups.indexOf(facts.black)];
  // Patches from inside the gamut that nothing asks for stay behind.
  const asked = [...new Set([white, black, ...greys.map((g) => g.patch), ...corners])];
  const now = new Map(asked.map((was, i) => [was, i]));
  const dulls = asked.map((i) => dark?.(groups[i]!));
  const apart = dark !== undefined && dulls.every((d) => d !== undefined);
  const reflected = new Float32Array(asked.length * bands);
  const luminous = apart ? new Float32Array(asked.length * bands) : undefined;
  asked.forEach((g, p) => {
    const [total, dull] = [spectra[g]!, dulls[p]!];
    for (let i = 0; i < bands; i++) {
      reflected[p * bands + i] = apart ? dull[i]! : total[i]!;
      if (luminous) luminous[p * bands + i] = total[i]! - dull[i]!;
    }
  });
  return {
    startNm: grid.startNm,
    stepNm: grid.stepNm,
    bands,
    reflected,
    luminous,
    white: now.get(white)!,
    black: now.get(black)!,
    greys: greys.map(({ step, patch }) => ({ step, patch: now.get(patch)! })),
    corners: corners.map((c) => now.get(c)!),
    triangles: corners.length > 0 ? facts.gamut!.mesh.triangles : [],
  };
}

/** Spectra of the same patches without UV: by device values where both have them, else by their order. */
function darkSpectra(
  reading: ReadingFacts['reading'],
  grid: NonNullable<ReadingFacts['reading']['spectralGrid']>,
  bands: number,
): ((g: PatchGroup) => readonly number[] | undefined) | undefined {
  const its = reading.spectralGrid;
  if (!its || its.startNm !== grid.startNm || its.stepNm !== grid.stepNm) return undefined;
  const groups = groupPatches(reading);
  const byDevice = new Map(groups.flatMap((g) => (g.device ? [[keyOf(g.device), g] as const] : [])));
  const byName = new Map(groups.flatMap((g) => g.members.map((m) => [m.id, g] as const)));
  return (g) => {
    const found = byDevice.get(keyOf(g.device)) ?? byName.get(g.members[0]!.id);
    const values = found && groupSpectrum(reading, found)?.values;
    return values?.length === bands ? values : undefined;
  };
}
