import { deltaE2000 } from '../colour/difference.ts';
import { colourWords } from '../colour/hue-names.ts';
import type { Lab } from '../colour/types.ts';
import type { OccupiedCells } from '../picture/cells.ts';
import type { ReadySheet } from './sheet.ts';

/** A family of colours that a sheet can't hold. */
export interface LostFamily {
  /** In a printmaker's words: "deep blues". */
  readonly name: string;
  /** Share of the picture, 0–1. */
  readonly share: number;
  /** Mean ΔE00 to the nearest colour of the sheet. */
  readonly meanDeltaE: number;
}

/** Raise it when a figure below is computed otherwise: figures kept under another version are computed anew. */
export const MATCH_VERSION = 2;

/**
 * What a sheet does to a picture, as it would be printed: relative to the paper's white, black laid on black (ISO 18619). Shares are 0–1 of
 * the picture. What is said of the picture uncompensated is called so.
 */
export interface MatchFigures {
  /** Share whose compensated colours the sheet can't hold. */
  readonly outsideShare: number;
  /** Mean and 95th percentile of ΔE00 from those to the sheet's nearest; 0 where none is outside. */
  readonly outsideMeanDeltaE: number;
  readonly outside95DeltaE: number;
  /** Uncompensated: the share darker than the sheet's black. */
  readonly darkerThanBlackShare: number;
  readonly lostFamilies: readonly LostFamily[];
  /** Share of the picture with L* below 25. */
  readonly shadowShare: number;
  /** How much of the steps between L* 0 and 25 is left when black is compensated, 0–1. */
  readonly shadowStepsKept: number;
  /** L* of the sheet's black relative to its white. */
  readonly blackL: number;
  /** Share of the picture with L* above 90. */
  readonly highlightShare: number;
  /** The paper's white as measured. */
  readonly whiteLab: Lab;
  /** Mean ΔE00 over the whole picture, between the picture and its print. */
  readonly meanDeltaE: number;
}

/** A colour this near to the surface counts as inside: the net of the surface is no finer. ΔE*ab. */
const SURFACE_TOLERANCE = 0.7;
const SHADOW_L = 25;
const HIGHLIGHT_L = 90;
const FAMILIES_NAMED = 3;

/** Lays every colour of a picture on a sheet. */
export function matchFigures(cells: OccupiedCells, sheet: ReadySheet): MatchFigures {
  const { gamut, compensate, relativeBlack } = sheet;
  const outside: { deltaE: number; share: number }[] = [];
  const families = new Map<string, { share: number; sum: number }>();
  let dark = 0;
  let shadows = 0;
  let highlights = 0;
  let errorSum = 0;
  let total = 0;
  for (let i = 0; i < cells.count; i++) {
    const lab: Lab = [cells.data[i * 4], cells.data[i * 4 + 1], cells.data[i * 4 + 2]];
    const share = cells.data[i * 4 + 3];
    total += share;
    if (lab[0] < SHADOW_L) shadows += share;
    if (lab[0] > HIGHLIGHT_L) highlights += share;
    if (lab[0] < relativeBlack[0]) dark += share;
    const wanted = compensate(lab);
    const printed = held(gamut, wanted);
    if (printed !== wanted) {
      const deltaE = deltaE2000(wanted, printed);
      outside.push({ deltaE, share });
      const name = colourWords(lab);
      const family = families.get(name) ?? { share: 0, sum: 0 };
      families.set(name, { share: family.share + share, sum: family.sum + share * deltaE });
    }
    errorSum += share * deltaE2000(lab, printed);
  }
  const outsideShare = outside.reduce((s, o) => s + o.share, 0);
  const compensated = [compensate([0, 0, 0])[0], compensate([SHADOW_L, 0, 0])[0]];
  return {
    outsideShare,
    outsideMeanDeltaE: outsideShare > 0 ? outside.reduce((s, o) => s + o.share * o.deltaE, 0) / outsideShare : 0,
    outside95DeltaE: weightedPercentile(outside, 0.95),
    darkerThanBlackShare: dark,
    lostFamilies: [...families]
      .map(([name, f]) => ({ name, share: f.share, meanDeltaE: f.sum / f.share }))
      .sort((p, q) => q.share * q.meanDeltaE - p.share * p.meanDeltaE)
      .slice(0, FAMILIES_NAMED),
    shadowShare: shadows,
    shadowStepsKept: (compensated[1] - compensated[0]) / SHADOW_L,
    blackL: relativeBlack[0],
    highlightShare: highlights,
    whiteLab: sheet.qualities.white,
    meanDeltaE: errorSum / total,
  };
}

/** The colour itself where the sheet holds it, else the nearest it holds. */
function held(gamut: ReadySheet['gamut'], lab: Lab): Lab {
  if (gamut.contains(lab)) return lab;
  const nearest = gamut.nearest(lab);
  return nearest.distance > SURFACE_TOLERANCE ? nearest.lab : lab;
}

function weightedPercentile(list: { deltaE: number; share: number }[], part: number): number {
  const sorted = [...list].sort((p, q) => p.deltaE - q.deltaE);
  const goal = part * sorted.reduce((s, o) => s + o.share, 0);
  let sum = 0;
  for (const o of sorted) if ((sum += o.share) >= goal) return o.deltaE;
  return 0;
}
