import { nest, type NestedSheet, type Piece } from '../layout/nest.ts';
import { MARK_MM } from '../scan/corner-marks.ts';
import type { SheetMarks } from '../scan/sheet-in-scan.ts';
import { RECIPE_PARTS, type Recipe, type RecipeKey } from './recipe.ts';

/** A place of the picture that is printed in steps: where its middle lies, 0–1 of the picture. */
export interface StripPlace {
  readonly name: string;
  readonly x: number;
  readonly y: number;
}

export interface StripsAsked {
  readonly places: readonly StripPlace[];
  /** Which part of the recipe climbs, and to which values. */
  readonly ladder: { readonly key: RecipeKey; readonly values: readonly number[] };
  /** The recipe the ladder stands on. */
  readonly recipe: Recipe;
  /** Crop of a place, at the scale of the print, mm. */
  readonly cropMm: { readonly width: number; readonly height: number };
  /** The print they are crops of. */
  readonly printMm: { readonly width: number; readonly height: number };
  readonly sheet: SmallSheet;
}

/** A small sheet, and how much of every edge the printer can’t print on; the usual edge where absent. */
export interface SmallSheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly edgeMm?: number;
}

/** A crop of a strip: which part of the print, with which recipe, and what is written under it. */
export interface StripCrop {
  /** Of the print, mm from its top left. */
  readonly fromMm: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly recipe: Recipe;
  readonly words: string;
  /** From the left of its strip, mm. */
  readonly atMm: number;
}

/** All steps of one place, side by side. */
export interface Strip extends Piece {
  readonly crops: readonly StripCrop[];
}

/** Under the crops, for what is written there, mm. */
export const CAPTION_MM = 6;
/** Between strips, for the knife (our own choice). */
export const GAP_MM = 4;
/** Along the right and the foot of a small sheet, for its marks, mm. */
export const MARK_BAND_MM = MARK_MM + 2;
/** Unprintable margin of a small sheet where nothing else is said (practice). */
export const EDGE_MM = 5;
export const edgeOf = ({ edgeMm = EDGE_MM }: SmallSheet): number => edgeMm;

/** Crops that lie within the print, whatever place was marked. */
function cropAt({ x, y }: StripPlace, { cropMm, printMm }: StripsAsked): StripCrop['fromMm'] {
  const width = Math.min(cropMm.width, printMm.width);
  const height = Math.min(cropMm.height, printMm.height);
  const within = (middle: number, size: number, whole: number) =>
    Math.min(whole - size, Math.max(0, middle - size / 2));
  return {
    x: within(x * printMm.width, width, printMm.width),
    y: within(y * printMm.height, height, printMm.height),
    width,
    height,
  };
}

/** Strips of every place on as few small sheets as hold them; what is too wide for one is said to find no room. */
export function planStrips(asked: StripsAsked): { sheets: readonly NestedSheet<Strip>[]; lacking: readonly Strip[] } {
  const { places, ladder, recipe, sheet } = asked;
  const strips = places.map((place, i): Strip => {
    const fromMm = cropAt(place, asked);
    return {
      key: `${i}`,
      name: place.name,
      mayTurn: false,
      widthMm: fromMm.width * ladder.values.length,
      heightMm: fromMm.height + CAPTION_MM,
      crops: ladder.values.map((value, step): StripCrop => ({
        fromMm,
        recipe: { ...recipe, [ladder.key]: value },
        words: `${i + 1}  ${RECIPE_PARTS[ladder.key].name.toLowerCase()} ${RECIPE_PARTS[ladder.key].written(value)}`,
        atMm: step * fromMm.width,
      })),
    };
  });
  const within = (sideMm: number) => sideMm - 2 * edgeOf(sheet) - MARK_BAND_MM;
  const [widthMm, heightMm] = [within(sheet.widthMm), within(sheet.heightMm)];
  return nest({ kind: 'sheet', widthMm, heightMm }, strips, { gapMm: GAP_MM });
}

/** Where the marks of a small sheet stand, by which a scan of it is laid over it: middle of each, mm. */
export function stripMarks(sheet: SmallSheet): SheetMarks {
  const { widthMm, heightMm } = sheet;
  const near = edgeOf(sheet) + MARK_MM / 2;
  return {
    topRight: { x: widthMm - near, y: near },
    bottomLeft: { x: near, y: heightMm - near },
    bottomRight: { x: widthMm - near, y: heightMm - near },
  };
}
