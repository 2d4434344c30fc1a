import { createHash } from 'node:crypto';

/**
 * A key of what a result is computed from: the hash of all that is named. Keys of results that go into it are named
 * among them, so that whatever changes below changes every key above.
 */
export const keyFrom = (...parts: readonly unknown[]): string =>
  createHash('sha256').update(JSON.stringify(parts)).digest('hex');
