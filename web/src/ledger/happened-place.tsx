import { useState } from 'react';
import type { BinEntry, EventView } from '@rakuen/contract/events';
import { useBinQuery, useEventsQuery, useUndoDeedMutation } from './record-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { wordsOf } from '../parts/conflict.tsx';
import { hour } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';

/** What was removed and can come back, and everything that happened, the newest first. */
export function HappenedPlace() {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)] gap-x-10 gap-y-6 max-[1150px]:grid-cols-1">
      <Bin />
      <Happened />
    </div>
  );
}

function useBringBack() {
  const [undo, undoing] = useUndoDeedMutation();
  const dispatch = useAppDispatch();
  return {
    undoing,
    bringBack: (change: string, words: string) =>
      void undo(change)
        .unwrap()
        .then(
          () => dispatch(said(words)),
          () => undefined,
        ),
  };
}

function Bin() {
  const { data: bin, error } = useBinQuery(undefined, { refetchOnMountOrArgChange: true });
  const { undoing, bringBack } = useBringBack();
  return (
    <section aria-label="The bin">
      <h2 className="text-[1.15rem]">The bin</h2>
      <p className="mb-2 text-[13px] text-quiet">
        What was removed, with all that belonged to it. Nothing is ever emptied out.
      </p>
      <ErrorNote error={error ?? undoing.error} />
      {!bin && !error && <Waiting what="Opening the bin" />}
      {bin?.length === 0 && <p>Nothing was removed.</p>}
      <ul className="border-t border-edge">
        {bin?.map((entry: BinEntry) => (
          <li key={entry.change} className="flex items-baseline gap-4 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <span className="font-serif text-[1.05rem]">{entry.name || entry.noun}</span>{' '}
              <span className="text-[13px] text-quiet">
                {entry.name && `${entry.noun}, `}
                {hour(entry.at)}
                {entry.parts && `, with ${entry.parts}`}
              </span>
            </span>
            <Button
              aria-label={`Bring ${entry.noun} ${entry.name} back`}
              onClick={() => bringBack(entry.change, `${entry.name || entry.noun} is back.`)}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const DEEDS: Record<EventView['deed'], string> = { made: 'new', changed: 'changed', removed: 'removed' };
const FIRST_SHOWN = 40;

function Happened() {
  const { data: events, error } = useEventsQuery(undefined, { refetchOnMountOrArgChange: true });
  const { undoing, bringBack } = useBringBack();
  const [all, setAll] = useState(false);
  const shown = all ? events : events?.slice(0, FIRST_SHOWN);
  return (
    <section aria-label="What happened">
      <h2 className="text-[1.15rem]">What happened</h2>
      <p className="mb-2 text-[13px] text-quiet">Everything that was made, changed or removed, the newest first.</p>
      <ErrorNote error={error ?? undoing.error} />
      {!events && !error && <Waiting what="Reading the record" />}
      <ol className="border-t border-edge">
        {shown?.map((e) => (
          <li
            key={e.seq}
            className="grid grid-cols-[150px_70px_minmax(0,1fr)_auto] items-baseline gap-x-3 border-b border-line py-1 text-[13px]"
          >
            <time dateTime={e.at} className="text-quiet">
              {hour(e.at)}
            </time>
            <span>{DEEDS[e.deed]}</span>
            <span className="min-w-0 break-words">
              {e.noun} {e.name && <span className="font-serif">{e.name}</span>}
              {e.changes.map((c) => (
                <span key={c.field} className="block text-quiet">
                  {wordsOf(c.field)}: {c.before || '—'} → {c.after || '—'}
                </span>
              ))}
            </span>
            {e.undoable && (
              <QuietButton
                aria-label={`Undo the change of ${e.noun} ${e.name}, ${hour(e.at)}`}
                onClick={() => bringBack(e.change, `${e.name || e.noun} is as it was.`)}
              >
                Undo
              </QuietButton>
            )}
          </li>
        ))}
      </ol>
      {events && !all && events.length > FIRST_SHOWN && (
        <QuietButton onClick={() => setAll(true)}>Show {events.length - FIRST_SHOWN} older</QuietButton>
      )}
    </section>
  );
}
