import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import type { ReadingRow } from '../store/entities.ts';

/** Which measurement condition speaks first for the figures: daylight with UV, as prints are seen, then unstated, then the rest. */
const PRECEDENCE: readonly (MeasurementCondition | null)[] = ['M1', 'M0', null, 'M2', 'M3'];

/** A reading that gives figures, and the readings of the same sheet under other measurement conditions that serve it. */
export interface SpeakingReading {
  readonly primary: ReadingRow;
  readonly companions: readonly ReadingRow[];
}

const newestFirst = (rows: readonly ReadingRow[]) => [...rows].sort((p, q) => q.importedAt.localeCompare(p.importedAt));
const firstToSpeak = (rows: readonly ReadingRow[]) =>
  PRECEDENCE.map((c) => rows.find((r) => r.measurementCondition === c)).find(Boolean);

/** What a reading was told beside the box it came from: another file of the same batch serves only where its own file does not. */
function companionsOf(primary: ReadingRow, rows: readonly ReadingRow[]): ReadingRow[] {
  const others = newestFirst(rows).filter(
    (r) =>
      r.id !== primary.id &&
      r.source === 'measured' &&
      r.batch === primary.batch &&
      r.measurementCondition !== primary.measurementCondition,
  );
  const nearest = [...others.filter((r) => r.contentHash === primary.contentHash), ...others];
  return PRECEDENCE.flatMap((c) => (c === null ? [] : (nearest.find((r) => r.measurementCondition === c) ?? [])));
}

/**
 * The reading that gives a condition its figures: the one chosen by hand, else the newest that was measured, else the newest a profile tells;
 * M1 before M0, unstated, M2 and M3.
 */
export function speakingReading(rows: readonly ReadingRow[], chosen: string | null): SpeakingReading | undefined {
  const measured = newestFirst(rows.filter((r) => r.source === 'measured'));
  const primary = rows.find((r) => r.id === chosen) ?? firstToSpeak(measured) ?? newestFirst(rows)[0];
  return primary && { primary, companions: companionsOf(primary, rows) };
}

/** The sets of a condition's history, from old to new: a file each; a file that only serves another as its M2, say, is no set of its own. */
export function readingSets(rows: readonly ReadingRow[]): SpeakingReading[] {
  const files = [...new Set(rows.map((r) => r.contentHash))].map((hash) =>
    firstToSpeak(rows.filter((r) => r.contentHash === hash))!,
  );
  const sets = files.map((primary): SpeakingReading => ({ primary, companions: companionsOf(primary, rows) }));
  const rank = (r: ReadingRow) => PRECEDENCE.indexOf(r.measurementCondition as MeasurementCondition | null);
  return sets
    .filter(({ primary }) => !sets.some((s) => rank(s.primary) < rank(primary) && s.companions.includes(primary)))
    .sort(
      (p, q) =>
        whenRead(p.primary).localeCompare(whenRead(q.primary)) ||
        p.primary.importedAt.localeCompare(q.primary.importedAt),
    );
}

/** When it was measured where the file says so in a date that is understood, else when it was kept; ISO 8601. */
export function whenRead(row: ReadingRow): string {
  const stated = row.measuredAt ? new Date(row.measuredAt) : undefined;
  return stated && !Number.isNaN(stated.getTime()) ? stated.toISOString() : row.importedAt;
}
