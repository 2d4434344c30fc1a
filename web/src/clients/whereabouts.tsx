import { useState } from 'react';
import type { MoveView } from '@rakuen/contract/clients';
import type { PrintLook } from '@rakuen/contract/prints';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useRemoveMoveMutation } from './client-api.ts';
import { MoveForm, type Movable } from './move-form.tsx';
import { whereWords } from './move-words.ts';

/** Where the copies of a print are, and where they were. */
export function Whereabouts({ look: { print, whereabouts } }: { look: PrintLook }) {
  const { neverMoved, moves } = whereabouts;
  const [moving, setMoving] = useState<string>();
  const standing = moves.filter((m) => m.standing > 0);
  const groups: (Movable & { key: string; words: string })[] = [
    ...(neverMoved > 0
      ? [
          {
            key: 'studio',
            printId: print.id,
            at: 'studio' as const,
            copies: neverMoved,
            called: neverMoved === 1 ? 'This print' : 'Copies of this print',
            words: `${neverMoved > 1 ? `${neverMoved} copies ` : ''}in the studio`,
          },
        ]
      : []),
    ...standing.map((m) => ({
      key: m.id,
      printId: m.printId,
      numberId: m.numberId,
      fromId: m.id,
      at: m.to,
      copies: m.standing,
      called: m.what,
      words: `${m.number ? `${m.number}: ` : m.standing > 1 ? `${m.standing} copies ` : ''}${whereWords(m)}`,
    })),
  ];
  return (
    <section aria-label="Where it is">
      <h3>Where it is</h3>
      <ul>
        {groups.map((g) => (
          <li key={g.key} className="py-0.5">
            {g.words}
            {g.at !== 'destroyed' && (
              <QuietButton
                className="ml-2 text-[13px]"
                aria-expanded={moving === g.key}
                aria-label={`Move: ${g.words}`}
                onClick={() => setMoving(moving === g.key ? undefined : g.key)}
              >
                Move
              </QuietButton>
            )}
            {moving === g.key && <MoveForm of={g} onDone={() => setMoving(undefined)} />}
          </li>
        ))}
      </ul>
      {groups.length === 0 && <p className="text-[13px] text-quiet">Every copy bears a number; see Editions.</p>}
      <History moves={moves} />
    </section>
  );
}

/** Every move from old to new; the last of each can be removed. */
export function History({ moves }: { moves: readonly MoveView[] }) {
  const dispatch = useAppDispatch();
  const [remove, removing] = useRemoveMoveMutation();
  if (moves.length === 0) return null;
  return (
    <details className="text-[13px]">
      <summary className="cursor-pointer text-quiet">History, {moves.length}</summary>
      <ol>
        {moves.map((m) => (
          <li key={m.id} className="border-b border-line py-1">
            {m.copies > 1 && `${m.copies} copies `}
            {whereWords({ ...m, daysOverdue: 0 })}
            {m.note && <span className="font-serif"> {m.note}</span>}
            {!moves.some((x) => x.fromId === m.id) && (
              <QuietButton
                className="ml-2"
                disabled={removing.isLoading}
                onClick={() =>
                  void remove(m.id)
                    .unwrap()
                    .then(() => dispatch(said('The entry is removed. It can be restored from the bin.')))
                    .catch(() => undefined)
                }
              >
                Remove entry
              </QuietButton>
            )}
          </li>
        ))}
      </ol>
      <ErrorNote error={removing.error} />
    </details>
  );
}
