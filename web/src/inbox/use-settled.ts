import { useEffect, useState } from 'react';

/** So long a changed row takes no click: a hand that was on its way meant what stood there before. */
const HOLD_MS = 700;

/** Whether what a row says has stood still for a moment. @param sign changes whenever what it says does */
export function useSettled(sign: string): boolean {
  const [settled, setSettled] = useState<string>();
  useEffect(() => {
    const timer = setTimeout(() => setSettled(sign), HOLD_MS);
    return () => clearTimeout(timer);
  }, [sign]);
  return settled === sign;
}
