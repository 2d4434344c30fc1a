import { startTransition, useEffect, useState } from 'react';

/** A value that follows once the last picture is on screen, so that what is drawn from it keeps nobody waiting. */
export function useAfterPaint<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    let later: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      later = setTimeout(() => startTransition(() => setShown(value)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(later);
    };
  }, [value]);
  return shown;
}
