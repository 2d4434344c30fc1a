import { useEffect, useState } from 'react';

/** Rows that are drawn in one go: none of them keeps a hand waiting. */
const STEP = 10;

/**
 * The beginning of a list, that grows to all of it a few rows at a time, so that a long one never holds the page up.
 * @param of what the list is of: another begins anew
 */
export function useGradually<T>(list: readonly T[] | undefined, of: string): readonly T[] {
  const [shown, setShown] = useState({ of, count: STEP });
  const count = shown.of === of ? shown.count : STEP;
  const all = list?.length ?? 0;
  useEffect(() => {
    if (count >= all) return;
    const next = setTimeout(() => setShown({ of, count: count + STEP }));
    return () => clearTimeout(next);
  }, [of, count, all]);
  return list?.slice(0, count) ?? [];
}
