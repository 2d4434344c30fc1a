/** A calendar day, YYYY-MM-DD: a day as it is meant where the printmaker stands, and no instant. */
export type Day = string;

const two = (n: number) => String(n).padStart(2, '0');
const IS_INSTANT = /^\d{4}-\d{2}-\d{2}T/;
/** An instant that states by how much its clock differs from UTC. */
const HAS_OFFSET = /[+-]\d{2}:?\d{2}$/;

/** The day a clock on the wall shows at an instant, in the time zone of this machine. */
export const dayAt = (date: Date): Day =>
  `${String(date.getFullYear()).padStart(4, '0')}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;

/** Today, where this machine stands. */
export const today = (): Day => dayAt(new Date());

/**
 * The day of a date as it is kept (ISO 8601): a day is itself; an instant with its own offset is of the day it names;
 * any other instant is of the day the clock on the wall showed. What is no date is cut to ten signs.
 */
export function dayOf(date: string): Day {
  const instant = new Date(date);
  const isInstant = IS_INSTANT.test(date) && !HAS_OFFSET.test(date) && !Number.isNaN(instant.getTime());
  return isInstant ? dayAt(instant) : date.slice(0, 10);
}

/** Noon of a day on this machine: to be shown in words, on either side of a change of the clock. */
export function noonOf(day: Day): Date {
  const [year, month, date] = day.split('-').map(Number);
  return new Date(year!, month! - 1, date, 12);
}
