import type { HistoryEntry } from '@rakuen/contract/readings';
import { day, hour } from '../parts/label.ts';

/** When a set was read: its day, and the hour where another set is of the same day. */
export function whenOf(entry: HistoryEntry, entries: readonly HistoryEntry[]): string {
  const same = entries.filter((e) => day(e.at) === day(entry.at)).length > 1;
  return same ? hour(entry.at) : day(entry.at);
}

/** A set as it is named wherever one is chosen: when it was read, its box, its file. No two sets of a day look alike. */
export const setName = (entry: HistoryEntry, entries: readonly HistoryEntry[]): string =>
  [whenOf(entry, entries), entry.batch, entry.fileName].filter(Boolean).join(', ');
