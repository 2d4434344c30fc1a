import type { ReactNode } from 'react';
import type { ModelView } from '@rakuen/contract/profiles';
import { formatNumber } from '@rakuen/core/measurement/show';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useLeaveOutPatchesMutation } from './reading-api.ts';

/** Files a model does not use, and patches that were left out or should be read again. */
export function DoubtfulReadings({ model }: { model: ModelView }) {
  const { error, leftOut, leftOutPatches, questionedIn } = model;
  const dispatch = useAppDispatch();
  const [leaveOut, leaving] = useLeaveOutPatchesMutation();
  const ofReading = (id: string) => leftOutPatches.filter((p) => p.readingId === id).map((p) => p.patch);
  const change = async (readingId: string, patches: string[], words: string) => {
    const done = await leaveOut({ readingId, patches });
    if ('data' in done) dispatch(said(words));
  };
  const without = (readingId: string, patch: string) =>
    void change(readingId, [...ofReading(readingId), patch], `${patch} left out.`);
  const again = (readingId: string, patch: string) =>
    void change(
      readingId,
      ofReading(readingId).filter((p) => p !== patch),
      `${patch} used again.`,
    );
  return (
    <>
      <Lines title="Readings left out, in whole or in part">
        {leftOut.map((l, i) => (
          <li key={i} className="break-words">
            {l.fileName}: {l.why}.
          </li>
        ))}
      </Lines>
      <Lines
        title="Patches to read again"
        says="The other patches contradict these. They stay in the model until a second reading decides, or you leave them out."
      >
        {error.questioned.map((q, i) => (
          <Patch
            key={q.patch}
            words={`${q.patch}: ${formatNumber(q.deltaE00, 1)} ΔE00 from what the others predict`}
            act={questionedIn[i] ? { label: 'Leave out', of: `Leave out ${q.patch}` } : undefined}
            busy={leaving.isLoading}
            onAct={() => questionedIn[i] && without(questionedIn[i], q.patch)}
          />
        ))}
      </Lines>
      <Lines title="Patches left out">
        {[
          ...error.contradicted.map((c) => (
            <li key={c.patch}>
              {c.patch}: a second reading differs by {formatNumber(c.deltaE00, 1)} ΔE00
            </li>
          )),
          ...leftOutPatches.map(({ readingId, patch }) => (
            <Patch
              key={`${readingId} ${patch}`}
              words={`${patch}: left out by hand`}
              act={{ label: 'Use again', of: `Use ${patch} again` }}
              busy={leaving.isLoading}
              onAct={() => again(readingId, patch)}
            />
          )),
        ]}
      </Lines>
      <ErrorNote error={leaving.error} />
    </>
  );
}

/** A list under a title; nothing where the list is empty. */
function Lines({ title, says, children }: { title: string; says?: string; children: readonly ReactNode[] }) {
  if (children.length === 0) return null;
  return (
    <section aria-label={title}>
      <h4 className="font-semibold">{title}</h4>
      {says && <p className="text-[13px] text-quiet">{says}</p>}
      <ul>{children}</ul>
    </section>
  );
}

/** A patch, and what can be done with it. */
function Patch({
  words,
  act,
  busy,
  onAct,
}: {
  words: string;
  act?: { label: string; of: string };
  busy: boolean;
  onAct: () => void;
}) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-3">
      <span>{words}</span>
      {act && (
        <QuietButton disabled={busy} aria-label={act.of} onClick={onAct}>
          {act.label}
        </QuietButton>
      )}
    </li>
  );
}
