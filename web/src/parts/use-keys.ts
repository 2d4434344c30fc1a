import { useEffect, useRef } from 'react';

/** Single keys that act while nobody is typing and no dialog is open. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const target = event.target as HTMLElement;
      if (target.closest('input:not([type=checkbox]), textarea, select, [contenteditable], [role=dialog], [role=menu]'))
        return;
      const act = latest.current[event.key];
      if (!act) return;
      event.preventDefault();
      act(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** Up and down between the rows of a list: elements marked `data-row`. */
export function moveFocus(event: { key: string; currentTarget: HTMLElement; preventDefault: () => void }): void {
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (by === 0) return;
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-row]')];
  const at = rows.findIndex((row) => row.contains(document.activeElement));
  const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

/** The id of the row that has the focus, if it is of this kind. */
export function focusedRow(kind: string): string | undefined {
  return document.activeElement?.closest<HTMLElement>(`[data-row][data-kind="${kind}"]`)?.dataset.id;
}
