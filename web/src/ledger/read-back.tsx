import { useState } from 'react';
import { QuietButton } from '../parts/button.tsx';
import { FileButton } from '../parts/file-button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useReadLedgerMutation } from './ledger-api.ts';

/** Reads a ledger that was taken away as JSON back in, and says what became of it. */
export function ReadBack() {
  const [read, { data, error, reset }] = useReadLedgerMutation();
  const [all, setAll] = useState(false);
  return (
    <>
      <FileButton label="Read a ledger back" accept=".json,application/json" onFile={(file) => void read(file)} />
      {(error || data) && (
        <div className="basis-full">
          <ErrorNote error={error} />
          {data && (
            <div role="status" className="border border-edge bg-field px-4 py-3">
              <p>
                {data.entered} entered, {data.known} were here already
                {data.papers > 0 && `, ${data.papers === 1 ? 'one paper' : `${data.papers} papers`} added by name`}
                {data.leftOut > 0 && `, ${data.leftOut} left out:`}
              </p>
              <ul className="text-[13px]">
                {(all ? data.left : data.left.slice(0, FIRST_TOLD)).map((l) => (
                  <li key={l.entry}>
                    Entry {l.entry}: {l.why}
                  </li>
                ))}
              </ul>
              <p className="mt-1 flex gap-4">
                {!all && data.left.length > FIRST_TOLD && (
                  <QuietButton onClick={() => setAll(true)}>
                    {data.leftOut > data.left.length
                      ? `The first ${data.left.length} of them`
                      : 'All that was left out'}
                  </QuietButton>
                )}
                <QuietButton onClick={reset}>Close</QuietButton>
              </p>
            </div>
          )}
        </div>
      )}
    </>
  );
}

/** What was left out and is told at once. */
const FIRST_TOLD = 5;
