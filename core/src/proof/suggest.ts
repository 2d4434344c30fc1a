import { throughPrinted } from '../characterisation/printed.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { compensated } from '../characterisation/renderings.ts';
import type { Lab } from '../colour/types.ts';
import type { PictureStructure } from '../picture/structure.ts';
import type { PrintedSheet } from '../match/sheet.ts';
import { isMatt, type CoatingClass } from '../paper.ts';
import { LOCAL_SCALES_MM } from './local-contrast.ts';
import { applyRecipe, PLAIN, RECIPE_PARTS, type Recipe, type RecipeKey } from './recipe.ts';
import { SCREEN_CD_M2 } from './room-level.ts';

/** A part of a recipe that is suggested, with its reason and figures. */
export interface Suggestion {
  readonly key: RecipeKey;
  readonly value: number;
  readonly sentence: string;
  /** Goes with it: the radius of sharpening. */
  readonly radiusMm?: number;
}

export interface SuggestAsked {
  /** L*, a*, b*, share of each colour of the picture. */
  readonly cells: Float32Array;
  /** The sheet as read, relative to its white. */
  readonly bare: PrintedSheet;
  /** Absent where nobody said. */
  readonly coating?: CoatingClass;
  readonly lux: number;
  readonly viewingMm: number;
  readonly ppi: number;
  /** Grain or noise of the picture from pixel to pixel, L*. */
  readonly noiseL?: number;
  /** Contrast of the picture by scale, as it was read. */
  readonly scales?: PictureStructure['scales'];
  readonly longSideMm?: number;
  /** Texture of the sheet in a raking light, L*; absent where no scan was made. */
  readonly textureL?: number;
}

/**
 * An eye that settles on the paper makes up for most of a dim room; this share is left (our own estimate, after
 * Stevens’ law of brightness).
 */
const NOT_SETTLED = 0.15;
/** ΔE00 from which a colour counts as out of reach; shares of the picture that a printmaker lets go. */
const OUT = 3;
const LET_GO = 0.01;
/** Two points of a minute of arc are told apart by a good eye (practice). */
const ARC_MINUTE = Math.PI / (180 * 60);
/** Ink spreads so far, mm (our own estimate). */
const SPREAD_MM = { gloss: 0.03, matt: 0.06 } as const;
const QUARTER = 0.25;
/** Steps between L* 3 and 20, of which the sheet leaves so few that they are opened. */
const SHADOW = { from: 3, to: 20, kept: 0.75 } as const;

/**
 * A sheet that keeps less of every step of tone flattens a picture; contrast below `leastL` is not missed; no more
 * than `most` is offered.
 */
const FLAT = { kept: 0.85, leastL: 1, most: 0.4 } as const;
/** Grain that shows, and a texture that hides what is fine, L*. */
const GRAIN_L = 1.5;
const ROUGH_L = 3;

/** Luminance a white sheet has in a room, cd/m²: a matt white of 90 % at so many lux. */
const paperCdM2 = (lux: number): number => (0.9 * lux) / Math.PI;

/**
 * What could be done for a print of this picture on this sheet in this room; never applied unasked, and a school that
 * lifts nothing is as well served by calibrating and proofing in a proper light.
 */
export function suggest(asked: SuggestAsked): Suggestion[] {
  return [lift, shadows, localBroad, localFine, saturation, sharpening]
    .map((part) => part(asked))
    .filter((s) => s !== undefined);
}

function lift({ lux }: SuggestAsked): Suggestion | undefined {
  const white = paperCdM2(lux);
  const stops = Math.log2(SCREEN_CD_M2 / white) * NOT_SETTLED;
  const value = Math.min(0.75, Math.round(stops / QUARTER) * QUARTER);
  if (value <= 0) return undefined;
  return {
    key: 'liftStops',
    value,
    sentence: `At ${Math.round(lux)} lx white paper has ${Math.round(white)} cd/m², a calibrated screen some ${SCREEN_CD_M2} (practice): ${RECIPE_PARTS.liftStops.written(value)} brings the middle tones nearer. Whoever proofs in that light lifts nothing.`,
  };
}

/** How much of the steps of neutral shadow a sheet leaves, 0–1, for a recipe. */
function stepsKept(sheet: PrintedSheet, recipe: Recipe): number {
  const { from, to } = SHADOW;
  const labs = Float32Array.from([from, 0, 0, to, 0, 0]);
  applyRecipe(labs, recipe);
  throughPrinted(sheet.lattice, labs, labs);
  return Math.max(0, labs[3]! - labs[0]!) / (to - from);
}

function shadows({ cells, bare }: SuggestAsked): Suggestion | undefined {
  let share = 0;
  for (let i = 0; i < cells.length; i += 4) if (cells[i]! < SHADOW.to) share += cells[i + 3]!;
  const kept = stepsKept(bare, PLAIN);
  if (share < 0.02 || kept >= SHADOW.kept) return undefined;
  const { step, most, written } = RECIPE_PARTS.shadows;
  let value = 0;
  while (value < most && stepsKept(bare, { ...PLAIN, shadows: value }) < SHADOW.kept) value += step;
  value = Number(Math.min(most, value).toFixed(2));
  const after = stepsKept(bare, { ...PLAIN, shadows: value });
  return {
    key: 'shadows',
    value,
    sentence: `${(share * 100).toFixed(0)} % of the picture lies below L* ${SHADOW.to}, and the sheet leaves ${(kept * 100).toFixed(0)} % of its steps there; ${written(value)} leaves ${(after * 100).toFixed(0)} %. From L* 35 on nothing moves.`,
  };
}

/** Share of the picture out of the sheet’s reach, for a saturation. */
function outShare({ cells, bare }: SuggestAsked, value: number): number {
  const n = cells.length / 4;
  const aims = new Float32Array(n * 3);
  for (let i = 0; i < n; i++) aims.set(cells.subarray(i * 4, i * 4 + 3), i * 3);
  applyRecipe(aims, { ...PLAIN, saturation: value });
  const out = new Float32Array(aims.length);
  throughPrinted(bare.lattice, aims, out);
  const aim = compensated(0, bare.blackL);
  let share = 0;
  for (let i = 0; i < n; i++) {
    const wanted = aim([aims[i * 3]!, aims[i * 3 + 1]!, aims[i * 3 + 2]!]);
    const got: Lab = [out[i * 3]!, out[i * 3 + 1]!, out[i * 3 + 2]!];
    if (deltaE2000(wanted, got) > OUT) share += cells[i * 4 + 3]!;
  }
  return share;
}

function saturation(asked: SuggestAsked): Suggestion | undefined {
  const { step, written } = RECIPE_PARTS.saturation;
  const now = outShare(asked, 0);
  if (now <= LET_GO) return undefined;
  let value = 0;
  while (value > -0.3 && outShare(asked, value) > LET_GO) value -= step;
  value = Number(value.toFixed(2));
  const after = outShare(asked, value);
  // Paling all of a picture for what can’t be helped serves nobody.
  if (after > now / 2) return undefined;
  return {
    key: 'saturation',
    value,
    sentence: `${(now * 100).toFixed(1)} % of the picture is more than ${OUT} ΔE00 out of reach and runs together there; ${written(value)} leaves ${(after * 100).toFixed(1)} %, and pales the rest as much.`,
  };
}

/** Contrast of a picture at a scale on paper, L*: of the octave nearest to it. */
function contrastAt({ scales = [], longSideMm = 0 }: SuggestAsked, mm: number): number | undefined {
  const off = ({ size }: { size: number }) => Math.abs(Math.log((size * longSideMm) / mm));
  return scales.length > 0 && longSideMm > 0
    ? scales.reduce((near, s) => (off(s) < off(near) ? s : near)).sdL
    : undefined;
}

function localBroad(asked: SuggestAsked): Suggestion | undefined {
  const kept = 1 - asked.bare.blackL / 100;
  const sdL = contrastAt(asked, LOCAL_SCALES_MM.localBroad);
  if (kept > FLAT.kept || sdL === undefined || sdL < FLAT.leastL) return undefined;
  const { step, written } = RECIPE_PARTS.localBroad;
  const value = Number(Math.min(FLAT.most, Math.round((1 / kept - 1) / step) * step).toFixed(2));
  return {
    key: 'localBroad',
    value,
    sentence: `Its black of L* ${asked.bare.blackL.toFixed(0)} under a white of 100 leaves ${(kept * 100).toFixed(0)} % of every step of tone; the picture has ${sdL.toFixed(1)} L* of contrast at that size, and ${written(value)} gives about as much back where it is seen, without moving the whole.`,
  };
}

function localFine({ coating }: SuggestAsked): Suggestion | undefined {
  if (coating !== 'metallic') return undefined;
  const value = 0.2;
  return {
    key: 'localFine',
    value,
    sentence: `Metallic sheets live by sharp local contrast (practice): ${RECIPE_PARTS.localFine.written(value)}. How far is judged on a strip.`,
  };
}

/** By how much sharpening changes for what lies in the picture and in the sheet, and why (our own estimates). */
function grainAndTexture({ noiseL = 0, textureL = 0 }: SuggestAsked): { by: number; words: string } {
  const grainy = noiseL >= GRAIN_L;
  const rough = textureL >= ROUGH_L;
  const words = [
    grainy ? `a grain of ${noiseL.toFixed(1)} L* would be sharpened with it, so a quarter less` : undefined,
    rough ? `a texture of ${textureL.toFixed(1)} L* takes from what is fine, so a quarter more` : undefined,
  ].filter((w) => w !== undefined);
  const by = (grainy ? -QUARTER : 0) + (rough ? QUARTER : 0);
  return { by, words: words.map((w) => ` And ${w} (our own estimate).`).join('') };
}

const kindOf = (coating: CoatingClass | undefined): string =>
  coating === undefined ? 'sheet whose coating is not known, taken for a coated' : isMatt(coating) ? 'matt' : 'coated';

function sharpening(asked: SuggestAsked): Suggestion {
  const { coating, viewingMm, ppi } = asked;
  // Where the kind of sheet is not known the gentler hand is suggested: less is added to than taken back.
  const matt = coating !== undefined && isMatt(coating);
  const spread = matt ? SPREAD_MM.matt : SPREAD_MM.gloss;
  const seen = viewingMm * Math.tan(ARC_MINUTE);
  const radiusMm = Number(Math.max(spread, seen, 25.4 / ppi).toFixed(3));
  const { by, words } = grainAndTexture(asked);
  const value = (matt ? 1 : coating === 'metallic' ? 0.75 : 0.5) + by;
  return {
    key: 'sharpening',
    value,
    radiusMm,
    sentence: `At ${Math.round(viewingMm)} mm an eye parts ${seen.toFixed(2)} mm, ink spreads some ${spread.toFixed(2)} mm on a ${kindOf(coating)} sheet (our own estimate): a radius of ${radiusMm.toFixed(2)} mm, ${((radiusMm * ppi) / 25.4).toFixed(1)} px at ${Math.round(ppi)} ppi; more on matt than on gloss (practice).${words}`,
  };
}
