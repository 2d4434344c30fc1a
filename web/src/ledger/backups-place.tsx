import { useRef } from 'react';
import { useBackupsQuery, useMakeBackupMutation, useRestoreBackupMutation } from './record-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { Download } from '../parts/download.tsx';
import { hour } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';

const KINDS: Record<string, string> = { daily: 'of the day', asked: 'asked for', before: 'before a new version' };
const MEGA = 2 ** 20;

/** The studio in one file: made by itself once a day, on demand, and before the program changes the form of what it keeps. */
export function BackupsPlace() {
  const { data: backups, error } = useBackupsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [make, making] = useMakeBackupMutation();
  const [restore, restoring] = useRestoreBackupMutation();
  const dispatch = useAppDispatch();
  const chooser = useRef<HTMLInputElement>(null);
  const put = (file: File) =>
    void restore(file)
      .unwrap()
      .then(
        () => dispatch(said('The backup is sound. It is put in place when Rakuen is started again.')),
        () => undefined,
      );
  return (
    <section aria-label="Backups" className="max-w-[80ch]">
      <p className="mb-3 text-[13px] text-quiet">
        One file holds everything: what is recorded, and every picture and reading as it came. It is kept in the data
        folder; take it to another disk from time to time.
      </p>
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <Button
          main
          disabled={making.isLoading}
          onClick={() =>
            void make()
              .unwrap()
              .then(
                () => dispatch(said('Backup made.')),
                () => undefined,
              )
          }
        >
          {making.isLoading ? 'Making a backup…' : 'Make a backup now'}
        </Button>
        <Button disabled={restoring.isLoading} onClick={() => chooser.current?.click()}>
          {restoring.isLoading ? 'Looking it over…' : 'Put a backup back'}
        </Button>
        <input
          ref={chooser}
          type="file"
          accept=".zip"
          aria-label="A backup to put back"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => {
            const [file] = e.target.files ?? [];
            if (file) put(file);
            e.target.value = '';
          }}
        />
      </div>
      {restoring.isSuccess && (
        <p role="status" className="mb-3 border-l-4 border-ink bg-field px-3 py-2">
          It was looked over and is sound. Stop Rakuen and start it again: then it is in place, and today’s studio is
          kept beside it.
        </p>
      )}
      <ErrorNote error={error ?? making.error ?? restoring.error} />
      {!backups && !error && <Waiting what="Looking for backups" />}
      {backups?.length === 0 && <p>None yet; the first of the day is made a minute after the start.</p>}
      <ul className="border-t border-edge">
        {backups?.map((b) => (
          <li key={b.name} className="flex items-baseline gap-4 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              {hour(b.at)} <span className="text-[13px] text-quiet">{KINDS[b.name.split('-')[0]] ?? ''}</span>
            </span>
            <span className="text-[13px] text-quiet">{(b.bytes / MEGA).toFixed(1)} MB</span>
            <Download href={`/api/backups/${b.name}`} label={`Backup of ${hour(b.at)}`}>
              Export
            </Download>
          </li>
        ))}
      </ul>
    </section>
  );
}
