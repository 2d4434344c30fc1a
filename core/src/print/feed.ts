/** A way a sheet takes into a printer. */
export interface FeedPath {
  readonly name: string;
  /** Someone must stand by while it is fed. */
  readonly byHand: boolean;
  /** Sheets laid in at once; one by hand, a roll has no end. */
  readonly stack: number;
  /** Minutes at the printer for each sheet besides printing (practice). */
  readonly minutesEach: number;
}

/** Six to eight minutes a sheet by hand (practice); ten to twenty sheets in a feeder (practice): the middle and the careful end. */
export const FEED_PATHS = {
  auto: { name: 'auto feeder', byHand: false, stack: 10, minutesEach: 0.5 },
  rear: { name: 'rear single', byHand: true, stack: 1, minutesEach: 7 },
  front: { name: 'front straight path', byHand: true, stack: 1, minutesEach: 7 },
  roll: { name: 'roll', byHand: false, stack: Infinity, minutesEach: 1 },
} as const satisfies Record<string, FeedPath>;
export type FeedKey = keyof typeof FEED_PATHS;

/** The path a setting names in its words; undefined where it names none that is known. */
export function pathOf(words: string): FeedKey | undefined {
  const said = words.trim().toLowerCase();
  return (Object.keys(FEED_PATHS) as FeedKey[]).find((key) => said.includes(FEED_PATHS[key].name.toLowerCase()));
}
