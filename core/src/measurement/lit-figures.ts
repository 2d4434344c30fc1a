import { deltaE2000 } from '../colour/difference.ts';
import { visualDensity } from '../colour/density.ts';
import { TABLE_LIGHTS, GLASSES } from '../colour/table-lights.ts';
import type { ViewingLight } from '../colour/lights.ts';
import type { Lab } from '../colour/types.ts';
import { meshVolume, type GamutMesh } from '../gamut/mesh.ts';
import type { Figure } from './figure.ts';
import { lighting, litLabs, litXyz, type Lighting, type SheetSpectra } from './lit-sheet.ts';
import type { Measure } from './measures/measure.ts';
import { worstDeparture } from './measures/linearity.ts';
import { firstSeparate } from './measures/separation.ts';
import { rampStep, type RampStep } from './neutral-ramp.ts';

/** A print's spectra with what they stand for: places of white and black among the patches, of the greys, and of the gamut's corners. */
export interface ReadySheet extends SheetSpectra {
  readonly white: number;
  readonly black: number;
  readonly greys: readonly { readonly step: number; readonly patch: number }[];
  /** Patch by vertex. */
  readonly corners: readonly number[];
  readonly triangles: GamutMesh['triangles'];
}

/** A print as it looks under a light. */
export interface LitPrint {
  /** The figures that follow from how it looks; the others keep what was measured. */
  readonly figures: Record<string, Figure>;
  readonly ramp: readonly RampStep[];
  readonly mesh: GamutMesh;
}

/**
 * Figures of a print under a light and behind a glass. Each keeps the repeatability of the figure it stands for: the same readings lie behind both.
 * @param base figures under D50, as they were measured
 */
export function litPrint(sheet: ReadySheet, base: Readonly<Record<string, Figure>>, under: Lighting): LitPrint {
  const xyz = litXyz(sheet, under);
  const labs = litLabs(xyz, under);
  const [white, black] = [labs[sheet.white], labs[sheet.black]];
  const [Yw, Yk] = [xyz[sheet.white * 3 + 1], xyz[sheet.black * 3 + 1]];
  const ramp = sheet.greys.map(({ step, patch }) => rampStep(step, labs[patch], white, black));
  const mesh: GamutMesh = { vertices: sheet.corners.map((c) => labs[c]), triangles: sheet.triangles };
  const [dmin, dmax] = [visualDensity(Yw), visualDensity(Yk)];
  const figures: Record<string, Figure> = {};
  const scalar = (key: string, value: number, note?: string) => {
    const was = base[key];
    if (was?.shape === 'scalar') figures[key] = { shape: 'scalar', value, sd: was.sd, note };
  };
  const colour = (key: string, lab: Lab) => {
    const was = base[key];
    if (was?.shape === 'colour') figures[key] = { shape: 'colour', lab, sd: was.sd };
  };
  colour('white', white);
  colour('black', black);
  scalar('dmin', dmin);
  scalar('dmax', dmax);
  scalar('densityRange', dmax - dmin);
  scalar('contrastRatio', Yw / Yk);
  if (mesh.triangles.length > 0) scalar('gamutVolume', meshVolume(mesh));
  if (ramp.length > 0) {
    scalar(
      'neutrality',
      ramp.reduce((most, s) => Math.max(most, s.chromaOffLine), 0),
    );
    const worst = worstDeparture(ramp);
    scalar(
      'linearity',
      Math.abs(worst.by),
      `${worst.by > 0 ? 'lighter' : 'darker'} than its aim at ${Math.round(worst.step * 100)} %`,
    );
    for (const [key, end] of [
      ['shadowSeparation', 'black'],
      ['highlightSeparation', 'white'],
    ] as const) {
      const found = firstSeparate(ramp, end);
      if (found)
        scalar(
          key,
          found.percent,
          found.blocked === 0
            ? 'no step blocked'
            : `${found.blocked} ${found.blocked === 1 ? 'step' : 'steps'} blocked`,
        );
    }
  }
  return { figures, ramp, mesh };
}

/** Measures that speak of a print as a light shows it; what was measured under a light of its own says nothing of another. */
export function measuresInLight(
  measures: readonly Measure[],
  recomputed: readonly (ReadonlySet<string> | undefined)[],
): Measure[] {
  return measures.filter((m) => 'observe' in m || recomputed.every((keys) => keys === undefined || keys.has(m.key)));
}

/** How far a print turns under one light, for an eye that has got used to it. */
export interface Turn {
  readonly light: ViewingLight;
  /** ΔE00 between the white under D50 and under the light. */
  readonly white: number;
  /** Mean over the greys between L* 15 and 85, relative to the paper, under D50 and under the light. */
  readonly greys: number;
}

const MIDDLE_GREYS = [15, 85] as const;

/** How the print turns from light to light: colour inconstancy, the reference left out. */
export function turns(sheet: ReadySheet, lights: readonly ViewingLight[] = TABLE_LIGHTS): Turn[] {
  const seen = (light: ViewingLight) => {
    const under = lighting(light.power, GLASSES[0], sheet);
    return litLabs(litXyz(sheet, under), under);
  };
  const [reference, ...others] = lights;
  const first = seen(reference);
  const onPaper = (labs: readonly Lab[], patch: number): Lab => [
    labs[patch][0],
    labs[patch][1] - labs[sheet.white][1],
    labs[patch][2] - labs[sheet.white][2],
  ];
  const middle = sheet.greys.filter(
    ({ patch }) => first[patch][0] >= MIDDLE_GREYS[0] && first[patch][0] <= MIDDLE_GREYS[1],
  );
  return others.map((light) => {
    const labs = seen(light);
    const greys =
      middle.reduce((sum, { patch }) => sum + deltaE2000(onPaper(first, patch), onPaper(labs, patch)), 0) /
      Math.max(1, middle.length);
    return { light, white: deltaE2000(first[sheet.white], labs[sheet.white]), greys };
  });
}

/** One number for "holds its colour": the mean over the lights of the white's and the greys' turn, ΔE00; less is steadier. */
export function unsteadiness(list: readonly Turn[]): number {
  return list.reduce((sum, t) => sum + (t.white + t.greys) / 2, 0) / Math.max(1, list.length);
}
