const MINUTE_MS = 60_000;

/** Hour and minute on the wall so many minutes after an instant (ISO 8601); with the day where it is another. */
export function clock(since: string, minutes: number): string {
  const begin = new Date(since);
  const at = new Date(begin.getTime() + minutes * MINUTE_MS);
  const sameDay = at.toDateString() === begin.toDateString();
  return new Intl.DateTimeFormat(undefined, {
    hour: '2-digit',
    minute: '2-digit',
    ...(!sameDay && { weekday: 'short' }),
  }).format(at);
}

/** A time when someone is at the printer, as it is typed: 09:30. */
export interface TypedTime {
  readonly from: string;
  readonly to: string;
}

const DAY_MIN = 24 * 60;
const minutesOf = (typed: string): number | undefined => {
  const [, hours, minutes] = /^(\d{1,2}):(\d{2})$/.exec(typed) ?? [];
  return hours === undefined ? undefined : Number(hours) * 60 + Number(minutes);
};

/**
 * Times of the clock as minutes from now. One that has begun begins now; one that is over is tomorrow's; where an end
 * comes before its beginning, it is of the next day.
 */
export function presenceOf(times: readonly TypedTime[], now: Date): { fromMin: number; toMin: number }[] {
  const begun = now.getHours() * 60 + now.getMinutes();
  return times.flatMap(({ from, to }) => {
    const [start, end] = [minutesOf(from), minutesOf(to)];
    if (start === undefined || end === undefined) return [];
    const lasts = (((end - start) % DAY_MIN) + DAY_MIN) % DAY_MIN || DAY_MIN;
    let fromMin = start - begun;
    if (fromMin + lasts <= 0) fromMin += DAY_MIN;
    return [{ fromMin: Math.max(0, fromMin), toMin: fromMin + lasts }];
  });
}
