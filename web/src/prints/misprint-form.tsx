import { useState } from 'react';
import type { MisprintInput } from '@rakuen/contract/runs';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useBookMisprintMutation, useCausesQuery } from './print-api.ts';

const NEW_CAUSE = '…';
const NO_LOOK = '';
/** Looks before a sheet that could have caught it. */
const LOOKS = [
  'nozzle check',
  'head alignment',
  'coated side',
  'flat corners',
  'media setting',
  'colour management off',
  'gloves',
];

/** Books spoilt sheets there and then, with their cause. */
export function MisprintForm({
  printId,
  onClose,
  book: booked,
}: {
  printId: string;
  onClose: () => void;
  /** Books it another way: from a run. */
  book?: (misprint: MisprintInput) => Promise<unknown>;
}) {
  const dispatch = useAppDispatch();
  const { data: causes = [] } = useCausesQuery();
  const [book, booking] = useBookMisprintMutation();
  const [cause, setCause] = useState('');
  const [own, setOwn] = useState('');
  const [look, setLook] = useState(NO_LOOK);
  const [sheets, setSheets] = useState('1');
  const [wrong, setWrong] = useState('');
  const isNew = cause === NEW_CAUSE;
  const submit = async () => {
    const name = isNew ? own.trim() : cause;
    if (!name) return setWrong('A misprint wants its cause');
    const misprint = { cause: name, sheets: Number(sheets) || 1, ...(isNew && look && { look }) };
    await (booked ? booked(misprint) : book({ id: printId, misprint }).unwrap());
    dispatch(said(`${misprint.sheets === 1 ? 'A sheet is' : `${misprint.sheets} sheets are`} booked: ${name}.`));
    onClose();
  };
  return (
    <form
      aria-label="Sheet spoiled"
      className="flex flex-wrap items-end gap-3 border border-edge bg-sheet px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        void submit().catch(() => undefined);
      }}
    >
      <ChoiceField
        label="What spoiled it"
        error={wrong}
        value={cause}
        onChange={(e) => {
          setCause(e.target.value);
          setWrong('');
        }}
        options={[['', 'choose'], ...causes.map((c) => [c.name, c.name] as const), [NEW_CAUSE, 'something new…']]}
      />
      {isNew && (
        <>
          <TextField
            label="In a few words"
            maxLength={80}
            value={own}
            onChange={(e) => setOwn(e.target.value)}
            autoFocus
          />
          <ChoiceField
            label="Caught by"
            value={look}
            onChange={(e) => setLook(e.target.value)}
            options={[[NO_LOOK, 'no look'], ...LOOKS.map((l) => [l, l] as const)]}
          />
        </>
      )}
      <TextField
        label="Sheets"
        inputMode="numeric"
        value={sheets}
        onChange={(e) => setSheets(e.target.value)}
        className="w-20"
      />
      <Button type="submit" disabled={booking.isLoading}>
        Book it
      </Button>
      <QuietButton onClick={onClose}>Leave it</QuietButton>
      <ErrorNote error={booking.error} />
    </form>
  );
}
