import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { partingMarks } from '@rakuen/core/match/parting';
import type { RankedSheet } from '@rakuen/core/match/rank';
import { useTakeBackMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { moveFocus, useKeys } from '../parts/use-keys.ts';
import { PlaceRow, type Beside } from './place-row.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { StampDialog } from './stamp-dialog.tsx';
import type { Ranked } from './use-ranking.ts';

/** Every sheet in its place, with its reasons and its seal; stamped by key and by hand. */
export function RankingList({ at, places, picture }: Ranked & { picture: PictureView }) {
  const dispatch = useAppDispatch();
  const [takeBack, takingBack] = useTakeBackMutation();
  const [stamping, setStamping] = useState<{ placeId: string; stamp: Stamp }>();
  const decisions = at.current!.places.flatMap((p) => p.decision ?? []);
  // The one main action: to choose the best paper, as long as none is chosen.
  const chosen = decisions.some((d) => d.stamp === 'chosen');
  const undecided = chosen || at.decisionOf(places[0].id) ? undefined : places[0].id;
  const [lastStamped] = [...decisions].sort((p, q) => q.decidedAt.localeCompare(p.decidedAt));
  const takenBack = (id: string, words: string) =>
    void takeBack(id).then(({ error }) => !error && dispatch(said(words)));
  const stamp = (word: Stamp) => {
    const id = document.activeElement?.closest<HTMLElement>('[data-place]')?.dataset.place;
    setStamping({ placeId: (places.find((p) => p.id === id) ?? places[0]).id, stamp: word });
  };
  useKeys({
    c: () => stamp('chosen'),
    h: () => stamp('held'),
    f: () => stamp('refused'),
    u: () => lastStamped && takenBack(lastStamped.id, 'The last stamp is taken back.'),
  });
  const marks = partingMarks(places.map((p) => p.figures.marks));
  const stamped = stamping && places.find((p) => p.id === stamping.placeId);
  const stampedOn = stamped && at.conditionOf(stamped.id);
  return (
    <>
      <ErrorNote error={takingBack.error} />
      <MarksSaid marks={marks} of={picture.marks.length} />
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
                beside={besideOf(places, i)}
                marks={marks}
                shared={places.filter((p) => p.place === place.place).length > 1}
                first={place.id === undecided}
                recipe={at.versionOf(place.id)}
                onStamp={(word) => setStamping({ placeId: place.id, stamp: word })}
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
          version={at.versionOf(stamped.id)?.name}
          onClose={() => setStamping(undefined)}
        />
      )}
    </>
  );
}

/** What a place is compared with. */
function besideOf(places: readonly RankedSheet[], i: number): Beside {
  const [place, next, before] = [places[i], places[i + 1], places[i - 1]];
  if (next) {
    const level = next.place === place.place;
    return {
      parts: place.parts,
      word: 'next',
      said: level
        ? place.parts.length > 0
          ? 'Shares its place with the next.'
          : 'No difference from the next that counts.'
        : place.closeToNext
          ? 'A close call: the next may be as good.'
          : undefined,
    };
  }
  if (!before) return { parts: [], word: '' };
  return {
    word: 'the one before',
    parts: before.parts.map(({ leaning, by, figure }) => ({
      leaning,
      by: -by,
      figure: figure && { ...figure, own: figure.other, other: figure.own },
    })),
  };
}

/** Which marks are drawn on the pictures, and why the others are not. */
function MarksSaid({ marks, of }: { marks: readonly number[]; of: number }) {
  if (of === 0) return null;
  const named = marks.map((m) => m + 1);
  return (
    <p className="mb-1 text-[13px] text-quiet">
      {named.length === 0
        ? `The ${of} marked places print alike on all of them; none is drawn.`
        : named.length === of
          ? 'The marked places print differently on these papers.'
          : `Drawn: ${named.length === 1 ? `mark ${named[0]}, which prints` : `marks ${named.join(', ')}, which print`} differently on these papers. The others print alike.`}
    </p>
  );
}

/** The picture on the selected pair, large, side by side. */
export function PairSeen({
  pair,
  picture,
  places,
}: {
  pair: readonly [ConditionHead, ConditionHead];
  picture: PictureView;
  places: readonly RankedSheet[];
}) {
  return (
    <div className="grid grid-cols-2 gap-2">
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
  );
}
