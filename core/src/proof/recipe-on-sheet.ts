import { deltaE2000 } from '../colour/difference.ts';
import { onSheet, type MatchFigures } from '../match/on-sheet.ts';
import { gistPalette } from '../match/palette.ts';
import type { ReadySheet } from '../match/ready-sheet.ts';
import type { OccupiedCells } from '../picture/cells.ts';
import type { Gist } from '../picture/gist.ts';
import type { Mark } from '../picture/marks.ts';
import { TONE_BOUNDS_L, type ContrastScale } from '../picture/structure.ts';
import { LOCAL_SCALES_MM } from './local-contrast.ts';
import { applyRecipe, toneOf, type Recipe } from './recipe.ts';

/** Steps of lightness beyond this are edges, and local contrast leaves them, L* (as `local-contrast.ts` has it). */
const EDGE_L = 6;

/** A picture for recipes to be tried on a sheet: in few colours, for hundreds are tried. */
export interface Tried {
  readonly gist: Gist;
  readonly marks: readonly Mark[];
  readonly ready: ReadySheet;
}

/**
 * What a sheet does to a picture that is printed by a recipe. Where a colour is out of gamut it is held against the
 * recipe’s; tones and chroma against the picture’s own: a step that the recipe widens and the sheet narrows is left as wide
 * as both leave it, and what the recipe makes paler is paler.
 */
export function recipeOnSheet({ gist, marks, ready }: Tried, recipe: Recipe): MatchFigures {
  const own = gistPalette(gist, ready.nodes);
  const changed = gistPalette({ ...gist, colours: changedCells(gist.colours, recipe) }, ready.nodes);
  const lab = new Float32Array(3);
  const changedMarks = marks.map((m): Mark => {
    lab.set(m.lab);
    applyRecipe(lab, recipe);
    return { ...m, lab: [lab[0]!, lab[1]!, lab[2]!] };
  });
  const coloured = onSheet({ ...changed, chromas: own.chromas }, changedMarks, ready);
  const through = (values: readonly number[]) => values.map((_, L) => at(values, toneOf(recipe, L)));
  const toned = onSheet(own, marks, {
    ...ready,
    greysL: through(ready.greysL),
    greysOff: through(ready.greysOff),
  });
  return {
    ...coloured,
    shadowShare: toned.shadowShare,
    highlightShare: toned.highlightShare,
    shadowStepsKept: toned.shadowStepsKept,
    shadowWedge: toned.shadowWedge,
    stepsKept: toned.stepsKept,
    slopeByTone: toned.slopeByTone,
    toneError: toned.toneError,
    localGain: localGain(recipe),
    marks: coloured.marks.map((m, i) => ({ ...m, stepsKept: toned.marks[i]!.stepsKept })),
  };
}

/** The colours a recipe makes of those of a picture. */
export function changedCells({ count, data }: OccupiedCells, recipe: Recipe): OccupiedCells {
  const labs = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) labs.set(data.subarray(i * 4, i * 4 + 3), i * 3);
  applyRecipe(labs, recipe);
  const out = data.slice();
  for (let i = 0; i < count; i++) out.set(labs.subarray(i * 3, i * 3 + 3), i * 4);
  return { count, data: out };
}

/** Mean ΔE00 between a picture and what a recipe makes of it, colour by colour. */
export function changeOf({ count, data }: OccupiedCells, recipe: Recipe): number {
  const changed = changedCells({ count, data }, recipe).data;
  let [sum, share] = [0, 0];
  for (let i = 0; i < count * 4; i += 4) {
    const moved = deltaE2000([data[i]!, data[i + 1]!, data[i + 2]!], [changed[i]!, changed[i + 1]!, changed[i + 2]!]);
    sum += data[i + 3]! * moved;
    share += data[i + 3]!;
  }
  return share > 0 ? sum / share : 0;
}

/**
 * By how much local contrast widens what a picture has at a scale: all that is smaller than either of its two, but for
 * edges, and the less the nearer a tone is to black or white.
 */
export const localGain =
  ({ localFine, localBroad }: Pick<Recipe, 'localFine' | 'localBroad'>) =>
  (mm: number, { sdL, byTone }: Pick<ContrastScale, 'sdL' | 'byTone'>): number => {
    const smaller = (scaleMm: number) => 1 / (1 + (mm / scaleMm) ** 2);
    const noEdge = EDGE_L ** 2 / (sdL ** 2 + EDGE_L ** 2);
    const middle = byTone
      ? byTone.reduce((sum, share, i) => {
          const t = (TONE_BOUNDS_L[i]! + TONE_BOUNDS_L[i + 1]!) / 200;
          return sum + share * 4 * t * (1 - t);
        }, 0)
      : 1;
    const given = localFine * smaller(LOCAL_SCALES_MM.localFine) + localBroad * smaller(LOCAL_SCALES_MM.localBroad);
    return 1 + given * noEdge * middle;
  };

/** A value between whole L*. */
function at(values: readonly number[], L: number): number {
  const low = Math.max(0, Math.min(values.length - 2, Math.floor(L)));
  return values[low]! + (values[low + 1]! - values[low]!) * (L - low);
}
