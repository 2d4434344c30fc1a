import { useState } from 'react';
import type { KeptMatch } from '@rakuen/contract/matches';
import type { RankedSheet } from '@rakuen/core/match/rank';
import { formatNumber } from '@rakuen/core/measurement/show';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useForgetMatchMutation, useKeepMatchMutation, useKeptMatchesQuery } from './match-api.ts';

/** Scores nearer than this are the same. */
const MOVED = 0.1;

/** Matches of a picture that were kept, and what moved since. */
export function KeptMatches({
  pictureId,
  conditionIds,
  weights,
  now,
}: {
  pictureId: string;
  conditionIds?: string[];
  weights: Record<string, number>;
  now: readonly RankedSheet[];
}) {
  const { data: kept = [] } = useKeptMatchesQuery(pictureId);
  const [keep, { error, isLoading }] = useKeepMatchMutation();
  const [forget, forgetting] = useForgetMatchMutation();
  const [opened, setOpened] = useState<KeptMatch>();
  const dispatch = useAppDispatch();
  return (
    <section aria-label="Saved matches">
      <div className="flex items-baseline gap-3">
        <Button
          disabled={isLoading}
          onClick={() => {
            const name = `${new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })}`;
            void keep({ pictureId, conditionIds, weights, name })
              .unwrap()
              .then(
                () => dispatch(said('The match is saved.')),
                () => undefined,
              );
          }}
        >
          Save this match
        </Button>
        <span className="text-[13px] text-quiet">with its figures, weights and reasons of today</span>
      </div>
      <ErrorNote error={error ?? forgetting.error} />
      {kept.length > 0 && (
        <ul className="mt-2 text-[13px]">
          {kept.map((k) => (
            <li key={k.id}>
              {day(k.at)}: {k.result.places[0]?.name ?? 'no paper'} first
              <QuietButton onClick={() => setOpened(k)}>Compare with today</QuietButton>
              <QuietButton aria-label={`Remove the match of ${day(k.at)}`} onClick={() => void forget(k.id)}>
                Remove
              </QuietButton>
            </li>
          ))}
        </ul>
      )}
      {opened && <ThenAndNow kept={opened} now={now} onClose={() => setOpened(undefined)} />}
    </section>
  );
}

/** A match as it was kept, beside what is told today. */
function ThenAndNow({ kept, now, onClose }: { kept: KeptMatch; now: readonly RankedSheet[]; onClose: () => void }) {
  return (
    <Dialog open wide onClose={onClose} title={`As it stood on ${day(kept.at)}`}>
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-edge">
            <th scope="col">Sheet</th>
            <th scope="col" className="text-right">
              Then
            </th>
            <th scope="col" className="text-right">
              Now
            </th>
            <th scope="col" className="pl-4">
              What changed
            </th>
          </tr>
        </thead>
        <tbody>
          {kept.result.places.map((then) => {
            const today = now.find((p) => p.id === then.conditionId);
            return (
              <tr key={then.conditionId} className="border-b border-line align-top">
                <td className="py-1 font-serif">{then.name}</td>
                <td className="py-1 text-right">
                  {then.place}. · {formatNumber(then.score, 1)}
                </td>
                <td className="py-1 text-right">{today ? `${today.place}. · ${formatNumber(today.score, 1)}` : '—'}</td>
                <td className="py-1 pl-4 text-[13px]">{today ? movedOf(then, today) : 'not ranked today'}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Dialog>
  );
}

function movedOf(then: KeptMatch['result']['places'][number], today: RankedSheet): string {
  if (Math.abs(today.score - then.score) < MOVED) return 'no change that counts';
  const moved = today.reasons
    .map((r) => ({ sentence: r.sentence, by: r.cost - (then.reasons.find((t) => t.leaning === r.leaning)?.cost ?? 0) }))
    .sort((p, q) => Math.abs(q.by) - Math.abs(p.by))[0];
  return moved && Math.abs(moved.by) > 0.02 ? `now: ${moved.sentence}` : 'other weights';
}
