import { dayOf } from '../day.ts';
import { recipeChanges, type Recipe } from '../proof/recipe.ts';
import { SETTINGS, written, type SettingValues } from './settings.ts';

/** Something that is no longer as it was when a print was made. */
export interface Since {
  readonly what: 'formulation' | 'box' | 'picture' | 'recipe' | 'profile' | 'printer' | 'ink' | 'setting';
  readonly sentence: string;
}

/** What a later box read, held against the one the print was made on. */
export interface LaterBox {
  readonly batch: string;
  readonly readOn: string;
  /** ΔE00 of its white and its black from those of the box the print was made on; or why they are not held against each other. */
  readonly apart: { readonly white: number; readonly black?: number } | { readonly why: string };
}

export interface SinceAsked {
  readonly printedOn: string;
  readonly then: SettingValues;
  /** What the print condition says today. */
  readonly now: SettingValues;
  readonly laterBoxes: readonly LaterBox[];
  /** When the profile of today was made. */
  readonly profileMadeOn?: string;
  /** SHA-256 of the profile and of the picture’s file, then and today; '' where not recorded. */
  readonly profileHash: HashPair;
  readonly pictureHash: HashPair;
  /** The recipe of that print, and the newest of the picture on this sheet; absent where there is none. */
  readonly recipe: { readonly then?: RecipeThen; readonly now?: RecipeThen };
  /** The box of that print, as it is today; absent where it was not recorded. */
  readonly box?: { readonly label: string; readonly why?: 'too small' | 'too little left' };
}
interface HashPair {
  readonly then: string;
  readonly now: string;
}
interface RecipeThen {
  readonly values: Recipe;
  /** ISO 8601. */
  readonly changedAt: string;
}

const ITEMS = [
  ['printer', 'printer'],
  ['inkSet', 'ink'],
  ['blackInk', 'ink'],
  ['mediaSetting', 'setting'],
  ['resolution', 'setting'],
  ['profile', 'profile'],
] as const;

/** What changed between a print and the day it is repeated: whoever repeats its settings does not repeat the print. */
export function since(asked: SinceAsked): Since[] {
  const { printedOn, then, now, laterBoxes } = asked;
  const day = dayOf(printedOn);
  return [
    ...pictureSince(asked),
    ...recipeSince(asked),
    ...boxSince(asked),
    ...laterBoxes.map(({ batch, readOn, apart }): Since => ({
      what: 'formulation',
      sentence: `A later box (${batch || 'of another formulation'}) was read on ${dayOf(readOn)}${
        'why' in apart
          ? `; it is not held against the first: ${apart.why}`
          : `: its white lies ${apart.white.toFixed(1)} ΔE00${apart.black === undefined ? '' : ` and its black ${apart.black.toFixed(1)}`} from what this was printed on`
      }. Say which box the sheet comes from.`,
    })),
    ...ITEMS.flatMap(([key, what]): Since[] =>
      then[key] === undefined || then[key] === '' || then[key] === now[key]
        ? []
        : [
            {
              what,
              sentence: `${SETTINGS[key].name} was ${written(key, then[key])} on ${day}; the print condition says ${written(key, now[key])} today.`,
            },
          ],
    ),
    ...profileSince(asked),
  ];
}

/** Digits of a hash that tell two files apart on a page. */
const SHOWN_DIGITS = 8;
const differ = ({ then, now }: HashPair) => then !== '' && now !== '' && then !== now;
const shown = (hash: string) => hash.slice(0, SHOWN_DIGITS);

function pictureSince({ pictureHash }: SinceAsked): Since[] {
  return differ(pictureHash)
    ? [{ what: 'picture', sentence: 'The picture has another file today: compare it before you print.' }]
    : [];
}

function recipeSince({ recipe: { then, now } }: SinceAsked): Since[] {
  if (!now) return [];
  const on = dayOf(now.changedAt);
  if (!then)
    return [
      { what: 'recipe', sentence: `The recipe of that print was not recorded. The recipe of today is of ${on}.` },
    ];
  const changes = recipeChanges(then.values, now.values);
  if (changes.length === 0) return [];
  return [
    {
      what: 'recipe',
      sentence: `The recipe was changed on ${on}: ${changes.join(', ')}. This print keeps the recipe of that print.`,
    },
  ];
}

const BOX_WORDS = {
  'too small': 'is too small for this size',
  'too little left': 'holds too little for this print',
} as const;

function boxSince({ box }: SinceAsked): Since[] {
  return box?.why ? [{ what: 'box', sentence: `The box of that print, ${box.label}, ${BOX_WORDS[box.why]}.` }] : [];
}

function profileSince({ profileHash, profileMadeOn, printedOn }: SinceAsked): Since[] {
  const day = dayOf(printedOn);
  if (differ(profileHash))
    return [
      {
        what: 'profile',
        sentence: `The profile has another file today (${shown(profileHash.now)}; that print was made with ${shown(profileHash.then)}).`,
      },
    ];
  // With the file's hash known nothing is left to guess from days.
  if (profileHash.then !== '' || !profileMadeOn || dayOf(profileMadeOn) <= day) return [];
  return [{ what: 'profile', sentence: `The profile was made anew on ${dayOf(profileMadeOn)}, after that print.` }];
}
