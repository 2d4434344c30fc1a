import { useSyncExternalStore } from 'react';

/** Files that were dropped somewhere and lie ready for the screen they belong to. */
interface Handed {
  readonly pictures: readonly File[];
  readonly readings: readonly File[];
}
let handed: Handed = { pictures: [], readings: [] };
const listeners = new Set<() => void>();

function change(next: Partial<Handed>): void {
  handed = { ...handed, ...next };
  for (const listener of listeners) listener();
}

/** Lays files ready. */
export const hand = (kind: keyof Handed, files: readonly File[]): void =>
  change({ [kind]: [...handed[kind], ...files] });
/** Takes one away: it was used, or is not wanted. */
export const putAway = (kind: keyof Handed, file: File): void =>
  change({ [kind]: handed[kind].filter((f) => f !== file) });

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
/** What lies ready of a kind, the first first. */
export const useHanded = (kind: keyof Handed): readonly File[] => useSyncExternalStore(subscribe, () => handed[kind]);
