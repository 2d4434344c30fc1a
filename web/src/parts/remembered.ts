import { useState } from 'react';

/** A word that is the same the next time in this window: who looks, under which light. */
export function useRemembered(key: string, start: string): [string, (value: string) => void] {
  const [value, setValue] = useState(() => localStorage.getItem(`rakuen.${key}`) ?? start);
  return [
    value,
    (next) => {
      localStorage.setItem(`rakuen.${key}`, next);
      setValue(next);
    },
  ];
}
