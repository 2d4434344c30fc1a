import { placeOf } from '../characterisation/lab-axes.ts';
import { simplexOf } from '../characterisation/lattice.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { chroma, labToXyz, xyzToLab } from '../colour/lab.ts';
import { mapThree } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';
import type { LocalTurns } from '../picture/local-gain.ts';
import type { Mark, MarkKind } from '../picture/marks.ts';
import { TONE_BOUNDS_L, TONES } from '../picture/structure.ts';
import { SHADOW_L, STEP_L, type Palette } from './palette.ts';
import { HELD_DELTA_E, matchAim, surelyHeld, UNIT, type ReadySheet } from './ready-sheet.ts';

/** A family of colours that a sheet can't hold. */
export interface LostFamily {
  /** In a printmaker's words: "deep blues". */
  readonly name: string;
  /** Share of the picture, 0–1. */
  readonly share: number;
  /** Mean ΔE00 between what is aimed at and what comes out. */
  readonly meanDeltaE: number;
}

/** A family of colours that comes out paler than the file has it, whether a sheet's gamut or its black is the reason. */
export interface PaledFamily {
  readonly name: string;
  readonly share: number;
  /** Mean C* in the file, and as seen. */
  readonly fromC: number;
  readonly toC: number;
  /** Hue of its mean colour as seen, less its hue in the file, −180 to 180. */
  readonly hueTurnDeg: number;
}

/** The chroma of one tone of a picture, in the file and as seen. */
export interface ToneChroma {
  /** L* it reaches from and to. */
  readonly fromL: number;
  readonly toL: number;
  readonly share: number;
  readonly fromC: number;
  readonly toC: number;
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
  /** C* in the file, and as seen where it will hang. */
  readonly fromC: number;
  readonly toC: number;
  /** Hue as seen less hue in the file, −180 to 180; 0 for a colour without any. */
  readonly hueTurnDeg: number;
}

/** By how much the tones of a picture miss their aim. */
export interface ToneError {
  /** Mean of |ΔL*|, each tone by its share. */
  readonly meanL: number;
  /** The largest of those that at least a hundredth of the picture has, with its sign, and the L* of the file it stands at. */
  readonly worstL: number;
  readonly atL: number;
}

/** Raise it when a figure below is computed otherwise: figures kept under another version are computed anew. */
export const MATCH_VERSION = 11;

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
  /**
   * Share of the picture's chroma that is seen on it where it will hang, 0–1; 1 for a picture without any. Black that
   * is laid on a grey black takes chroma from the darks, though every colour is within reach.
   */
  readonly chromaKept: number;
  /** Mean over the picture of the chroma that black laid on black takes, as it is seen: ΔC* over CIE94's weight 1 + 0.045 C*. */
  readonly colourPaledDeltaE: number;
  readonly paledFamilies: readonly PaledFamily[];
  /** Tones of the picture that have chroma, the darkest first. */
  readonly chromaByTone: readonly ToneChroma[];
  /** Share of the picture with L* below 25. */
  readonly shadowShare: number;
  /**
   * How much of the steps below L* 25 is left where it will hang, 0–1: each tone by its share of the picture. Of a
   * picture without shadows what the sheet would leave of all of them.
   */
  readonly shadowStepsKept: number;
  /** L* that greys of L* 0, 2 … 24 of the file are seen with there, relative to the white. */
  readonly shadowWedge: readonly number[];
  /** Greatest C* of printed greys off the line from white to black, as they are sent for this print. */
  readonly greysDeviation: number;
  /** How much of the picture's steps of tone is left, each tone by its share. */
  readonly stepsKept: number;
  /** How much of a step of tone is left within each tone of `TONE_BOUNDS_L`, as seen where it will hang; 1: all. */
  readonly slopeByTone: readonly number[];
  /** Local contrast of the recipe it is printed by; absent without one. */
  readonly local?: LocalTurns;
  /** Mean ΔE00 between the picture and what the recipe makes of it; absent without one. */
  readonly recipeDeltaE?: number;
  /** Mean and largest distance of printed greys from their aim, L*, over the tones the picture has; above 0: too light. */
  readonly toneError: ToneError;
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

const FAMILIES_NAMED = 3;

/** ΔE00 is told to a hundredth where it is sorted, and no further than this. */
const [FINE, MOST_DELTA_E] = [100, 120];
/** Shares by distance while a picture is laid; all 0 from `sortedUpTo` on. */
const sorted = new Float64Array(FINE * MOST_DELTA_E);
let sortedUpTo = 0;

/**
 * Lays every colour of a picture on a sheet.
 * @param palette for lattices of as many nodes as the sheet has
 */
export function onSheet(palette: Palette, marks: readonly Mark[], sheet: ReadySheet): MatchFigures {
  if (palette.nodes !== sheet.nodes) throw new RangeError('The colours were made ready for a lattice of another size.');
  const { count, total, xyzs, shares, corners, weights, family, families, touched, touchedShares } = palette;
  const { losses, held, blackL } = sheet;
  const paled = palenessOf(palette, sheet);
  const aimAt = aimFromXyz(blackL);
  const toneKept = toneSlopes(sheet.greysL);

  sorted.fill(0, 0, sortedUpTo);
  sortedUpTo = 0;
  const lostShare = new Float64Array(families.length);
  const lostSum = new Float64Array(families.length);
  const dark = palette.below[Math.max(0, Math.min(palette.below.length - 1, Math.round(blackL / STEP_L)))]!;
  let errors = 0;
  for (let i = 0; i < touched.length; i++) errors += touchedShares[i]! * losses[touched[i]! * 4 + 3]!;
  for (let i = 0, k = 0; i < count; i++, k += 4) {
    if (held[corners[k]!] === 1) continue;
    const n0 = corners[k]! * 4;
    const n1 = corners[k + 1]! * 4;
    const n2 = corners[k + 2]! * 4;
    const n3 = corners[k + 3]! * 4;
    const w0 = weights[k]!;
    const w1 = weights[k + 1]!;
    const w2 = weights[k + 2]!;
    const w3 = weights[k + 3]!;
    const dL = (w0 * losses[n0]! + w1 * losses[n1]! + w2 * losses[n2]! + w3 * losses[n3]!) / UNIT;
    const da = (w0 * losses[n0 + 1]! + w1 * losses[n1 + 1]! + w2 * losses[n2 + 1]! + w3 * losses[n3 + 1]!) / UNIT;
    const db = (w0 * losses[n0 + 2]! + w1 * losses[n1 + 2]! + w2 * losses[n2 + 2]! + w3 * losses[n3 + 2]!) / UNIT;
    if (surelyHeld(dL, da, db)) continue;
    const aim = aimAt(xyzs[i * 3]!, xyzs[i * 3 + 1]!, xyzs[i * 3 + 2]!);
    const off = deltaE2000(aim, [aim[0] + dL, aim[1] + da, aim[2] + db]);
    if (off <= HELD_DELTA_E) continue;
    const share = shares[i]!;
    const bin = Math.min(sorted.length - 1, Math.round(off * FINE));
    sorted[bin]! += share;
    if (bin >= sortedUpTo) sortedUpTo = bin + 1;
    lostShare[family[i]!]! += share;
    lostSum[family[i]!]! += share * off;
  }
  const outsideShare = Math.min(1, sum(lostShare));
  const lost = sum(lostSum);
  return {
    outsideShare,
    outsideMeanDeltaE: outsideShare > 0 ? lost / outsideShare : 0,
    outside95DeltaE: percentile(sorted, sortedUpTo, 0.95 * outsideShare),
    colourLostDeltaE: lost / total,
    darkerThanBlackShare: dark,
    lostFamilies: families
      .map((name, f) => ({ name, share: lostShare[f]!, meanDeltaE: lostSum[f]! / lostShare[f]! }))
      .filter((f) => f.share > 0)
      .sort((p, q) => q.share * q.meanDeltaE - p.share * p.meanDeltaE)
      .slice(0, FAMILIES_NAMED),
    ...paled,
    shadowShare: palette.shadowShare,
    shadowStepsKept: shadowStepsKept(palette.tones, sheet.greysL),
    shadowWedge: WEDGE_L.map((L) => sheet.greysL[L]!),
    greysDeviation: sheet.greysDeviation,
    stepsKept: palette.tones.reduce((kept, share, tone) => kept + share * toneKept(tone), 0) / total,
    slopeByTone: slopesByTone(sheet.greysL),
    toneError: toneErrorOf(palette.tones, sheet.greysOff),
    blackL: sheet.seenBlackL,
    contrastRatio: 100 / Math.max(0.01, labToXyz([sheet.seenBlackL, 0, 0])[1]),
    highlightShare: palette.highlightShare,
    whiteLab: sheet.white,
    whiteSeen: sheet.seenWhite,
    meanDeltaE: errors / UNIT / total,
    marks: marks.map(({ kind, x, y, lab }) => {
      const aim = matchAim(blackL)(lab);
      const printed = addLosses(sheet, lab, aim);
      const [fromC, [a, b]] = [chroma(lab), seenAbOf(sheet, lab)];
      return {
        kind,
        x,
        y,
        printed,
        deltaE: deltaE2000(aim, printed),
        stepsKept: toneKept(lab[0]),
        fromC,
        toC: Math.hypot(a, b),
        hueTurnDeg: fromC < NO_CHROMA ? 0 : hueTurn([lab[1], lab[2]], [a, b]),
      };
    }),
  };
}

/** A picture of less mean C* has no chroma to keep. */
const NO_CHROMA = 0.5;
/** Chroma that is lost by less is no paling, ΔC*. */
const PALED_C = 1;

/** Sums over the colours of a family, or of a tone. */
interface ChromaSum {
  share: number;
  from: number;
  to: number;
  /** a* and b*, in the file and as seen. */
  readonly own: [a: number, b: number];
  readonly seen: [a: number, b: number];
}
const noChroma = (): ChromaSum => ({ share: 0, from: 0, to: 0, own: [0, 0], seen: [0, 0] });

/** How much paler a picture is seen than its file has it, and how its hues turn: colour by colour, between the nodes about each. */
function palenessOf(
  { count, total, shares, chromas, ab, tone, corners, weights, family, families }: Palette,
  { seenAb, chromasAimed }: ReadySheet,
): Pick<MatchFigures, 'chromaKept' | 'colourPaledDeltaE' | 'paledFamilies' | 'chromaByTone'> {
  let [from, to, paled] = [0, 0, 0];
  const sums = families.map(noChroma);
  const byTone = Array.from({ length: TONES }, noChroma);
  for (let i = 0, k = 0; i < count; i++, k += 4) {
    let [a, b, aimed] = [0, 0, 0];
    for (let c = k; c < k + 4; c++) {
      const n = corners[c]!;
      a += weights[c]! * seenAb[n * 2]!;
      b += weights[c]! * seenAb[n * 2 + 1]!;
      aimed += weights[c]! * chromasAimed[n]!;
    }
    const [C, share] = [chromas[i]!, shares[i]!];
    const left = Math.min(C, Math.sqrt(a * a + b * b) / UNIT);
    from += share * C;
    to += share * left;
    paled += (share * Math.max(0, C - aimed / UNIT)) / (1 + 0.045 * C);
    const tones = byTone[tone[i]!]!;
    tones.share += share;
    tones.from += share * C;
    tones.to += share * left;
    const sum = sums[family[i]!]!;
    sum.share += share;
    sum.from += share * C;
    sum.to += share * left;
    sum.own[0] += share * ab[i * 2]!;
    sum.own[1] += share * ab[i * 2 + 1]!;
    sum.seen[0] += share * a;
    sum.seen[1] += share * b;
  }
  return {
    chromaKept: from / total < NO_CHROMA ? 1 : to / from,
    colourPaledDeltaE: paled / total,
    paledFamilies: families
      .map((name, f) => ({ name, ...sums[f]! }))
      .filter((f) => f.from - f.to > PALED_C * f.share)
      .sort((p, q) => q.from - q.to - (p.from - p.to))
      .slice(0, FAMILIES_NAMED)
      .map(({ name, share, from: a, to: b, own, seen }) => ({
        name,
        share,
        fromC: a / share,
        toC: b / share,
        hueTurnDeg: hueTurn(own, seen),
      })),
    chromaByTone: byTone.flatMap(({ share, from: a, to: b }, t) =>
      share > 0 && a / share >= NO_CHROMA
        ? [{ fromL: TONE_BOUNDS_L[t]!, toL: TONE_BOUNDS_L[t + 1]!, share, fromC: a / share, toC: b / share }]
        : [],
    ),
  };
}

/** Angle from one hue to another, degrees, −180 to 180. */
function hueTurn(from: readonly [number, number], to: readonly [number, number]): number {
  const turn = ((Math.atan2(to[1], to[0]) - Math.atan2(from[1], from[0])) * 180) / Math.PI;
  return turn > 180 ? turn - 360 : turn < -180 ? turn + 360 : turn;
}

/** a* and b* of a colour of the file as they are seen. */
function seenAbOf({ nodes, seenAb }: ReadySheet, lab: Lab): [number, number] {
  const corners = new Int32Array(4);
  const weights = new Float32Array(4);
  simplexOf(3, nodes, placeOf(lab), corners, weights, 0);
  const mean = (c: 0 | 1) => corners.reduce((s, n, i) => s + weights[i]! * seenAb[n * 2 + c]!, 0) / UNIT;
  return [mean(0), mean(1)];
}

/** The aim of `matchAim`, for colours whose XYZ is known: white is kept, the file's black becomes the sheet's. */
function aimFromXyz(blackL: number): (x: number, y: number, z: number) => Lab {
  const black = labToXyz([blackL, 0, 0]);
  const part = 1 - black[1] / 100;
  return (x, y, z) => xyzToLab([part * x + black[0], part * y + black[1], part * z + black[2]]);
}

/** A colour as printed: its aim, and how far from it the sheet comes. */
function addLosses({ nodes, losses }: ReadySheet, lab: Lab, aim: Lab): Lab {
  const corners = new Int32Array(4);
  const weights = new Float32Array(4);
  simplexOf(3, nodes, placeOf(lab), corners, weights, 0);
  return mapThree(aim, (v, c) => v + corners.reduce((s, n, i) => s + weights[i]! * losses[n * 4 + c]!, 0) / UNIT);
}

/** How much of a step of tone is left at each L*: the slope of the greys as seen, 1 where it is whole. */
const toneSlopes =
  (greysL: readonly number[]) =>
  (at: number): number => {
    const low = Math.max(0, Math.min(98, Math.round(at) - 1));
    return Math.min(1, Math.max(0, (greysL[low + 2]! - greysL[low]!) / 2));
  };

/** The slope of the greys as seen, over each tone from bound to bound: no steeper than 1. */
const slopesByTone = (greysL: readonly number[]): number[] =>
  Array.from({ length: TONES }, (_, i) => {
    const [from, to] = [TONE_BOUNDS_L[i]!, TONE_BOUNDS_L[i + 1]!];
    return Math.min(1, Math.max(0, (greysL[to]! - greysL[from]!) / (to - from)));
  });

/** A tone of less is not said to be the worst: nobody looks for it. */
const TONE_SHARE = 0.01;

/** Tones are counted to one L*; a tone is looked at together with the neighbours it may have been rounded from. */
function toneErrorOf(tones: Float64Array, greysOff: readonly number[]): ToneError {
  let [sum, share, worstL, atL] = [0, 0, 0, 0];
  tones.forEach((s, L) => {
    sum += s * Math.abs(greysOff[L]!);
    share += s;
    const near = s + (tones[L - 1] ?? 0) + (tones[L + 1] ?? 0);
    if (near >= TONE_SHARE && Math.abs(greysOff[L]!) > Math.abs(worstL)) [worstL, atL] = [greysOff[L]!, L];
  });
  return { meanL: share > 0 ? sum / share : 0, worstL, atL };
}

/** Steps of the wedge that shows a sheet's shadows, L* of the file. */
export const WEDGE_L: readonly number[] = Array.from({ length: 13 }, (_, i) => 2 * i);

function shadowStepsKept(tones: Float64Array, greysL: readonly number[]): number {
  const kept = toneSlopes(greysL);
  let [sum, share] = [0, 0];
  for (let tone = 0; tone < SHADOW_L; tone++) {
    sum += tones[tone]! * kept(tone);
    share += tones[tone]!;
  }
  if (share > 0) return sum / share;
  return Math.min(1, Math.max(0, (greysL[SHADOW_L]! - greysL[0]!) / SHADOW_L));
}

const sum = (list: Float64Array): number => list.reduce((s, v) => s + v, 0);

/** The ΔE00 up to which so much of a picture lies. @param sorted shares by hundredths of ΔE00 */
function percentile(sorted: Float64Array, upTo: number, share: number): number {
  let reached = 0;
  for (let i = 0; i < upTo; i++) if (sorted[i]! > 0 && (reached += sorted[i]!) >= share) return i / FINE;
  return 0;
}
