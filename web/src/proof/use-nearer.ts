import { useEffect, useRef, type RefObject } from 'react';
import { nearer, type Part } from '@rakuen/core/proof/part';

/** A turn of the wheel with its key held, or two fingers drawn apart: nearer about the pointer. */
export function useNearer(
  frame: RefObject<HTMLDivElement | null>,
  part: Part,
  beside: boolean,
  onPart: (part: Part) => void,
): void {
  const latest = useRef({ part, beside, onPart });
  latest.current = { part, beside, onPart };
  useEffect(() => {
    const element = frame.current!;
    const turn = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const across = (event.clientX - box.left) / box.width;
      const { part: now, beside: two, onPart: to } = latest.current;
      const at = { x: two ? (across * 2) % 1 : across, y: (event.clientY - box.top) / box.height };
      to(nearer(now, Math.exp(-event.deltaY / 300), at));
    };
    // Not passive: the page itself must not grow.
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  }, [frame]);
}
