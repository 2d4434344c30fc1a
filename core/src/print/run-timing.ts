/** A print that waits for the printer. */
export interface Waiting {
  readonly id: string;
  readonly blackInk: string;
  readonly feed: string;
  readonly copies: number;
  /** Minutes a copy takes at the printer, feeding included. */
  readonly minutesEach: number;
  /** When someone must stand by: for all of each copy, to load a stack, or only when the feed is changed. */
  readonly hand: 'each copy' | 'each stack' | 'feed change';
  /** Sheets that are loaded at once. */
  readonly stack: number;
  /** Minutes it lies to dry afterwards; the printer goes on meanwhile. */
  readonly dryMinutes: number;
}

/** What a change takes. */
export interface ChangeCosts {
  readonly blackInkMinutes: number;
  readonly blackInkMl: number;
  readonly feedMinutes: number;
}
/** Four minutes and three millilitres for the black (practice); three minutes for another feed (our own choice). */
export const CHANGE_COSTS: ChangeCosts = { blackInkMinutes: 4, blackInkMl: 3, feedMinutes: 3 };

/** A time when someone is at the printer, minutes from the beginning of the run. */
export interface Presence {
  readonly fromMin: number;
  readonly toMin: number;
}

/** What the printer holds; what is absent changes nothing the first time. */
export interface AtThePrinter {
  readonly blackInk?: string;
  readonly feed?: string;
}

/** A print in its place in a run. */
export interface Placed {
  readonly startMin: number;
  readonly endMin: number;
  readonly blackInkChange: boolean;
  readonly feedChange: boolean;
  /** When the feeder is loaded, the first time at the beginning. */
  readonly loads: readonly number[];
  readonly holds: AtThePrinter;
}

const EPSILON = 1e-9;

/** From when on someone is there for so many minutes; undefined where never. @param present in order; empty: always */
export function handFrom(present: readonly Presence[], from: number, minutes: number): number | undefined {
  if (present.length === 0) return from;
  for (const { fromMin, toMin } of present) {
    const start = Math.max(from, fromMin);
    if (start + minutes <= toMin + EPSILON) return start;
  }
  return undefined;
}

/**
 * A print at its earliest after a moment; undefined where it needs a hand and nobody is there long enough. A change of
 * ink or feed is made by hand; a copy fed by hand is stood by; a feeder is loaded by hand and prints on alone.
 */
export function placed(
  print: Waiting,
  after: number,
  holds: AtThePrinter,
  present: readonly Presence[],
  costs: ChangeCosts = CHANGE_COSTS,
): Placed | undefined {
  const inked = print.blackInk !== 'none';
  const blackInkChange = inked && holds.blackInk !== undefined && holds.blackInk !== print.blackInk;
  const feedChange = holds.feed !== undefined && holds.feed !== print.feed;
  const change = (blackInkChange ? costs.blackInkMinutes : 0) + (feedChange ? costs.feedMinutes : 0);
  let at: number | undefined = after;
  if (change > 0) {
    at = handFrom(present, after, change);
    if (at === undefined) return undefined;
    at += change;
  }
  const units = unitsOf(print);
  const loads: number[] = [];
  let startMin: number | undefined;
  for (const { minutes, hand } of units) {
    if (hand !== undefined) at = handFrom(present, at, hand);
    if (at === undefined) return undefined;
    if (print.hand === 'each stack') loads.push(at);
    startMin ??= at;
    at += minutes;
  }
  return {
    startMin: startMin ?? at,
    endMin: at,
    blackInkChange,
    feedChange,
    loads,
    holds: { blackInk: inked ? print.blackInk : holds.blackInk, feed: print.feed },
  };
}

/** What is fed at once, and for how many minutes of it a hand is needed; absent: none. */
function unitsOf({ copies, minutesEach, hand, stack }: Waiting): { minutes: number; hand?: number }[] {
  if (hand === 'feed change') return [{ minutes: copies * minutesEach }];
  if (hand === 'each copy') return Array.from({ length: copies }, () => ({ minutes: minutesEach, hand: minutesEach }));
  return Array.from({ length: Math.ceil(copies / stack) }, (_, i) => ({
    minutes: Math.min(stack, copies - i * stack) * minutesEach,
    hand: 0,
  }));
}
