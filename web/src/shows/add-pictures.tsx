import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';

/** Pictures that are listed at once; the others are found by their title. */
const MAX_LISTED = 60;

/** Chooses pictures for a show among those that are not in it. */
export function AddPictures({
  pictures,
  room,
  onAdd,
  onClose,
}: {
  pictures: readonly PictureView[];
  /** So many more may be added. */
  room: number;
  onAdd: (ids: string[]) => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const found = pictures.filter((p) => p.title.toLowerCase().includes(words.trim().toLowerCase()));
  const listed = found.slice(0, MAX_LISTED);
  const toggle = (id: string) => setChosen(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
  return (
    <Dialog open onClose={onClose} wide title="Add pictures">
      <label className="mb-2 flex items-center gap-2">
        <span className="text-quiet">Title contains</span>
        <input
          type="search"
          autoFocus
          value={words}
          onChange={(e) => setWords(e.target.value)}
          className="min-h-8 flex-1 rounded-[3px] border border-edge bg-field px-2"
        />
      </label>
      <ul aria-label="Pictures to add" className="grid grid-cols-2 gap-x-6">
        {listed.map((p) => (
          <li key={p.id} className="border-t border-line">
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={chosen.includes(p.id)}
                onChange={() => toggle(p.id)}
              />
              <img src={`/api/pictures/${p.id}/preview`} alt="" loading="lazy" className="h-9 w-14 object-contain" />
              <span className="min-w-0 font-serif break-words">{p.title}</span>
            </label>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="text-quiet">No other picture has these words in its title.</p>}
      {found.length > listed.length && (
        <p className="mt-2 text-[13px] text-quiet">
          {found.length - listed.length} more: enter a part of their titles.
        </p>
      )}
      {chosen.length > room && (
        <p role="alert" className="mt-2 font-semibold">
          A show holds {room} more pictures at most. Remove some from the selection.
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button main disabled={chosen.length === 0 || chosen.length > room} onClick={() => onAdd([...chosen])}>
          Add {chosen.length === 1 ? 'the picture' : `${chosen.length} pictures`}
        </Button>
        <QuietButton onClick={() => setChosen([...new Set([...chosen, ...found.map((p) => p.id)])])}>
          Select all {found.length}
        </QuietButton>
        <QuietButton onClick={onClose}>Cancel</QuietButton>
      </div>
    </Dialog>
  );
}
