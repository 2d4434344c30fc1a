import type { FileStore } from '../files/file-store.ts';
import type { ReadingRow } from './readings.entity.ts';
import type { ReadingSource } from '../work/tasks.ts';
import type { SpeakingReading } from '@rakuen/core/measurement/speaking';

/** A set of a print condition, by the rows its readings are kept in. */
export type SpeakingRows = SpeakingReading<ReadingRow>;

/** The bytes of a reading, and what was said of it. */
export async function readingSource(files: FileStore, row: ReadingRow): Promise<ReadingSource> {
  return {
    bytes: await files.read(row.contentHash),
    part: row.part,
    mapping: row.mapping ?? undefined,
    leftOut: row.leftOut,
    stated: { condition: row.measurementCondition ?? undefined, instrument: row.instrument ?? undefined },
  };
}

/** The same of a set and of what serves it. */
export async function setSources(files: FileStore, { primary, companions, unserved }: SpeakingRows) {
  return {
    primary: await readingSource(files, primary),
    companions: await Promise.all(companions.map((c) => readingSource(files, c))),
    unserved,
  };
}

/** What a set is told from, apart from any other. */
export const setKey = ({ primary, companions, unserved }: SpeakingRows): unknown => [
  rowKey(primary),
  companions.map(rowKey),
  unserved,
];

/** What a reading is computed from, apart from any other: its row, and what was left out of it. */
export const rowKey = ({ id, leftOut }: ReadingRow): unknown => (leftOut.length > 0 ? [id, leftOut] : id);
