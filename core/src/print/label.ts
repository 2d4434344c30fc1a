import { recipeLine, type Recipe } from '../proof/recipe.ts';
import { SETTINGS, written, type SettingKey, type SettingValues } from './settings.ts';

/** Labels on a sheet, mm: how large, how many, and where the first begins. Common sizes (memory). */
export const LABEL_SHEETS = {
  single: {
    name: 'one a page',
    widthMm: 105,
    heightMm: 57,
    columns: 1,
    rows: 1,
    pageMm: [105, 57],
    leftMm: 0,
    topMm: 0,
    gapMm: 0,
  },
  a4of10: {
    name: 'A4, ten of 105 × 57 mm',
    widthMm: 105,
    heightMm: 57,
    columns: 2,
    rows: 5,
    pageMm: [210, 297],
    leftMm: 0,
    topMm: 6,
    gapMm: 0,
  },
  a4of21: {
    name: 'A4, twenty-one of 63.5 × 38.1 mm',
    widthMm: 63.5,
    heightMm: 38.1,
    columns: 3,
    rows: 7,
    pageMm: [210, 297],
    leftMm: 7.2,
    topMm: 15.15,
    gapMm: 2.55,
  },
  letterof10: {
    name: 'Letter, ten of 4 × 2 in',
    widthMm: 101.6,
    heightMm: 50.8,
    columns: 2,
    rows: 5,
    pageMm: [215.9, 279.4],
    leftMm: 4,
    topMm: 12.7,
    gapMm: 4.3,
  },
} as const;
export type LabelSheet = keyof typeof LABEL_SHEETS;

/** Where a label lies on its page, mm from the top left; `at` counts from 0, row by row. */
export function labelPlace(sheet: LabelSheet, at: number): { page: number; xMm: number; yMm: number } {
  const { columns, rows, widthMm, heightMm, leftMm, topMm, gapMm } = LABEL_SHEETS[sheet];
  const [page, on] = [Math.floor(at / (columns * rows)), at % (columns * rows)];
  return {
    page,
    xMm: leftMm + (on % columns) * (widthMm + gapMm),
    yMm: topMm + Math.floor(on / columns) * heightMm,
  };
}

/** What is written on a back or a margin. */
export interface LabelWords {
  readonly title: string;
  /** 3/12, AP 1/2; absent where it bears none. */
  readonly number?: string;
  readonly date: string;
  readonly paper: string;
  readonly sizeMm: readonly [number, number];
  readonly settings: SettingValues;
  /** What was done to the picture; absent where nothing was, or where it was not recorded. */
  readonly recipe?: RecipeOnLabel;
  /** Short code of the record. */
  readonly code: string;
}

/** A recipe as it stands on a label. */
export interface RecipeOnLabel {
  readonly name: string;
  readonly version: number;
  readonly values: Recipe;
}

/** A recipe in a line, with its name and version. */
export const recipeOnLabel = ({ name, version, values }: RecipeOnLabel): string =>
  `${name ? `recipe “${name}”` : 'recipe'} ${version}: ${recipeLine(values)}`;

/** What stands under a picture: its number, its name and the year it was printed. */
export const captionLine = ({ number, title, date }: Pick<LabelWords, 'number' | 'title' | 'date'>): string =>
  [number, title, date.slice(0, 4)].filter(Boolean).join(' · ');

const SHORT: readonly SettingKey[] = [
  'printer',
  'mediaSetting',
  'blackInk',
  'profile',
  'intent',
  'resolution',
  'liftStops',
  'sharpening',
  'feed',
];

/** Sheet and settings in short, in the order in which they are looked at; what is not said is left out. */
export function settingsLine(settings: SettingValues): string {
  return SHORT.flatMap((key) => {
    const value = settings[key];
    if (value === undefined || value === '' || value === 'none' || value === 0) return [];
    return key === 'printer' ||
      key === 'mediaSetting' ||
      key === 'blackInk' ||
      key === 'profile' ||
      key === 'intent' ||
      key === 'resolution'
      ? [written(key, value)]
      : [`${SETTINGS[key].name.toLowerCase()} ${written(key, value)}`];
  }).join(' · ');
}
