import { isWet } from './alike.ts';
import type { MeasurementCondition } from './reading.ts';

/** A reading as it is kept, as far as it matters for who speaks. Times are ISO 8601. */
export interface KeptReading {
  readonly id: string;
  readonly fileName: string;
  /** Of its file: readings of one file are of one pass. */
  readonly contentHash: string;
  readonly measurementCondition: MeasurementCondition | null;
  /** Measured, or told by a profile. */
  readonly source: 'measured' | 'profile';
  /** Box or formulation of the paper. */
  readonly batch: string;
  readonly printedAt: string | null;
  /** Why it was kept apart from the others: it gives no figures unless it is chosen. */
  readonly apart?: string | null;
  /** As the file says it. */
  readonly measuredAt: string | null;
  readonly importedAt: string;
}

/** Which measurement condition speaks first for the figures: daylight with UV, as prints are seen, then unstated, then the rest. */
export const PRECEDENCE: readonly (MeasurementCondition | null)[] = ['M1', 'M0', null, 'M2', 'M3'];

/** A reading that gives figures, and the readings of the same sheet under other measurement conditions that serve it. */
export interface SpeakingReading<R extends KeptReading> {
  readonly primary: R;
  readonly companions: readonly R[];
  /** Why a reading under another measurement condition is not joined with it, by condition. */
  readonly unserved: Partial<Record<MeasurementCondition, string>>;
}

/** From new to old; files kept in the same instant by what they hold, so that no order of rows decides who speaks. */
const newestFirst = <R extends KeptReading>(rows: readonly R[]): R[] =>
  [...rows].sort((p, q) => q.importedAt.localeCompare(p.importedAt) || p.contentHash.localeCompare(q.contentHash));
const firstToSpeak = <R extends KeptReading>(rows: readonly R[]): R | undefined =>
  PRECEDENCE.map((c) => rows.find((r) => r.measurementCondition === c)).find((r) => r !== undefined);
/** Read minutes after it was printed, and not once it had dried. */
export const readWet = (row: KeptReading): boolean => isWet(row.printedAt ?? undefined, whenRead(row)) === true;

const A_DAY_MS = 24 * 3_600_000;

/** Two readings of one pass, or of one day, one box and one state of drying: figures may be made from both. */
function belongTogether(p: KeptReading, q: KeptReading): boolean {
  if (p.contentHash === q.contentHash) return true;
  const apart = Math.abs(Date.parse(whenRead(p)) - Date.parse(whenRead(q)));
  return p.batch === q.batch && readWet(p) === readWet(q) && apart <= A_DAY_MS;
}

/** A reading with what serves it: of its own file first, then the nearest of the same day and box. */
function withCompanions<R extends KeptReading>(primary: R, rows: readonly R[]): SpeakingReading<R> {
  const others = newestFirst(rows).filter(
    (r) =>
      r.id !== primary.id &&
      (!r.apart || r.contentHash === primary.contentHash) &&
      r.source === 'measured' &&
      r.measurementCondition !== null &&
      r.measurementCondition !== primary.measurementCondition,
  );
  const nearest = [...others.filter((r) => r.contentHash === primary.contentHash), ...others];
  const companions: R[] = [];
  const unserved: Partial<Record<MeasurementCondition, string>> = {};
  for (const condition of PRECEDENCE) {
    if (condition === null) continue;
    const found = nearest.filter((r) => r.measurementCondition === condition);
    const serving = found.find((r) => belongTogether(primary, r));
    if (serving) companions.push(serving);
    else if (found[0])
      unserved[condition] =
        `The reading in ${condition} (${found[0].fileName}) is of another day, box or state of drying: the two are not joined.`;
  }
  return { primary, companions, unserved };
}

/** Sets beyond these are not asked: what four readings did not hold, a fifth seldom does. */
const MOST_SETS = 4;

/**
 * The sets that give a condition its figures, in the order in which they speak: the one chosen by hand alone; else
 * those that were measured on dried prints, the newest first, then those read wet, all under one measurement condition
 * (M1 before M0, unstated, M2 and M3); else the newest from a profile. Sets that were kept apart give none.
 */
export function speakingSets<R extends KeptReading>(all: readonly R[], chosen: string | null): SpeakingReading<R>[] {
  const byHand = all.find((r) => r.id === chosen);
  if (byHand) return [withCompanions(byHand, all)];
  const rows = all.filter((r) => !r.apart);
  const measured = newestFirst(rows.filter((r) => r.source === 'measured'));
  const inTurn = [...measured.filter((r) => !readWet(r)), ...measured.filter(readWet)];
  const primary = firstToSpeak(inTurn.filter((r) => !readWet(r))) ?? firstToSpeak(inTurn);
  if (!primary)
    return newestFirst(rows)
      .slice(0, 1)
      .map((r) => withCompanions(r, rows));
  const others = inTurn.filter((r) => r.id !== primary.id && r.measurementCondition === primary.measurementCondition);
  return [primary, ...others].slice(0, MOST_SETS).map((r) => withCompanions(r, rows));
}

/**
 * The sets of a condition's history, from old to new: a file each; a file that only serves another as its M2, say, is
 * no set of its own.
 */
export function readingSets<R extends KeptReading>(rows: readonly R[]): SpeakingReading<R>[] {
  const files = [...new Set(rows.map((r) => r.contentHash))].map((hash) =>
    firstToSpeak(newestFirst(rows.filter((r) => r.contentHash === hash)))!,
  );
  const sets = files.map((primary) => withCompanions(primary, rows));
  const rank = (r: KeptReading) => PRECEDENCE.indexOf(r.measurementCondition);
  return sets
    .filter(({ primary }) => !sets.some((s) => rank(s.primary) < rank(primary) && s.companions.includes(primary)))
    .sort(
      (p, q) =>
        whenRead(p.primary).localeCompare(whenRead(q.primary)) ||
        p.primary.importedAt.localeCompare(q.primary.importedAt) ||
        p.primary.contentHash.localeCompare(q.primary.contentHash),
    );
}

/** When it was measured where the file says so in a date that is understood, else when it was kept; ISO 8601. */
export function whenRead(row: KeptReading): string {
  const stated = row.measuredAt ? new Date(row.measuredAt) : undefined;
  return stated && !Number.isNaN(stated.getTime()) ? stated.toISOString() : row.importedAt;
}
