import type { GamutMesh } from '../gamut/mesh.ts';
import type { ReadingFacts } from '../measurement/reading-facts.ts';
import type { Reading } from '../measurement/reading.ts';
import type { PatchGroup } from '../measurement/repeats.ts';
import { commonPatches, sameGrid } from '../measurement/same-print.ts';
import { groupSpectrum } from '../measurement/spectra-of-group.ts';
import { estimateBrightener, glowBetween, glowOf } from './estimated-brightener.ts';
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

const MIN_BANDS = 8;

/**
 * Prepares a reading for any light. Where the same patches were read without UV too (M2), luminescence is what the
 * reading has beyond that; where any patch that is needed lacks its M2, it is estimated from the white's spectrum.
 * @returns undefined where the reading holds no spectra
 */
export function printSpectra(facts: ReadingFacts): PrintSpectra | undefined {
  const { reading, groups, withoutUv } = facts;
  const grid = reading.spectralGrid;
  const spectra = groups.map((g) => groupSpectrum(reading, g)?.values);
  const bands = spectra[0]?.length ?? 0;
  if (!grid || bands < MIN_BANDS || spectra.some((s) => s?.length !== bands)) return undefined;
  const dark = withoutUv && darkSpectra(reading, withoutUv.reading, bands);
  const places = new Map(groups.map((g, i) => [g.lab.join(), i]));
  const greys = (facts.ramp ?? []).flatMap(({ step, lab }) => {
    const patch = places.get(lab.join());
    return patch === undefined ? [] : [{ step, patch }];
  });
  const vertices = (facts.gamut?.mesh.vertices ?? []).map((v) => places.get(v.join()) ?? -1);
  const corners = vertices.includes(-1) ? [] : vertices;
  const [white, black] = [groups.indexOf(facts.white), groups.indexOf(facts.black)];
  // Patches inside the gamut that nothing needs are dropped.
  const asked = [...new Set([white, black, ...greys.map((g) => g.patch), ...corners])];
  const now = new Map(asked.map((was, i) => [was, i]));
  const dulls = asked.map((i) => dark?.(groups[i]!));
  const apart = dark !== undefined && dulls.every((d) => d !== undefined);
  const estimate =
    apart || !facts.holds.white ? undefined : estimateBrightener(grid, spectra[white]!, reading.condition);
  const reflected = new Float32Array(asked.length * bands);
  const luminous = apart || estimate ? new Float32Array(asked.length * bands) : undefined;
  asked.forEach((g, p) => {
    const [total, dull] = [spectra[g]!, dulls[p]!];
    const glow = estimate && glowOf(total, spectra[white]!, estimate);
    for (let i = 0; i < bands; i++) {
      const given = apart ? total[i]! - dull[i]! : (glow?.[i] ?? 0);
      reflected[p * bands + i] = total[i]! - given;
      if (luminous) luminous[p * bands + i] = given;
    }
  });
  return {
    startNm: grid.startNm,
    stepNm: grid.stepNm,
    bands,
    reflected,
    luminous,
    ...(estimate && { estimated: glowBetween(estimate) }),
    white: now.get(white)!,
    black: now.get(black)!,
    greys: greys.map(({ step, patch }) => ({ step, patch: now.get(patch)! })),
    corners: corners.map((c) => now.get(c)!),
    triangles: corners.length > 0 ? facts.gamut!.mesh.triangles : [],
  };
}

/** Spectra of the same patches without UV. */
function darkSpectra(
  own: Reading,
  dark: Reading,
  bands: number,
): ((g: PatchGroup) => readonly number[] | undefined) | undefined {
  if (!sameGrid(dark.spectralGrid, own.spectralGrid)) return undefined;
  const found = new Map(commonPatches(own, dark).map(({ p, q }) => [p.members[0], q]));
  return (g) => {
    const match = found.get(g.members[0]);
    const values = match && groupSpectrum(dark, match)?.values;
    return values?.length === bands ? values : undefined;
  };
}
