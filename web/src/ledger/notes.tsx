import { useState } from 'react';
import { usePapersQuery, usePicturesQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useLedgerInfiniteQuery, useRemoveNoteMutation, useWriteNoteMutation } from './ledger-api.ts';

/** What a note is about; nothing in particular where both are absent. */
interface About {
  readonly pictureId?: string;
  readonly paperId?: string;
}

/** Notes about a picture or a paper, the newest first, and a way to another. */
export function NotesOf(about: About) {
  const { data } = useLedgerInfiniteQuery({ kind: 'note', ...about });
  const [remove, removing] = useRemoveNoteMutation();
  return (
    <section aria-label="Notes" className="border-t border-line pt-2">
      <h3>Notes</h3>
      <ErrorNote error={removing.error} />
      <ul>
        {data?.pages
          .flatMap((p) => p.entries)
          .map((e) => (
            <li key={e.id} className="py-1">
              <p className="font-serif break-words whitespace-pre-line">{e.reason}</p>
              <p className="flex items-baseline gap-3 text-[13px] text-quiet">
                {[e.details.by, day(e.at)].filter(Boolean).join(', ')}
                <QuietButton onClick={() => void remove(e.id)} aria-label={`Take the note of ${day(e.at)} away`}>
                  Take away
                </QuietButton>
              </p>
            </li>
          ))}
      </ul>
      <WriteNote about={about} />
    </section>
  );
}

/** A button, and the sheet a note is written on. @param about what it is about; asked where absent */
export function WriteNote({ about }: { about?: About }) {
  const [writing, setWriting] = useState(false);
  return (
    <>
      <Button onClick={() => setWriting(true)}>Write a note</Button>
      {writing && <NoteDialog about={about} onClose={() => setWriting(false)} />}
    </>
  );
}

function NoteDialog({ about, onClose }: { about?: About; onClose: () => void }) {
  const { data: papers = [] } = usePapersQuery();
  const { data: pictures = [] } = usePicturesQuery();
  const [text, setText] = useState('');
  const [by, setBy] = useState('');
  const [of, setOf] = useState('');
  const [write, writing] = useWriteNoteMutation();
  const dispatch = useAppDispatch();
  const asked = about ?? (of ? JSON.parse(of) : {});
  const keep = () =>
    void write({ text, ...(by.trim() && { by }), ...(asked as About) })
      .unwrap()
      .then(
        () => {
          dispatch(said('The note is in the ledger.'));
          onClose();
        },
        () => undefined,
      );
  return (
    <Dialog
      open
      onClose={onClose}
      title="A note"
      description="It is entered with today’s date, and found by its words."
    >
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <AreaField label="What is to be remembered" autoFocus value={text} onChange={(e) => setText(e.target.value)} />
        <div className="grid grid-cols-2 gap-3">
          {!about && (
            <ChoiceField
              label="About"
              value={of}
              onChange={(e) => setOf(e.target.value)}
              options={[
                ['', 'nothing in particular'],
                ...pictures.map((p) => [JSON.stringify({ pictureId: p.id }), p.title] as const),
                ...papers.map((p) => [JSON.stringify({ paperId: p.id }), `${p.maker} ${p.name}`] as const),
              ]}
            />
          )}
          <TextField label="Written by" maxLength={80} value={by} onChange={(e) => setBy(e.target.value)} />
        </div>
        <ErrorNote error={writing.error} />
        <p className="flex gap-3">
          <Button type="submit" disabled={!text.trim() || writing.isLoading}>
            Enter it
          </Button>
          <QuietButton onClick={onClose}>Leave it</QuietButton>
        </p>
      </form>
    </Dialog>
  );
}
