import { skipToken } from '@reduxjs/toolkit/query/react';
import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { EyeView } from '@rakuen/contract/eye';
import { useEyeSaysMutation, useEyesQuery, useEyeUndoMutation, useRemoveEyeMutation } from './judging-api.ts';
import { useConditionsQuery, useWholeConditionsQuery } from '../api/api.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { Button, QuietButton } from '../parts/button.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { EyeBegin } from './eye-begin.tsx';
import { QUESTIONS } from './eye-questions.ts';
import { EyeResult } from './eye-result.tsx';
import { printName } from './print-name.ts';
import type { CompareProps } from './compare-props.ts';

/** Prints compared by eye, two at a time, behind codes. */
export function EyePlace({ laid }: CompareProps) {
  const { data: eyes, error } = useEyesQuery();
  const { data: heads = [] } = useConditionsQuery();
  const [openId, setOpen] = useState<string>();
  const open = eyes?.find((e) => e.id === openId);
  if (open) return <Session key={open.id} eye={open} onClose={() => setOpen(undefined)} />;
  return (
    <div className="grid grid-cols-2 gap-x-8 gap-y-6 max-[1150px]:grid-cols-1">
      <EyeBegin laid={laid} onBegun={setOpen} />
      <section aria-label="What eyes have said">
        <h3 className="mb-1 text-[1.1rem]">What eyes have said</h3>
        <ErrorNote error={error} />
        {!eyes && !error && <Waiting what="Fetching the comparisons" />}
        {eyes?.length === 0 && <p className="text-quiet">Nothing yet.</p>}
        <ul className="border-t border-edge">
          {eyes?.map((e) => (
            <li key={e.id} className="border-b border-line py-2">
              <QuietButton className="-ml-1.5 font-serif text-[1.05rem]" onClick={() => setOpen(e.id)}>
                {questionOf(e)}
              </QuietButton>
              <p className="break-words">{printsOf(e, heads)}</p>
              <p className="text-[13px] text-quiet">
                {e.left ? `${e.choices.length} of ${e.pairCount} looks done` : e.verdict}; {e.observer}, {e.light},{' '}
                {day(e.createdAt)}
              </p>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function Session({ eye, onClose }: { eye: EyeView; onClose: () => void }) {
  // Nothing of them is fetched before the end: until then they have no names.
  const { data: conditions = [] } = useWholeConditionsQuery(
    eye.places.length > 0 ? eye.places.map((p) => p.conditionId) : skipToken,
  );
  const [say, saying] = useEyeSaysMutation();
  const [undo, undoing] = useEyeUndoMutation();
  const [remove] = useRemoveEyeMutation();
  const [ready, setReady] = useState(eye.choices.length > 0 || !eye.left);
  const answer = (said: 'left' | 'right' | 'neither') =>
    eye.left && ready && !saying.isLoading && void say({ id: eye.id, turn: eye.choices.length, said });
  useKeys({
    ArrowLeft: () => answer('left'),
    ArrowRight: () => answer('right'),
    ArrowDown: () => answer('neither'),
    u: () => eye.choices.length > 0 && void undo(eye.id),
  });
  const nameOf = (id: string) => conditions.find((c) => c.id === id);
  return (
    <section aria-label="A blind comparison" className="space-y-4">
      <div className="flex items-baseline justify-between gap-4">
        <h3 className="text-[1.2rem]">{questionOf(eye)}</h3>
        <p className="text-[13px] text-quiet">
          {eye.observer}, {eye.light}
        </p>
      </div>
      {!ready && (
        <div className="max-w-[62ch] space-y-2 border border-edge bg-sheet p-4">
          <p>
            You are not blind once you have read which code is which print. Let another person open the codes, write
            them on the backs and lay out the prints. Or draw them face down yourself, without reading the list.
          </p>
          <p>
            <a
              className="underline underline-offset-3"
              href={`/compare/eye/${eye.id}/codes`}
              target="_blank"
              rel="noreferrer"
            >
              The codes, for the person who lays out the prints
            </a>
          </p>
          <Button main onClick={() => setReady(true)}>
            The codes are on the backs
          </Button>
        </div>
      )}
      {ready && eye.left && (
        <>
          <p role="status">
            Look {eye.choices.length + 1} of {eye.pairCount}
          </p>
          <div className="grid max-w-[720px] grid-cols-[1fr_auto_1fr] gap-5">
            <PairButton code={eye.left} side="left" onClick={() => answer('left')} disabled={saying.isLoading} />
            <Button className="self-center" onClick={() => answer('neither')} disabled={saying.isLoading}>
              Can’t tell ↓
            </Button>
            <PairButton code={eye.right!} side="right" onClick={() => answer('right')} disabled={saying.isLoading} />
          </div>
        </>
      )}
      {!eye.left && <EyeResult eye={eye} nameOf={nameOf} />}
      <ErrorNote error={saying.error ?? undoing.error} />
      <div className="flex gap-3">
        <Button onClick={onClose}>{eye.left ? 'Go on later' : 'Back to the comparisons'}</Button>
        <QuietButton disabled={eye.choices.length === 0} onClick={() => void undo(eye.id)}>
          Take the last answer back
        </QuietButton>
        <BinButton
          className="ml-auto"
          words="Remove this comparison"
          onBin={() => remove(eye.id).unwrap().then(onClose)}
        />
      </div>
    </section>
  );
}

/** The prints by name, those of one paper with what sets them apart. */
function printsOf({ conditionIds }: EyeView, heads: readonly ConditionHead[]): string {
  const known = conditionIds.map((id) => heads.find((h) => h.id === id));
  return known
    .map(
      (c) =>
        c &&
        printName(
          c,
          known.filter((o) => o !== undefined),
        ),
    )
    .map((name) => name ?? 'a print condition that was removed')
    .join(' · ');
}

const questionOf = ({ criterion, question }: EyeView) => question || QUESTIONS[criterion];

function PairButton({
  code,
  side,
  onClick,
  disabled,
}: {
  code: string;
  side: 'left' | 'right';
  onClick: () => void;
  disabled: boolean;
}) {
  return (
    <button
      type="button"
      disabled={disabled}
      onClick={onClick}
      aria-label={`${side === 'left' ? 'Left' : 'Right'}: ${code}`}
      className="flex min-h-44 flex-col items-center justify-center border border-edge bg-sheet hover:bg-field"
    >
      <span className="font-serif text-[2.4rem] leading-none">{code}</span>
      <span className="mt-2 text-[13px] text-quiet">{side === 'left' ? '← the left one' : 'the right one →'}</span>
    </button>
  );
}
