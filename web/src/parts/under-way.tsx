import { useEffect, useState } from 'react';
import { useFarQuery, useLeaveMutation } from '../api/under-way-api.ts';
import { QuietButton } from './button.tsx';

/** Names under which this window asks for what takes long. */
const names = new Map<string, string>();
export function workOf(kind: 'match' | 'show' | 'model'): string {
  const known = names.get(kind) ?? crypto.randomUUID();
  names.set(kind, known);
  return known;
}

/** What takes less than this is not worth a word. */
const WORTH_A_WORD_MS = 500;

/** Something takes long: how far it is, and a way out. */
export function UnderWay({
  what,
  work,
  far: farWords,
}: {
  what: string;
  work: string;
  far: (done: number, total: number) => string;
}) {
  const [worth, setWorth] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWorth(true), WORTH_A_WORD_MS);
    return () => clearTimeout(timer);
  }, []);
  const { data } = useFarQuery(work, { pollingInterval: WORTH_A_WORD_MS, refetchOnMountOrArgChange: true });
  const [leave, leaving] = useLeaveMutation();
  const far = worth && data && data.total > 0 ? data : undefined;
  return (
    <div className="flex flex-wrap items-center gap-x-4">
      <p role="status" className="text-quiet">
        {what}…{far ? ` ${farWords(far.done, far.total)}` : ''}
      </p>
      {far && (
        <>
          <progress aria-label={what} className="h-2 w-48 accent-ink" value={far.done} max={far.total} />
          <QuietButton disabled={leaving.isLoading || leaving.isSuccess} onClick={() => void leave(work)}>
            Leave it
          </QuietButton>
        </>
      )}
    </div>
  );
}

/** Sheets are being laid. A sheet that was never laid is learned first, once. */
export const sheetsLie = (done: number, total: number): string =>
  `${done} of ${total} sheets lie there; what was read is learned once.`;
