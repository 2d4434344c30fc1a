import { COATING_CLASSES, isMatt, type Surface } from '../../paper.ts';
import type { Hint } from '../../picture/hints.ts';
import type { PictureFigures } from '../../picture/tally.ts';
import type { Commission } from '../commission.ts';
import type { MatchFigures } from '../on-sheet.ts';
import type { SheetQualities } from '../sheet.ts';

/** What all sheets of a ranking are held against together. */
export interface Field {
  /** The cheapest price a square metre among them, where all that have one have it in one currency. */
  readonly cheapestPerM2?: number;
  /** Measurement conditions of the readings, where they are not all of one. */
  readonly conditions?: readonly string[];
}

/** All that a leaning may weigh. */
export interface Weighed {
  readonly picture: PictureFigures;
  /** What the picture is of, as confirmed or guessed. */
  readonly hints: readonly Hint[];
  readonly commission: Commission;
  /** Shorter side of the picture over its longer; absent where it is not known. */
  readonly aspect?: number;
  readonly sheet: SheetQualities;
  readonly match: MatchFigures;
  readonly field: Field;
}

/** A figure a reason rests on. */
export interface ReasonFigure {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  /** The sheet’s own figure that the cost is computed from: by it two sheets are compared. */
  readonly weighed?: boolean;
}

/** What a leaning says of a picture on a sheet. */
export interface Said {
  readonly speaks: 'for' | 'against' | 'neither';
  readonly sentence: string;
  readonly figures: readonly ReasonFigure[];
  /**
   * What it takes from the sheet, in the same coin for all: 1 is about what 1 ΔE00 over the whole picture takes. Below 0
   * where the sheet gives what no other has.
   */
  readonly cost: number;
}

/** One reason, as a sentence that holds its figures. */
export interface Reason extends Said {
  readonly leaning: string;
  /** What it costs at weight 1. */
  readonly unweighted: number;
}

/**
 * One leaning, declared: a question on which printmakers weigh differently. `judge` returns nothing where the leaning has nothing to
 * say of this picture on this sheet.
 */
export interface Leaning {
  readonly key: string;
  readonly name: string;
  /** What it holds, in a line; shown with its weight. */
  readonly holds: string;
  /** Who would weigh it otherwise. */
  readonly disagrees: string;
  /** Weight to begin with; 0 leaves it to those who hold it. */
  readonly weight: number;
  readonly judge: (w: Weighed) => Said | undefined;
}

/** A black that only matt sheets have, where nobody said what kind of sheet it is (our own bound). */
const MATT_BLACK_L = 11;
export const onMatt = ({ sheet, match }: Weighed): boolean =>
  sheet.coating === undefined ? match.blackL > MATT_BLACK_L : isMatt(sheet.coating);
/** What it is called: of a sheet nobody described only its black is known. */
export const kindWords = (w: Weighed): string =>
  w.sheet.coating === undefined
    ? `a sheet with the black of ${onMatt(w) ? 'a matt one' : 'one with sheen'}`
    : onMatt(w)
      ? 'a matt sheet'
      : 'a sheet with sheen';

/** Gloss units at 60° of a sheet that mirrors as much as sheets for pictures do (practice). */
const FULL_GLOSS = 60;
/** How much a sheet mirrors, 0–1: by its gloss, else by its kind; undefined where neither is known. */
export const shineOf = ({ gloss60, coating }: Weighed['sheet']): number | undefined =>
  gloss60 !== undefined ? Math.min(1, gloss60 / FULL_GLOSS) : coating && COATING_CLASSES[coating].sheen;

/** Sizes of an edition that is small, and that is as good as open (our own bounds). */
const SMALL_EDITION = 3;
const LARGE_EDITION = 500;
/** How open an edition is, by the logarithm of its number: 0 up to three, 1 from five hundred on and without a number. */
export const editionOpenness = (editionOf: number | undefined): number =>
  editionOf === undefined
    ? 1
    : Math.min(1, Math.max(0, Math.log(editionOf / SMALL_EDITION) / Math.log(LARGE_EDITION / SMALL_EDITION)));

/** Does a glass keep hands and tilting eyes from the sheet? */
export const behindGlass = ({ commission }: Weighed): boolean => commission.glass !== 'none';

export const ofGreys = ({ picture }: Weighed): boolean => picture.colour !== 'colour';

/** How rough a surface is to the eye, 0–1, where only the maker's word is known (our own estimates). */
const ROUGHNESS: Readonly<Record<Surface, number>> = {
  'ultra smooth': 0,
  smooth: 0.08,
  'fine tooth': 0.35,
  textured: 0.7,
  rough: 1,
};
/** Texture of a raking-light scan that is as rough as papers for pictures come, L* (our own bound). */
const FULL_TEXTURE_L = 6;
/** From here a texture is half as plain as held in the hand, mm (our own estimate). */
const HALF_SEEN_MM = 900;

/** How much of a sheet's texture is seen from where the print is looked at: 0 none, 1 rough and near. */
export function textureSeen({ sheet, commission }: Weighed): number {
  const rough =
    sheet.textureL !== undefined
      ? Math.min(1, sheet.textureL / FULL_TEXTURE_L)
      : sheet.surface
        ? ROUGHNESS[sheet.surface]
        : 0;
  const near = 1 / (1 + (commission.viewingMm / HALF_SEEN_MM) ** 2);
  return Math.min(1, rough * near * 1.4) * (commission.glass === 'none' ? 1 : 0.6);
}

/** Whether anything is known of a sheet's texture: measured, or as its maker calls it. */
export const textureKnown = ({ sheet }: Weighed): boolean =>
  sheet.textureL !== undefined || sheet.surface !== undefined;

/** The texture as a figure: measured where it was, else as the maker calls it. */
export const textureFigure = ({ sheet }: Weighed): ReasonFigure[] =>
  sheet.textureL === undefined ? [] : [{ name: 'texture', value: sheet.textureL, unit: 'L*', weighed: true }];
export const textureWords = ({ sheet }: Weighed): string =>
  sheet.textureL === undefined
    ? `its surface is called ${sheet.surface} by its maker`
    : `its texture is ${sheet.textureL.toFixed(1)} L* in a raking light`;
