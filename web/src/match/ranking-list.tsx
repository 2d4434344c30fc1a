import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Stamp } from '@rakuen/contract/vocabulary';
import type { RankedSheet } from '@rakuen/core/match/rank';
import { useTakeBackMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { moveFocus, useKeys } from '../parts/use-keys.ts';
import { PlaceRow } from './place-row.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { StampDialog } from './stamp-dialog.tsx';
import type { Ranked } from './use-ranking.ts';

/** Every sheet in its place, with its reasons and its seal; stamped by key and by hand. */
export function RankingList({ at, places, picture }: Ranked & { picture: PictureView }) {
  const dispatch = useAppDispatch();
  const [takeBack, takingBack] = useTakeBackMutation();
  const [stamping, setStamping] = useState<{ conditionId: string; stamp: Stamp }>();
  const decisions = at.current!.places.flatMap((p) => p.decision ?? []);
  // The one main action: to choose the best paper, as long as none is chosen.
  const chosen = decisions.some((d) => d.stamp === 'chosen');
  const undecided = chosen || at.decisionOf(places[0].id) ? undefined : places[0].id;
  const [lastStamped] = [...decisions].sort((p, q) => q.decidedAt.localeCompare(p.decidedAt));
  const takenBack = (id: string, words: string) =>
    void takeBack(id).then(({ error }) => !error && dispatch(said(words)));
  const stamp = (word: Stamp) => {
    const id = document.activeElement?.closest<HTMLElement>('[data-place]')?.dataset.place;
    setStamping({ conditionId: (places.find((p) => p.id === id) ?? places[0]).id, stamp: word });
  };
  useKeys({
    c: () => stamp('chosen'),
    h: () => stamp('held'),
    f: () => stamp('refused'),
    u: () => lastStamped && takenBack(lastStamped.id, 'The last stamp is taken back.'),
  });
  const stamped = stamping && places.find((p) => p.id === stamping.conditionId);
  const stampedOn = stamped && at.conditionOf(stamped.id);
  return (
    <>
      <ErrorNote error={takingBack.error} />
      <ol onKeyDown={moveFocus} aria-label="Ranking">
        {places.map((place, i) => {
          const condition = at.conditionOf(place.id);
          return (
            condition && (
              <PlaceRow
                key={place.id}
                place={place}
                condition={condition}
                picture={picture}
                decision={at.decisionOf(place.id)}
                judged={at.judgedOf(place.id)}
                level={places[i + 1]?.place === place.place}
                shared={places.filter((p) => p.place === place.place).length > 1}
                first={place.id === undecided}
                onStamp={(word) => setStamping({ conditionId: place.id, stamp: word })}
                onTakeBack={(id) => takenBack(id, 'The stamp is taken back.')}
              />
            )
          );
        })}
      </ol>
      {stamping && stampedOn && (
        <StampDialog
          picture={picture}
          condition={stampedOn}
          place={stamped}
          stamp={stamping.stamp}
          onClose={() => setStamping(undefined)}
        />
      )}
    </>
  );
}

/** The picture on the two sheets in hand, large, beside each other. */
export function PairSeen({
  pair,
  picture,
  places,
  shown,
  onShown,
}: {
  pair: readonly [ConditionHead, ConditionHead];
  picture: PictureView;
  places: readonly RankedSheet[];
  shown: boolean;
  onShown: (shown: boolean) => void;
}) {
  useKeys({ b: () => onShown(!shown) });
  return (
    <>
      <p className="mb-2">
        <Button aria-pressed={shown} onClick={() => onShown(!shown)}>
          {shown ? 'Lay the two down' : 'The two in hand'}
        </Button>
      </p>
      {shown && (
        <div className="mb-5 grid grid-cols-2 gap-2">
          {pair.map((c) => (
            <div key={c.id}>
              <SeenOnSheet
                picture={picture}
                conditionId={c.id}
                name={c.paper.name}
                px={900}
                marks={places.find((p) => p.id === c.id)?.figures.marks}
              />
              <p className="font-serif">{c.paper.name}</p>
            </div>
          ))}
        </div>
      )}
    </>
  );
}
