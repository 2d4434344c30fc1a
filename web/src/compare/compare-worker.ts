import { expose } from 'comlink';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS, type ViewingLight } from '@rakuen/core/light/table-lights';
import type { Spectrum } from '@rakuen/core/colour/types';
import { columnsOf, type Columns } from '@rakuen/core/gamut/columns';
import { coverage, reachesBeyond, type Beyond, type Coverage } from '@rakuen/core/gamut/coverage';
import { meshVolume, type GamutMesh } from '@rakuen/core/gamut/mesh';
import { abOutline, type OutlinePoint } from '@rakuen/core/gamut/outline';
import { spaceSolid, WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import type { Figure } from '@rakuen/core/measurement/figure';
import { litPrint } from '@rakuen/core/light/lit-print';
import type { PrintSpectra } from '@rakuen/core/light/print-spectra';
import { turns, unsteadiness, type Turn } from '@rakuen/core/light/turns';
import { lighting } from '@rakuen/core/light/lit-sheet';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { screenMatch, type MonitorWhite, type ScreenMatch } from '@rakuen/core/light/screen-match';

/** A print as the light shows it: what replaces its measured facts. */
export interface LitFacts {
  readonly figures: Record<string, Figure>;
  readonly ramp: RampStep[];
  readonly outline: OutlinePoint[];
  /** It was not read both with and without UV: it is shown as if it had no brightener. */
  readonly brightenerUnknown: boolean;
  /** Where it was asked for: it is large, and only the solids draw it. */
  readonly mesh?: GamutMesh;
}

/** Two solids against one another. */
export interface Against extends Coverage {
  readonly volumes: readonly [number, number];
  readonly firstBeyond: readonly Beyond[];
  readonly secondBeyond: readonly Beyond[];
}

const sheets = new Map<string, { sheet: PrintSpectra; base: Record<string, Figure>; toldFrom?: number }>();
const columns = new WeakMap<GamutMesh, Columns>();
const glassOf = (key: string) => GLASSES.find((g) => g.key === key) ?? GLASSES[0];
const spaces = new Map<WorkingSpace, GamutMesh>();

/** What is computed beside the screen, so that it never stands still. */
const desk = {
  keep(id: string, sheet: PrintSpectra, base: Record<string, Figure>, toldFrom?: number): void {
    sheets.set(id, { sheet, base, toldFrom });
  },
  lit(
    id: string,
    { power, uvEnds }: Pick<ViewingLight, 'power' | 'uvEnds'>,
    glass: string,
    solid: boolean,
  ): LitFacts | undefined {
    const known = sheets.get(id);
    if (!known) return undefined;
    const under = (light: Spectrum) => lighting(light, glassOf(glass), known.sheet);
    const { figures, ramp, mesh } = litPrint(known.sheet, known.base, under(power), known.toldFrom, uvEnds?.map(under));
    return {
      figures,
      ramp: [...ramp],
      outline: mesh.triangles.length > 0 ? abOutline(mesh) : [],
      brightenerUnknown: !known.sheet.luminous,
      ...(solid && { mesh }),
    };
  },
  turns(id: string, imported: readonly ViewingLight[]): { list: Turn[]; mean?: number } | undefined {
    const known = sheets.get(id);
    if (!known) return undefined;
    const list = turns(known.sheet, [...TABLE_LIGHTS, ...imported]);
    return { list, mean: unsteadiness(list) };
  },
  screen(id: string, light: Spectrum, glass: string, monitor: MonitorWhite): ScreenMatch | undefined {
    const known = sheets.get(id);
    return known && screenMatch(known.sheet, lighting(light, glassOf(glass), known.sheet), monitor);
  },
  space(key: WorkingSpace): GamutMesh {
    const known = spaces.get(key) ?? spaceSolid(WORKING_SPACES[key]);
    spaces.set(key, known);
    return known;
  },
  /** @param progress told the share that is done, 0–1 */
  against(first: GamutMesh, second: GamutMesh, progress: (share: number) => void): Against {
    const cut = (mesh: GamutMesh) => {
      const known = columns.get(mesh) ?? columnsOf(mesh);
      columns.set(mesh, known);
      return known;
    };
    const p = cut(first);
    progress(0.4);
    const q = cut(second);
    progress(0.8);
    return {
      ...coverage(p, q),
      volumes: [meshVolume(first), meshVolume(second)],
      firstBeyond: reachesBeyond(p, q),
      secondBeyond: reachesBeyond(q, p),
    };
  },
};
export type Desk = typeof desk;

expose(desk);
