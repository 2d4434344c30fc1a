import { compensated } from '../characterisation/renderings.ts';
import { throughPrinted } from '../characterisation/printed.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { colourWords } from '../colour/hue-names.ts';
import { labToXyz } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import type { OccupiedCells } from '../picture/cells.ts';
import type { Mark, MarkKind } from '../picture/marks.ts';
import type { LaidSheet, PrintedSheet } from './sheet.ts';

/** A family of colours that a sheet can't hold. */
export interface LostFamily {
  /** In a printmaker's words: "deep blues". */
  readonly name: string;
  /** Share of the picture, 0–1. */
  readonly share: number;
  /** Mean ΔE00 between what is aimed at and what comes out. */
  readonly meanDeltaE: number;
}

/** What becomes of a marked place. */
export interface MarkOnSheet {
  readonly kind: MarkKind;
  readonly x: number;
  readonly y: number;
  /** As printed, relative to the sheet's white. */
  readonly printed: Lab;
  /** ΔE00 from what is aimed at. */
  readonly deltaE: number;
  /** How much of its steps of tone is left, where it will hang; 1: all. */
  readonly stepsKept: number;
}

/** Raise it when a figure below is computed otherwise: figures kept under another version are computed anew. */
export const MATCH_VERSION = 4;

/**
 * What a sheet does to a picture, as it would be printed: relative to the paper's white, black laid on black (ISO 18619). Shares are 0–1 of
 * the picture. Colours are judged as an instrument reads them; tones where the picture will hang.
 */
export interface MatchFigures {
  /** Share that comes out more than 1 ΔE00 from its aim. */
  readonly outsideShare: number;
  /** Mean and 95th percentile of ΔE00 of those; 0 where none is outside. */
  readonly outsideMeanDeltaE: number;
  readonly outside95DeltaE: number;
  /** Mean ΔE00 from the aim over the whole picture: colour lost, tone compression not counted. */
  readonly colourLostDeltaE: number;
  /** Uncompensated: the share darker than the sheet's black. */
  readonly darkerThanBlackShare: number;
  readonly lostFamilies: readonly LostFamily[];
  /** Share of the picture with L* below 25. */
  readonly shadowShare: number;
  /** How much of the steps between L* 0 and 25 is left, seen where it will hang, 0–1. */
  readonly shadowStepsKept: number;
  /** How much of the picture's steps of tone is left, each tone by its share. */
  readonly stepsKept: number;
  /** L* of the sheet's black relative to its white, as seen where it will hang. */
  readonly blackL: number;
  /** Luminance of white over black, as seen where it will hang. */
  readonly contrastRatio: number;
  /** Share of the picture with L* above 90. */
  readonly highlightShare: number;
  /** The paper's white as measured, and as seen. */
  readonly whiteLab: Lab;
  readonly whiteSeen: Lab;
  /** Mean ΔE00 over the whole picture, between the picture and its print. */
  readonly meanDeltaE: number;
  readonly marks: readonly MarkOnSheet[];
}

/** A colour that comes out nearer than this to its aim is held (one step an eye may see side by side; practice). */
export const HELD_DELTA_E = 1;
const SHADOW_L = 25;
const HIGHLIGHT_L = 90;
const FAMILIES_NAMED = 3;

/** Lays every colour of a picture on a sheet. */
export function onSheet(
  { count, data }: OccupiedCells,
  marks: readonly Mark[],
  { bare, seen }: LaidSheet,
): MatchFigures {
  const aimAt = compensated(0, bare.blackL);
  const labs = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) for (let c = 0; c < 3; c++) labs[i * 3 + c] = data[i * 4 + c];
  const out = new Float32Array(count * 3);
  throughPrinted(bare.lattice, labs, out);
  const toneKept = toneSlopes(seen);

  const outside: { deltaE: number; share: number }[] = [];
  const families = new Map<string, { share: number; sum: number }>();
  let [dark, shadows, highlights, errorSum, lostSum, keptSum, total] = [0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    const lab: Lab = [labs[i * 3], labs[i * 3 + 1], labs[i * 3 + 2]];
    const printed: Lab = [out[i * 3], out[i * 3 + 1], out[i * 3 + 2]];
    const share = data[i * 4 + 3];
    total += share;
    if (lab[0] < SHADOW_L) shadows += share;
    if (lab[0] > HIGHLIGHT_L) highlights += share;
    if (lab[0] < bare.blackL) dark += share;
    const off = deltaE2000(aimAt(lab), printed);
    if (off > HELD_DELTA_E) {
      outside.push({ deltaE: off, share });
      const name = colourWords(lab);
      const family = families.get(name) ?? { share: 0, sum: 0 };
      families.set(name, { share: family.share + share, sum: family.sum + share * off });
      lostSum += share * off;
    }
    errorSum += share * deltaE2000(lab, printed);
    keptSum += share * toneKept(lab[0]);
  }
  const outsideShare = Math.min(
    1,
    outside.reduce((s, o) => s + o.share, 0),
  );
  const greys = tones(seen, [0, SHADOW_L]);
  return {
    outsideShare,
    outsideMeanDeltaE: outsideShare > 0 ? lostSum / outsideShare : 0,
    outside95DeltaE: weightedPercentile(outside, 0.95),
    colourLostDeltaE: lostSum / total,
    darkerThanBlackShare: dark,
    lostFamilies: [...families]
      .map(([name, f]) => ({ name, share: f.share, meanDeltaE: f.sum / f.share }))
      .sort((p, q) => q.share * q.meanDeltaE - p.share * p.meanDeltaE)
      .slice(0, FAMILIES_NAMED),
    shadowShare: shadows,
    shadowStepsKept: Math.min(1, Math.max(0, (greys[1] - greys[0]) / SHADOW_L)),
    stepsKept: keptSum / total,
    blackL: seen.blackL,
    contrastRatio: 100 / Math.max(0.01, labToXyz([seen.blackL, 0, 0])[1]),
    highlightShare: highlights,
    whiteLab: bare.white,
    whiteSeen: seen.white,
    meanDeltaE: errorSum / total,
    marks: marks.map((mark) => {
      const [printed] = colours(bare, [mark.lab]);
      return {
        kind: mark.kind,
        x: mark.x,
        y: mark.y,
        printed,
        deltaE: deltaE2000(aimAt(mark.lab), printed),
        stepsKept: toneKept(mark.lab[0]),
      };
    }),
  };
}

function colours({ lattice }: PrintedSheet, labs: readonly Lab[]): Lab[] {
  const out = new Float32Array(labs.length * 3);
  throughPrinted(lattice, labs.flat(), out);
  return labs.map((_, i) => [out[i * 3], out[i * 3 + 1], out[i * 3 + 2]]);
}

/** L* that greys come out with. */
const tones = (sheet: PrintedSheet, L: readonly number[]): number[] =>
  colours(
    sheet,
    L.map((v): Lab => [v, 0, 0]),
  ).map((lab) => lab[0]);

/** How much of a step of tone is left at each L*: the slope of the printed greys, 1 where it is whole. */
function toneSlopes(sheet: PrintedSheet): (L: number) => number {
  const L = Array.from({ length: 101 }, (_, i) => i);
  const printed = tones(sheet, L);
  return (at) => {
    const low = Math.max(0, Math.min(98, Math.round(at) - 1));
    return Math.min(1, Math.max(0, (printed[low + 2] - printed[low]) / 2));
  };
}

function weightedPercentile(list: { deltaE: number; share: number }[], part: number): number {
  const sorted = [...list].sort((p, q) => p.deltaE - q.deltaE);
  const goal = part * sorted.reduce((s, o) => s + o.share, 0);
  let sum = 0;
  for (const o of sorted) if ((sum += o.share) >= goal) return o.deltaE;
  return 0;
}
