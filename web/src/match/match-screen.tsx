import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { MatchPlace } from '@rakuen/contract/matches';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { LEANINGS } from '@rakuen/core/match/leanings/registry';
import { deltaE, percent, sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useMatchQuery, usePicturesQuery, useTakeBackMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { STEPS } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Seal } from '../parts/seal.tsx';
import { Strip } from '../parts/strip.tsx';
import { moveFocus, useKeys } from '../parts/use-keys.ts';
import { useTable } from '../table/use-table.ts';
import { StampDialog } from './stamp-dialog.tsx';

/** The picture in hand against the papers: a ranking, each place with its reasons, and the seal. */
export function MatchScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const { data: conditions = [] } = useConditionsQuery();
  const pictures = usePicturesQuery();
  const [everything, setEverything] = useState(false);
  const [stamping, setStamping] = useState<{ place: MatchPlace; stamp: Stamp }>();
  const [takeBack] = useTakeBackMutation();
  const picture = table.picture;
  const onTable = table.laid.map((c) => c.id);
  const all = everything || onTable.length === 0;
  const match = useMatchQuery(
    { pictureId: picture?.id ?? '', conditionIds: all ? undefined : onTable },
    { skip: !picture },
  );
  // Swapping the picture must not leave the old ranking standing under the new name.
  const current = match.currentData;
  const conditionOf = (id: string) => conditions.find((c) => c.id === id);

  const focused = (): MatchPlace | undefined => {
    const id = document.activeElement?.closest<HTMLElement>('[data-place]')?.dataset.place;
    return current?.places.find((p) => p.conditionId === id) ?? current?.places[0];
  };
  const stamp = (word: Stamp) => {
    const place = focused();
    if (place) setStamping({ place, stamp: word });
  };
  // The one main action: to choose the best paper, as long as none is chosen.
  const undecided =
    current?.places.some((p) => p.decision?.stamp === 'chosen') || current?.places[0]?.decision
      ? undefined
      : current?.places[0];
  const lastStamped = current?.places
    .flatMap((p) => p.decision ?? [])
    .sort((p, q) => q.decidedAt.localeCompare(p.decidedAt))[0];
  useKeys({
    c: () => stamp('chosen'),
    h: () => stamp('held'),
    f: () => stamp('refused'),
    u: () => lastStamped && void takeBack(lastStamped.id).then(() => dispatch(said('The last stamp is taken back.'))),
  });

  return (
    <>
      <ScreenHead title="Match" question={STEPS[4].question}>
        {picture && onTable.length > 0 && (
          <div role="radiogroup" aria-label="Papers to rank" className="flex gap-4">
            {(
              [
                ['On the table', false],
                ['All measured', true],
              ] as const
            ).map(([label, value]) => (
              <label key={label} className="flex items-center gap-1.5">
                <input
                  type="radio"
                  name="scope"
                  className="accent-ink"
                  checked={all === value}
                  onChange={() => setEverything(value)}
                />
                {label}
              </label>
            ))}
          </div>
        )}
      </ScreenHead>
      {!picture && !pictures.isLoading && (
        <Empty
          title="No picture in hand"
          action={<Button onClick={() => void navigate('/pictures')}>To the pictures</Button>}
        >
          Lay a picture on the table and take it in hand; then the papers are ranked for it, each with its reasons.
        </Empty>
      )}
      {picture && (
        <div className="mb-5 flex items-start gap-5">
          <img src={`/api/pictures/${picture.id}/preview`} alt={picture.title} className="max-h-40 max-w-[38%]" />
          <div className="min-w-0">
            <h2 className="text-[1.35rem] break-words">{picture.title}</h2>
            <p>
              {sentenceCase(picture.figures.key)}, {picture.figures.contrast} contrast, {picture.figures.colour}; median
              L* {formatNumber(picture.figures.medianL, 1)}, {percent(picture.figures.nearBlackShare)} near black,{' '}
              {percent(picture.figures.saturatedShare)} saturated
            </p>
            {table.laidPictures.length > 1 && (
              <p className="-ml-1.5">
                <QuietButton onClick={() => table.turnPicture(-1)}>Picture before</QuietButton>
                <QuietButton onClick={() => table.turnPicture(1)}>Next picture</QuietButton>
              </p>
            )}
          </div>
        </div>
      )}
      <ErrorNote error={match.error as never} />
      {picture && match.isFetching && !current && <Waiting what="Laying the picture on each sheet" />}
      {current && current.places.length === 0 && (
        <Empty
          title="No measured paper to rank"
          action={<Button onClick={() => void navigate('/readings')}>To the readings</Button>}
        >
          A paper is ranked by what was measured of it. Bring the readings of a print condition first.
        </Empty>
      )}
      {current && (
        <ol onKeyDown={moveFocus} aria-label="Ranking">
          {current.places.map((place) => {
            const condition = conditionOf(place.conditionId);
            return (
              condition && (
                <Place
                  key={place.conditionId}
                  place={place}
                  condition={condition}
                  shared={current.places.filter((p) => p.place === place.place).length > 1}
                  first={place === undecided}
                  onStamp={(word) => setStamping({ place, stamp: word })}
                  onTakeBack={(id) => void takeBack(id).then(() => dispatch(said('The stamp is taken back.')))}
                />
              )
            );
          })}
        </ol>
      )}
      {current && current.leftOut.length > 0 && (
        <section className="mt-4 text-[13px]">
          <h3>Not ranked</h3>
          <ul>
            {current.leftOut.map(({ conditionId, why }) => {
              const c = conditionOf(conditionId);
              return (
                <li key={conditionId}>
                  {c ? `${c.paper.name}, ${conditionLine(c)}` : 'A removed condition'}: {why}
                </li>
              );
            })}
          </ul>
        </section>
      )}
      {current && current.places.length > 0 && (
        <details className="mt-5 text-[13px]">
          <summary className="cursor-pointer">What the ranking leans on</summary>
          <ul className="mt-1 max-w-[80ch]">
            {LEANINGS.map((l) => (
              <li key={l.key}>
                <b>{l.name}</b> (weight {l.weight}): {l.holds}
              </li>
            ))}
          </ul>
        </details>
      )}
      {stamping && picture && conditionOf(stamping.place.conditionId) && (
        <StampDialog
          picture={picture}
          condition={conditionOf(stamping.place.conditionId)!}
          place={stamping.place}
          stamp={stamping.stamp}
          onClose={() => setStamping(undefined)}
        />
      )}
    </>
  );
}

function Place({
  place,
  condition,
  shared,
  first,
  onStamp,
  onTakeBack,
}: {
  place: MatchPlace;
  condition: ConditionView;
  shared: boolean;
  first: boolean;
  onStamp: (stamp: Stamp) => void;
  onTakeBack: (id: string) => void;
}) {
  const { decision, figures } = place;
  return (
    <li
      data-place={condition.id}
      className="grid grid-cols-[44px_minmax(0,1fr)_150px] gap-x-3 border-t border-edge py-4"
    >
      <div>
        <p className="font-serif text-[1.7rem] leading-none">{place.place}</p>
        {shared && <p className="text-[12px] leading-tight text-quiet">shared</p>}
      </div>
      <div
        className="min-w-0"
        tabIndex={0}
        data-row
        data-kind="paper"
        data-id={condition.id}
        data-name={condition.paper.name}
      >
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <Strip paper={condition.paper} facts={condition.facts} />
          <div className="min-w-0">
            <h3 className="text-[1.1rem] break-words">{condition.paper.name}</h3>
            <p className="text-[13px]">{conditionLine(condition)}</p>
          </div>
        </div>
        <ul className="mt-2 max-w-[74ch] space-y-0.5">
          {place.reasons.map((r) => (
            <li key={r.leaning} className="grid grid-cols-[18px_1fr]">
              <span
                aria-hidden
                title={{ for: 'speaks for it', against: 'speaks against it', neither: 'speaks neither way' }[r.speaks]}
              >
                {{ for: '+', against: '−', neither: '·' }[r.speaks]}
              </span>
              <span className="font-serif text-[1.02rem] leading-snug">
                <span className="sr-only">{{ for: 'For: ', against: 'Against: ', neither: '' }[r.speaks]}</span>
                {r.sentence}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-1.5 text-[13px] text-quiet">
          Outside its gamut, black laid on black: {percent(figures.outsideShare)} of the picture,{' '}
          {deltaE(figures.outsideMeanDeltaE)} on average, 95th percentile {formatNumber(figures.outside95DeltaE, 1)}.
          Cost with the leanings: {formatNumber(place.cost, 2)} ΔE00.
        </p>
      </div>
      <div className="flex flex-col items-end gap-2 text-right">
        {decision ? (
          <>
            <Seal stamp={decision.stamp} />
            <p className="font-serif text-[13px] leading-tight break-words">{decision.reason}</p>
            <p className="text-[12px] text-quiet">
              {decision.decidedBy && `${decision.decidedBy}, `}
              {day(decision.decidedAt)}
            </p>
            {decision.stamp === 'chosen' && (
              <Link
                className="underline"
                to={`/prints?picture=${decision.pictureId}&condition=${decision.conditionId}`}
              >
                Record a print
              </Link>
            )}
            <div className="flex flex-wrap justify-end">
              <span className="self-center text-[12px] text-quiet">change to</span>
              {(['chosen', 'held', 'refused'] as const)
                .filter((s) => s !== decision.stamp)
                .map((s) => (
                  <QuietButton key={s} onClick={() => onStamp(s)} aria-label={`Stamp ${condition.paper.name} ${s}`}>
                    {s}
                  </QuietButton>
                ))}
              <QuietButton
                onClick={() => onTakeBack(decision.id)}
                aria-label={`Take the stamp on ${condition.paper.name} back`}
              >
                take back
              </QuietButton>
            </div>
          </>
        ) : (
          <>
            <Button main={first} onClick={() => onStamp('chosen')} aria-label={`Stamp ${condition.paper.name} chosen`}>
              Choose
            </Button>
            <div className="flex">
              <QuietButton onClick={() => onStamp('held')} aria-label={`Stamp ${condition.paper.name} held`}>
                Hold
              </QuietButton>
              <QuietButton onClick={() => onStamp('refused')} aria-label={`Stamp ${condition.paper.name} refused`}>
                Refuse
              </QuietButton>
            </div>
          </>
        )}
      </div>
    </li>
  );
}
