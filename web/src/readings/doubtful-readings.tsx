import type { ModelView } from '@rakuen/contract/profiles';
import { formatNumber } from '@rakuen/core/measurement/show';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useLeaveOutPatchesMutation } from './reading-api.ts';

/** Files a model does not use, and patches that were left out or should be read again. */
export function DoubtfulReadings({ model }: { model: ModelView }) {
  const { error, leftOut, leftOutPatches, primaryReadingId } = model;
  const dispatch = useAppDispatch();
  const [leaveOut, leaving] = useLeaveOutPatchesMutation();
  const change = async (readingId: string, patches: string[], words: string) => {
    const done = await leaveOut({ readingId, patches });
    if ('data' in done) dispatch(said(words));
  };
  const ofReading = (id: string) => leftOutPatches.filter((p) => p.readingId === id).map((p) => p.patch);
  return (
    <>
      {leftOut.length > 0 && (
        <section aria-label="Readings not used">
          <h4 className="font-semibold">Readings not used</h4>
          <ul>
            {leftOut.map((l, i) => (
              <li key={i} className="break-words">
                {l.fileName}: {l.why}.
              </li>
            ))}
          </ul>
        </section>
      )}
      {error.questioned.length > 0 && (
        <section aria-label="Patches to read again">
          <h4 className="font-semibold">Patches to read again</h4>
          <p className="text-[13px] text-quiet">
            The other patches contradict these. They stay in the model until a second reading decides, or you leave them
            out.
          </p>
          <ul>
            {error.questioned.map((q) => (
              <li key={q.patch} className="flex flex-wrap items-baseline gap-x-3">
                <span>
                  {q.patch}: {formatNumber(q.deltaE00, 1)} ΔE00 from what the others predict
                </span>
                {primaryReadingId && (
                  <QuietButton
                    disabled={leaving.isLoading}
                    aria-label={`Leave out ${q.patch}`}
                    onClick={() =>
                      void change(primaryReadingId, [...ofReading(primaryReadingId), q.patch], `${q.patch} left out.`)
                    }
                  >
                    Leave out
                  </QuietButton>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {(error.contradicted.length > 0 || leftOutPatches.length > 0) && (
        <section aria-label="Patches left out">
          <h4 className="font-semibold">Patches left out</h4>
          <ul>
            {error.contradicted.map((c) => (
              <li key={c.patch}>
                {c.patch}: a second reading differs by {formatNumber(c.deltaE00, 1)} ΔE00
              </li>
            ))}
            {leftOutPatches.map(({ readingId, patch }) => (
              <li key={`${readingId} ${patch}`} className="flex flex-wrap items-baseline gap-x-3">
                <span>{patch}: left out by hand</span>
                <QuietButton
                  disabled={leaving.isLoading}
                  aria-label={`Use ${patch} again`}
                  onClick={() =>
                    void change(
                      readingId,
                      ofReading(readingId).filter((p) => p !== patch),
                      `${patch} used again.`,
                    )
                  }
                >
                  Use again
                </QuietButton>
              </li>
            ))}
          </ul>
        </section>
      )}
      <ErrorNote error={leaving.error} />
    </>
  );
}
