/** What may be done with a print after it came out of the printer. */
export interface Drying {
  /** Minutes after it came out. */
  readonly lookMin: number;
  readonly stackMin: number;
  readonly readMin: number;
  readonly frameMin: number;
}

/** Minutes a print lies before it is looked at, where nothing was entered (practice). */
export const LOOK_MINUTES = 30;
const HOUR = 60;
const DAY = 24 * HOUR;

/**
 * An hour before stacking, a day before a reading is trusted (practice). Longer before it goes under glass (practice):
 * two days are our own choice.
 * @param lookMin as entered with the print; none of the others comes before it
 */
export const dryingOf = (lookMin: number = LOOK_MINUTES): Drying => ({
  lookMin,
  stackMin: Math.max(HOUR, lookMin),
  readMin: Math.max(DAY, lookMin),
  frameMin: Math.max(2 * DAY, lookMin),
});
