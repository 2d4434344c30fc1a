import { deltaE2000 } from '../colour/difference.ts';
import { onSheet, type MatchFigures } from '../match/on-sheet.ts';
import type { PictureColours } from '../match/palette.ts';
import type { ReadySheet } from '../match/ready-sheet.ts';
import type { OccupiedCells } from '../picture/cells.ts';
import type { Mark } from '../picture/marks.ts';
import { applyRecipe, toneOf, type Recipe } from './recipe.ts';

/** A picture for recipes to be tried on a sheet; where hundreds are tried, in few colours. */
export interface Tried {
  readonly picture: PictureColours;
  readonly marks: readonly Mark[];
  readonly ready: ReadySheet;
}

/**
 * What a sheet does to a picture that is printed by a recipe. Where a colour is out of gamut it is held against the
 * recipe’s; tones and chroma against the picture’s own: a step that the recipe widens and the sheet narrows is left as wide
 * as both leave it, and what the recipe makes paler is paler.
 */
export function recipeOnSheet({ picture, marks, ready }: Tried, recipe: Recipe): MatchFigures {
  const { colours, palette } = picture;
  const own = palette(colours, ready.nodes);
  const changed = palette(changedCells(colours, recipe), ready.nodes);
  const lab = new Float32Array(3);
  const changedMarks = marks.map((m): Mark => {
    lab.set(m.lab);
    applyRecipe(lab, recipe);
    return { ...m, lab: [lab[0]!, lab[1]!, lab[2]!] };
  });
  const coloured = onSheet({ ...changed, chromas: own.chromas, ab: own.ab, tone: own.tone }, changedMarks, ready);
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
    local: { localFine: recipe.localFine, localBroad: recipe.localBroad },
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

/** A value between whole L*. */
function at(values: readonly number[], L: number): number {
  const low = Math.max(0, Math.min(values.length - 2, Math.floor(L)));
  return values[low]! + (values[low + 1]! - values[low]!) * (L - low);
}
