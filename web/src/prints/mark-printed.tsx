import { useState } from 'react';
import { Button, QuietButton } from '../parts/button.tsx';
import { TextField } from '../parts/form.tsx';

/** As large as a finger in a glove. */
export const FINGER = 'min-h-[44px] min-w-28 justify-center';

interface Marking {
  /** Checks that are still open, in words. */
  open: readonly string[];
  busy: boolean;
  main?: boolean;
  onDone: (done: { passReason?: string }) => void;
}

/** Marks a print as printed: once its checks are done, or for a reason that is recorded. */
export function MarkPrinted({ open, busy, main, onDone }: Marking) {
  return (
    <Button main={main} className={FINGER} disabled={busy || open.length > 0} onClick={() => onDone({})}>
      Mark as printed
    </Button>
  );
}

/** What is not checked yet, and the way to mark the print as printed all the same. */
export function NotChecked({ open, busy, onDone }: Marking) {
  const [passing, setPassing] = useState(false);
  if (open.length === 0) return null;
  return (
    <div className="mt-2 text-[13px]">
      <p>
        <b>Not checked yet:</b> {open.join(', ')}.{' '}
        {!passing && <QuietButton onClick={() => setPassing(true)}>Mark as printed without these checks</QuietButton>}
      </p>
      {passing && (
        <form
          aria-label="Without these checks"
          className="mt-1 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            const passReason = String(new FormData(e.currentTarget).get('reason') ?? '').trim();
            if (passReason) onDone({ passReason });
          }}
        >
          <TextField label="Why it was printed without them" name="reason" required maxLength={200} autoFocus />
          <Button type="submit" className={FINGER} disabled={busy}>
            Mark as printed
          </Button>
          <QuietButton onClick={() => setPassing(false)}>Cancel</QuietButton>
        </form>
      )}
    </div>
  );
}
