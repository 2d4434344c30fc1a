import { createHash } from 'node:crypto';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import type { ImportedReading } from '@rakuen/core/formats/imported-reading';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';

/** Files of readings a thread keeps in mind: some megabytes each. */
const MOST = 12;
const last = new Map<string, readonly ImportedReading[]>();

/**
 * The readings of a file. A set, what serves it and whoever asks next read one file, and it is taken apart once for them
 * by each thread; it is known by what it holds.
 * @throws FormatError
 */
export function readLast(bytes: Uint8Array, mapping?: ColumnMapping): readonly ImportedReading[] {
  const hash = createHash('sha256').update(bytes);
  const key = hash.update(JSON.stringify(mapping ?? null)).digest('hex');
  const readings = last.get(key) ?? readingsFromFile(bytes, mapping);
  // The one asked for now is the newest; the oldest is given up.
  last.delete(key);
  last.set(key, readings);
  if (last.size > MOST) last.delete(last.keys().next().value!);
  return readings;
}
