import { useState } from 'react';
import { Link } from 'react-router';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { Empty, ErrorNote } from '../parts/messages.tsx';
import { presenceOf, type TypedTime } from './clock.ts';
import { usePlanRunMutation, usePrintsQuery } from './print-api.ts';

const NO_TIME: TypedTime = { from: '', to: '' };

/** Plans a run of what waits for a printer. */
export function PlanRun({ open }: { open: readonly string[] }) {
  const { data: waiting = [] } = usePrintsQuery('waiting');
  const [plan, planning] = usePlanRunMutation();
  const printers = [...new Set(waiting.map((p) => p.settings.printer))].filter((p) => !open.includes(p));
  const [chosen, setPrinter] = useState('');
  const printer = printers.includes(chosen) ? chosen : printers[0];
  const [times, setTimes] = useState<readonly TypedTime[]>([NO_TIME]);
  if (printer === undefined) return open.length > 0 ? null : <NothingWaits />;
  const count = waiting.filter((p) => p.settings.printer === printer).length;
  const set = (at: number, time: Partial<TypedTime>) =>
    setTimes(times.map((t, i) => (i === at ? { ...t, ...time } : t)));
  return (
    <form
      aria-label="Plan a run"
      className="mt-4 flex flex-wrap items-end gap-3 border border-edge bg-field px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        void plan({ printer, present: presenceOf(times, new Date()) });
      }}
    >
      <ChoiceField
        label="Printer"
        value={printer}
        onChange={(e) => setPrinter(e.target.value)}
        options={named(printers)}
      />
      <fieldset className="flex flex-wrap items-end gap-3">
        <legend className="text-[13px] text-quiet">At the printer; empty: all the time</legend>
        {times.map((time, i) => (
          <span key={i} className="flex items-end gap-1">
            <TextField
              label={`From${times.length > 1 ? ` (${i + 1})` : ''}`}
              type="time"
              value={time.from}
              onChange={(e) => set(i, { from: e.target.value })}
              className="w-28"
            />
            <TextField
              label={`To${times.length > 1 ? ` (${i + 1})` : ''}`}
              type="time"
              value={time.to}
              required={time.from !== ''}
              onChange={(e) => set(i, { to: e.target.value })}
              className="w-28"
            />
            {times.length > 1 && (
              <QuietButton
                aria-label={`Remove time ${i + 1}`}
                onClick={() => setTimes(times.filter((_, other) => other !== i))}
              >
                Remove
              </QuietButton>
            )}
          </span>
        ))}
        <QuietButton onClick={() => setTimes([...times, NO_TIME])}>Add a time</QuietButton>
      </fieldset>
      <Button main type="submit" disabled={planning.isLoading}>
        {planning.isLoading ? 'Planning…' : `Plan ${count === 1 ? 'one print' : `${count} prints`}`}
      </Button>
      <ErrorNote error={planning.error} />
    </form>
  );
}

function NothingWaits() {
  return (
    <Empty
      title="No print waits for a printer"
      action={
        <Link className="underline" to="/prints">
          To the chosen prints
        </Link>
      }
    >
      Begin prints first. Here they are put in the order that changes ink and feed least, and are marked as they come
      out.
    </Empty>
  );
}
