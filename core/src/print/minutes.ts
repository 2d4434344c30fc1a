import { FEED_PATHS, pathOf } from './feed.ts';

/** Minutes a square metre takes at usual quality (our own estimate). */
const MINUTES_PER_M2 = 45;
/** Areas up to so far apart are taken as one size, share. */
const SAME_SIZE = 0.1;

/** A print that was timed at the printer. */
export interface TimedPrint {
  /** Of all copies; null where it was not timed. */
  readonly minutes: number | null;
  readonly copies: number;
  readonly feed: string;
  readonly areaM2: number;
}

/** Minutes a copy takes at the printer, and what that rests on. */
export interface MinutesEach {
  readonly each: number;
  /** Timed by this feed in this size; computed from prints of another feed or size; or from feed and area alone. */
  readonly from: 'timed' | 'scaled' | 'estimated';
}

/** Minutes of a copy by its feed and its area (practice; our own estimate). */
const estimated = (feed: string, areaM2: number) =>
  FEED_PATHS[pathOf(feed) ?? 'auto'].minutesEach + areaM2 * MINUTES_PER_M2;

/**
 * Minutes of one copy. Prints that were timed by the same feed in the same size give their mean. Others give how much
 * quicker or slower this sheet is than the estimate, those of the same feed before those of another.
 */
export function minutesEach(timed: readonly TimedPrint[], feed: string, areaM2: number): MinutesEach {
  const path = pathOf(feed) ?? 'auto';
  const known = timed.flatMap((t) =>
    t.minutes === null || t.areaM2 <= 0 ? [] : [{ ...t, each: t.minutes / t.copies, path: pathOf(t.feed) ?? 'auto' }],
  );
  const ofFeed = known.filter((t) => t.path === path);
  const alike = ofFeed.filter((t) => Math.abs(t.areaM2 - areaM2) <= SAME_SIZE * areaM2);
  if (alike.length > 0) return { each: mean(alike.map((t) => t.each)), from: 'timed' };
  const nearest = ofFeed.length > 0 ? ofFeed : known;
  if (nearest.length === 0) return { each: estimated(feed, areaM2), from: 'estimated' };
  const pace = mean(nearest.map((t) => t.each / estimated(t.feed, t.areaM2)));
  return { each: pace * estimated(feed, areaM2), from: 'scaled' };
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
