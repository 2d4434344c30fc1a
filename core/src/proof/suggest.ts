import { isMatt, type CoatingClass } from '../paper.ts';
import { RECIPE_PARTS, type RecipeKey } from './recipe.ts';
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
  /** Absent where nobody said. */
  readonly coating?: CoatingClass;
  readonly lux: number;
  readonly viewingMm: number;
  readonly ppi: number;
  /** Grain or noise of the picture from pixel to pixel, L*. */
  readonly noiseL?: number;
  /** Texture of the sheet in a raking light, L*; absent where no scan was made. */
  readonly textureL?: number;
}

/**
 * An eye that settles on the paper makes up for most of a dim room; this share is left (our own estimate, after
 * Stevens’ law of brightness).
 */
const NOT_SETTLED = 0.15;
/** Two points of a minute of arc are told apart by a good eye (practice). */
const ARC_MINUTE = Math.PI / (180 * 60);
/** Ink spreads so far, mm (our own estimate). */
const SPREAD_MM = { gloss: 0.03, matt: 0.06 } as const;
const QUARTER = 0.25;
/** Grain that shows, and a texture that hides what is fine, L*. */
const GRAIN_L = 1.5;
const ROUGH_L = 3;

/** Luminance a white sheet has in a room, cd/m²: a matt white of 90 % at so many lux. */
const paperCdM2 = (lux: number): number => (0.9 * lux) / Math.PI;

/**
 * What the room, the size and the surface ask of a print, by practice; never applied unasked. Who calibrates and proofs in
 * the light of the room lifts nothing. What the picture asks is `bestRecipe`.
 */
export function suggest(asked: SuggestAsked): Suggestion[] {
  return [lift, sharpening].map((part) => part(asked)).filter((s) => s !== undefined);
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
