import { RENDERING_NAMES, type RenderingKey } from '../characterisation/renderings.ts';
import { labRoot } from '../colour/lab.ts';
import { BORDER_STYLES, type BorderStyle } from '../layout/borders.ts';

/** What is done to a picture for its print, beside it and never in it. */
export interface Recipe {
  /** Light of the darks and middle tones times 2 to this power; white stays. */
  readonly liftStops: number;
  /** Slope of the middle tones, −1 to 1; black and white stay. */
  readonly contrast: number;
  /** How far the deepest tones are opened, 0–1; from L* 35 on nothing moves. */
  readonly shadows: number;
  /** How far the lightest tones are held down, 0–1; to L* 65 nothing moves. */
  readonly lights: number;
  /** Contrast of what is about 2 mm, and about 12 mm, on paper: times 1 plus this, −0.5 to 1. */
  readonly localFine: number;
  readonly localBroad: number;
  /** Chroma, times 1 plus this, −1 to 1. */
  readonly saturation: number;
  /** Strength of sharpening at the size of the print, 0–2. */
  readonly sharpening: number;
  /** Its radius on paper, mm. */
  readonly radiusMm: number;
  /** How its colours are brought onto the sheet. */
  readonly rendering: RenderingKey;
  /** Bare paper around it, mm at the sides, and how it lies; 0: none. */
  readonly borderMm: number;
  readonly borders: BorderStyle;
  /** A line under the picture; none where it is empty. */
  readonly caption: string;
  readonly trimMarks: boolean;
}

/** What lies around the picture on its sheet. */
export type Surround = Pick<Recipe, 'borderMm' | 'borders' | 'caption' | 'trimMarks'>;

/** Nothing done. */
export const PLAIN: Recipe = {
  liftStops: 0,
  contrast: 0,
  shadows: 0,
  lights: 0,
  localFine: 0,
  localBroad: 0,
  saturation: 0,
  sharpening: 0,
  radiusMm: 0.1,
  rendering: 'relative',
  borderMm: 0,
  borders: 'equal',
  caption: '',
  trimMarks: false,
};

/** Bare paper is no wider, mm. */
export const MOST_BORDER_MM = 500;

/** A part of a recipe: in which steps a hand turns it. */
export interface RecipePart {
  readonly name: string;
  readonly step: number;
  readonly least: number;
  readonly most: number;
  /** As it is written in the recipe. */
  readonly written: (value: number) => string;
}

const STOPS: Readonly<Record<string, string>> = { '0.25': '¼', '0.5': '½', '0.75': '¾' };
const signed = (v: number, digits = 0) => `${v > 0 ? '+' : v < 0 ? '−' : ''}${Math.abs(v).toFixed(digits)}`;

/** Of ten, with a digit where it has one. */
const tenths = (v: number) => Math.round(v * 100) / 10;
const share = (v: number) => (v === 0 ? 'as it is' : `${signed(v * 100)} %`);

/** Steps of a quarter stop (practice); the others are our own. */
export const RECIPE_PARTS: Readonly<
  Record<Exclude<keyof Recipe, 'radiusMm' | 'rendering' | keyof Surround>, RecipePart>
> = {
  liftStops: {
    name: 'Lift',
    step: 0.25,
    least: -1,
    most: 2,
    written: (v) => (v === 0 ? 'none' : `${STOPS[String(v)] ?? signed(v, 2)} stop`),
  },
  contrast: {
    name: 'Contrast',
    step: 0.1,
    least: -1,
    most: 1,
    written: (v) => (v === 0 ? 'as it is' : signed(tenths(v), tenths(v) % 1 === 0 ? 0 : 1)),
  },
  shadows: {
    name: 'Shadows',
    step: 0.1,
    least: 0,
    most: 1,
    written: (v) => (v === 0 ? 'as they are' : `opened ${tenths(v)}`),
  },
  lights: {
    name: 'Lights',
    step: 0.1,
    least: 0,
    most: 1,
    written: (v) => (v === 0 ? 'as they are' : `held ${tenths(v)}`),
  },
  localFine: { name: 'Contrast at 2 mm', step: 0.1, least: -0.5, most: 1, written: share },
  localBroad: { name: 'Contrast at 12 mm', step: 0.1, least: -0.5, most: 1, written: share },
  saturation: {
    name: 'Saturation',
    step: 0.05,
    least: -1,
    most: 1,
    written: share,
  },
  sharpening: { name: 'Sharpening', step: 0.25, least: 0, most: 2, written: (v) => (v === 0 ? 'none' : v.toFixed(2)) },
};
export type RecipeKey = keyof typeof RECIPE_PARTS;

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;
const light = (f: number) => (f ** 3 > EPSILON ? f ** 3 : (116 * f - 16) / KAPPA);

/** How steep a contrast of 1 makes the middle: 1 + 2π of this; it still falls nowhere. */
const CONTRAST = 0.1;
/** Tones below this share of L* 100 are opened by `shadows`, those as near to white are held by `lights`. */
const END = 0.35;
/** How much steeper the end becomes at most. */
const OPENING = 0.9;
/** Tones near an end, moved away from it; the end itself stays. */
const opened = (t: number, by: number) => (t < END ? t + by * OPENING * t * (1 - t / END) ** 2 : t);

/**
 * L* of a print file for L* of the picture, of neutral tones: lift with its shoulder, then contrast, then the shadows and the lights. Rises
 * everywhere; 0 and 100 stay where they are.
 * @param l L*, 0–100
 */
export function toneOf({ liftStops, contrast, shadows, lights }: Recipe, l: number): number {
  const gain = 2 ** liftStops;
  const y = light((l + 16) / 116);
  const lifted = (116 * labRoot((gain * y) / (1 + (gain - 1) * y)) - 16) / 100;
  const t = lifted - contrast * CONTRAST * Math.sin(2 * Math.PI * lifted);
  return 100 * (1 - opened(1 - opened(t, shadows), lights));
}

/** Entries of a tone table. */
export const TONE_ENTRIES = 1024;

/**
 * What X, Y and Z are multiplied by, for L* of the picture from 0 to 100 in even steps: the table by which file,
 * screen and written copy are one.
 */
export function toneTable(recipe: Recipe): Float32Array {
  const table = new Float32Array(TONE_ENTRIES);
  for (let i = 0; i < TONE_ENTRIES; i++) {
    // Black has no light to multiply: its factor is that of the tone next to it.
    const l = (100 * Math.max(i, 0.5)) / (TONE_ENTRIES - 1);
    table[i] = light((toneOf(recipe, l) + 16) / 116) / light((l + 16) / 116);
  }
  return table;
}

/** Factor of a tone table at an L*; white and beyond stay as they are. */
function factorAt(table: Float32Array, l: number): number {
  const at = Math.min(1, Math.max(0, l / 100)) * (TONE_ENTRIES - 1);
  const low = Math.min(TONE_ENTRIES - 2, Math.floor(at));
  return table[low]! + (table[low + 1]! - table[low]!) * (at - low);
}

/** Whether a recipe leaves each colour as it is; what depends on what lies about a place is of another kind. */
export const isPlain = ({ liftStops, contrast, shadows, lights, saturation }: Recipe): boolean =>
  [liftStops, contrast, shadows, lights, saturation].every((v) => v === 0);

/**
 * Applies a recipe to colours, in place: X, Y and Z grow alike, so that hue and saturation of the light stay; then chroma.
 * @param labs L*, a*, b* one after another
 */
export function applyRecipe(labs: Float32Array, recipe: Recipe): void {
  if (isPlain(recipe)) return;
  const table = toneTable(recipe);
  const chroma = 1 + recipe.saturation;
  for (let p = 0; p < labs.length; p += 3) {
    const factor = factorAt(table, labs[p]!);
    const fy = (labs[p]! + 16) / 116;
    const fx = labRoot(light(fy + labs[p + 1]! / 500) * factor);
    const lifted = labRoot(light(fy) * factor);
    const fz = labRoot(light(fy - labs[p + 2]! / 200) * factor);
    labs[p] = 116 * lifted - 16;
    labs[p + 1] = 500 * (fx - lifted) * chroma;
    labs[p + 2] = 200 * (lifted - fz) * chroma;
  }
}

/** Bare paper around a picture, in words; empty where there is none. */
export function surroundLine({ borderMm, borders, caption, trimMarks }: Surround): string {
  const border = borderMm > 0 ? `border ${Number(borderMm.toFixed(1))} mm, ${BORDER_STYLES[borders]}` : '';
  return [border, caption && `caption “${caption}”`, trimMarks && 'marks to trim by'].filter(Boolean).join(', ');
}

/** A recipe in a line, what is done alone. */
export function recipeLine(recipe: Recipe): string {
  const done = (Object.keys(RECIPE_PARTS) as RecipeKey[])
    .filter((key) => recipe[key] !== 0)
    .map((key) => `${RECIPE_PARTS[key].name.toLowerCase()} ${RECIPE_PARTS[key].written(recipe[key])}`);
  const rendering = recipe.rendering !== PLAIN.rendering && RENDERING_NAMES[recipe.rendering];
  return [...done, rendering, surroundLine(recipe)].filter(Boolean).join(', ') || 'nothing done';
}

/** What a recipe is changed in, each part as it is and as it was; empty where nothing is. */
export function recipeChanges(was: Recipe, is: Recipe): string[] {
  const parts = (Object.keys(RECIPE_PARTS) as RecipeKey[])
    .filter((key) => was[key] !== is[key])
    .map((key) => {
      const { name, written } = RECIPE_PARTS[key];
      return `${name.toLowerCase()} ${written(is[key])} (was ${written(was[key])})`;
    });
  const radius = is.sharpening > 0 && was.sharpening > 0 && was.radiusMm !== is.radiusMm;
  const [wasAround, isAround] = [surroundLine(was) || 'no border', surroundLine(is) || 'no border'];
  return [
    ...parts,
    ...(radius ? [`sharpening radius ${is.radiusMm} mm (was ${was.radiusMm} mm)`] : []),
    ...(was.rendering === is.rendering
      ? []
      : [`${RENDERING_NAMES[is.rendering]} (was ${RENDERING_NAMES[was.rendering]})`]),
    ...(wasAround === isAround ? [] : [`${isAround} (was ${wasAround})`]),
  ];
}

/** A turn of a hand: a part one step on, within its bounds. */
export function turned(recipe: Recipe, key: RecipeKey, by: 1 | -1): Recipe {
  const { step, least, most } = RECIPE_PARTS[key];
  const value = Math.min(most, Math.max(least, Math.round((recipe[key] + by * step) / step) * step));
  return { ...recipe, [key]: Number(value.toFixed(4)) };
}
