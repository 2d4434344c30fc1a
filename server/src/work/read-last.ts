import { createHash } from 'node:crypto';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import type { ImportedReading } from '@rakuen/core/formats/imported-reading';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';

/** Bytes of the files a thread keeps in mind; taken apart they are some three times as much. */
export const KEPT_BYTES = 24 * 2 ** 20;

interface Read {
  readonly bytes: number;
  readonly readings: readonly ImportedReading[];
}
const last = new Map<string, Read>();

/**
 * The readings of a file. A set, what serves it and whoever asks next read one file, and it is taken apart once for them
 * by each thread; it is known by what it holds.
 * @throws FormatError
 */
export function readLast(bytes: Uint8Array, mapping?: ColumnMapping): readonly ImportedReading[] {
  const hash = createHash('sha256').update(bytes);
  const key = hash.update(JSON.stringify(mapping ?? null)).digest('hex');
  const read = last.get(key) ?? { bytes: bytes.length, readings: readingsFromFile(bytes, mapping) };
  // The one asked for now is the newest; the oldest are given up.
  last.delete(key);
  last.set(key, read);
  let kept = [...last.values()].reduce((sum, r) => sum + r.bytes, 0);
  for (const [old, r] of last) {
    if (kept <= KEPT_BYTES) break;
    last.delete(old);
    kept -= r.bytes;
  }
  return read.readings;
}
