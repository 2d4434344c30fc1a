import { useState } from 'react';
import type { MatchRequest } from '@rakuen/contract/matches';
import { GLASSES } from '@rakuen/core/light/glass';
import type { Candidate } from '@rakuen/core/match/judge';
import type { Asked } from '@rakuen/core/match/rank';
import { turnByGlass } from '@rakuen/core/match/turns-by-commission';
import { useMatchQuery } from '../api/api.ts';
import { QuietButton } from '../parts/button.tsx';

/** Whether another glass before it would change who is first: every sheet is looked at behind it, so it is computed when it is asked. */
export function GlassTurn({
  asked,
  request,
  candidates,
  nameOf,
}: {
  asked: Asked;
  request: MatchRequest;
  candidates: readonly Candidate[];
  nameOf: (id: string) => string;
}) {
  const [glass, setGlass] = useState<string>();
  const there = useMatchQuery({ ...request, glass }, { skip: glass === undefined });
  const turn =
    glass !== undefined && there.currentData
      ? turnByGlass(asked, candidates, glass, there.currentData.candidates)
      : undefined;
  const words = (key: string) =>
    key === 'none' ? 'Without glass' : `Behind ${GLASSES.find((g) => g.key === key)?.name}`;
  return (
    <>
      <p className="-ml-1.5">
        {GLASSES.filter((g) => g.key !== asked.commission.glass).map((g) => (
          <QuietButton key={g.key} aria-pressed={glass === g.key} onClick={() => setGlass(g.key)}>
            {words(g.key)}?
          </QuietButton>
        ))}
      </p>
      {glass !== undefined && (
        <p role="status">
          {turn
            ? turn.first
              ? `${words(glass)}, ${nameOf(turn.first)} would be first.`
              : `${words(glass)} nothing clearly changes who is first.`
            : there.error
              ? 'It could not be looked at there.'
              : 'Looking at every sheet there…'}
          {turn &&
            turn.unknown.length > 0 &&
            ` ${turn.unknown.map(nameOf).join(', ')}: not known in both, and left out of this.`}
        </p>
      )}
    </>
  );
}
