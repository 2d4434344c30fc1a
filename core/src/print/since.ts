import { SETTINGS, written, type SettingValues } from './settings.ts';

/** Something that is no longer as it was when a print was made. */
export interface Since {
  readonly what: 'formulation' | 'profile' | 'printer' | 'ink' | 'setting';
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
export function since({ printedOn, then, now, laterBoxes, profileMadeOn }: SinceAsked): Since[] {
  const day = printedOn.slice(0, 10);
  return [
    ...laterBoxes.map(({ batch, readOn, apart }): Since => ({
      what: 'formulation',
      sentence: `A later box (${batch || 'of another formulation'}) was read on ${readOn.slice(0, 10)}${
        'why' in apart
          ? `; it is not held against the first: ${apart.why}`
          : `: its white lies ${apart.white.toFixed(1)} ΔE00${apart.black === undefined ? '' : ` and its black ${apart.black.toFixed(1)}`} from what this was printed on`
      }. Say which box the sheet comes from.`,
    })),
    ...ITEMS.flatMap(([key, what]): Since[] =>
      then[key] === undefined || then[key] === now[key]
        ? []
        : [
            {
              what,
              sentence: `${SETTINGS[key].name} was ${written(key, then[key])} on ${day}; the print condition says ${written(key, now[key])} today.`,
            },
          ],
    ),
    ...(profileMadeOn && profileMadeOn.slice(0, 10) > day
      ? [
          {
            what: 'profile' as const,
            sentence: `The profile was made anew on ${profileMadeOn.slice(0, 10)}, after that print.`,
          },
        ]
      : []),
  ];
}
