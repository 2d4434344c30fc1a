import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { costEdge } from '@rakuen/core/match/cost-edge';
import { judgeSheets } from '@rakuen/core/match/judge';
import { weigh, type RankedSheet } from '@rakuen/core/match/rank';
import { weightsOf, type Weights } from '@rakuen/core/match/schools';
import { otherLives, turnsByCommission } from '@rakuen/core/match/turns-by-commission';
import { sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useMatchQuery, usePicturesQuery, useTakeBackMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { moveFocus, useKeys } from '../parts/use-keys.ts';
import { CommissionLine } from '../pictures/commission-line.tsx';
import { asksFor } from '../pictures/picture-words.ts';
import { useTable } from '../table/use-table.ts';
import { CostPlace } from './cost-place.tsx';
import { GlassTurn } from './glass-turn.tsx';
import { KeptMatches } from './kept-matches.tsx';
import { sheetsLie, UnderWay, workOf } from '../parts/under-way.tsx';
import { PlaceRow } from './place-row.tsx';
import { PortfolioPlace } from './portfolio-place.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { StampDialog } from './stamp-dialog.tsx';
import { useAllSchools, WeightsPanel } from './weights-panel.tsx';

/** The picture in hand against the papers: a ranking, each place with its reasons, and the seal. */
export function MatchScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const { data: conditions = [] } = useConditionsQuery();
  const pictures = usePicturesQuery();
  const schools = useAllSchools();
  const [everything, setEverything] = useState(false);
  const [show, setShow] = useState(false);
  const [pair, setPair] = useState(false);
  const [school, setSchool] = useState('start');
  const [own, setOwn] = useState<Weights>();
  const [stamping, setStamping] = useState<{ conditionId: string; stamp: Stamp }>();
  const [takeBack] = useTakeBackMutation();
  const picture = table.picture;
  const onTable = table.laid.map((c) => c.id);
  const all = everything || onTable.length === 0;
  const conditionIds = all ? undefined : onTable;
  const match = useMatchQuery(
    { pictureId: picture?.id ?? '', conditionIds, work: workOf('match') },
    { skip: !picture },
  );
  // Swapping the picture must not leave the old ranking standing under the new name.
  const current = match.currentData;
  const weights = useMemo(
    (): Weights => own ?? schools.find((s) => s.key === school)?.weights ?? {},
    [own, schools, school],
  );
  // Judged once and weighed here, so that a slider answers at once; the figures come from the server.
  const judged = useMemo(() => {
    if (!picture || !current) return undefined;
    const question = { picture: picture.figures, hints: picture.hints, commission: picture.commission };
    return {
      today: judgeSheets(question, current.candidates),
      lives: otherLives(question, current.candidates),
    };
  }, [picture, current]);
  const ranking = useMemo(() => judged && weigh(judged.today, weights), [judged, weights]);
  const lives = useMemo(
    () => (judged ? turnsByCommission(judged.today, judged.lives, weights) : []),
    [judged, weights],
  );
  const places = ranking?.places ?? [];
  const edge = useMemo(
    () =>
      ranking &&
      current &&
      costEdge(
        ranking.places,
        current.candidates.map((c) => c.sheet),
      ),
    [ranking, current],
  );
  const conditionOf = (id: string) => conditions.find((c) => c.id === id);
  const decisionOf = (id: string) => current?.places.find((p) => p.conditionId === id)?.decision;

  const focused = (): RankedSheet | undefined => {
    const id = document.activeElement?.closest<HTMLElement>('[data-place]')?.dataset.place;
    return places.find((p) => p.id === id) ?? places[0];
  };
  const stamp = (word: Stamp) => {
    const place = focused();
    if (place) setStamping({ conditionId: place.id, stamp: word });
  };
  // The one main action: to choose the best paper, as long as none is chosen.
  const chosen = current?.places.some((p) => p.decision?.stamp === 'chosen');
  const undecided = chosen || !places[0] || decisionOf(places[0].id) ? undefined : places[0].id;
  const lastStamped = current?.places
    .flatMap((p) => p.decision ?? [])
    .sort((p, q) => q.decidedAt.localeCompare(p.decidedAt))[0];
  useKeys({
    c: () => stamp('chosen'),
    h: () => stamp('held'),
    f: () => stamp('refused'),
    b: () => setPair((v) => !v),
    u: () => lastStamped && void takeBack(lastStamped.id).then(() => dispatch(said('The last stamp is taken back.'))),
  });
  const stamped = stamping && places.find((p) => p.id === stamping.conditionId);

  return (
    <>
      <ScreenHead title="Match" question={questionOf('/match')}>
        {picture && (
          <label className="flex items-center gap-2">
            <span className="text-quiet">School</span>
            <select
              value={own ? 'own' : school}
              onChange={(e) => {
                setSchool(e.target.value);
                setOwn(undefined);
              }}
              className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
            >
              {schools.map((s) => (
                <option key={s.key} value={s.key}>
                  {s.name}
                </option>
              ))}
              {own && <option value="own">Your weights</option>}
            </select>
          </label>
        )}
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
        {table.laidPictures.length > 1 && (
          <Button aria-pressed={show} onClick={() => setShow(!show)}>
            {show ? 'One picture' : 'A whole show'}
          </Button>
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
      {show && picture && (
        <PortfolioPlace
          pictures={table.laidPictures}
          conditions={conditions}
          conditionIds={conditionIds}
          weights={weights}
        />
      )}
      {picture && !show && (
        <>
          <div className="mb-4">
            <div className="flex items-baseline justify-between gap-4">
              <h2 className="text-[1.35rem] break-words">{picture.title}</h2>
              {table.laidPictures.length > 1 && (
                <p className="whitespace-nowrap">
                  <QuietButton onClick={() => table.turnPicture(-1)}>Picture before</QuietButton>
                  <QuietButton onClick={() => table.turnPicture(1)}>Next picture</QuietButton>
                </p>
              )}
            </div>
            <p className="max-w-[90ch] font-serif">{asksFor(picture)}</p>
            <CommissionLine picture={picture} />
          </div>
          <ErrorNote error={match.error} />
          {match.error && !match.isFetching && (
            <Button onClick={() => void match.refetch()}>Lay it on the sheets again</Button>
          )}
          {match.isFetching && !current && (
            <UnderWay what="Laying the picture on each sheet" work={workOf('match')} far={sheetsLie} />
          )}
          {current && places.length === 0 && (
            <Empty
              title="No measured paper to rank"
              action={<Button onClick={() => void navigate('/readings')}>To the readings</Button>}
            >
              A paper is ranked by what was measured of it. Bring the readings of a print condition first.
            </Empty>
          )}
          {ranking && places.length > 0 && (
            <>
              {ranking.shared.filter((r) => r.speaks !== 'neither').length > 0 && (
                <p className="mb-2 max-w-[90ch] text-[13px]">
                  <span className="text-quiet">All of them alike: </span>
                  {ranking.shared
                    .filter((r) => r.speaks !== 'neither')
                    .map((r) => r.sentence)
                    .join(' ')}
                </p>
              )}
              {table.left && table.right && (
                <p className="mb-2">
                  <Button aria-pressed={pair} onClick={() => setPair(!pair)}>
                    {pair ? 'Lay the two down' : 'The two in hand'}
                  </Button>
                </p>
              )}
              {pair && table.left && table.right && (
                <div className="mb-5 grid grid-cols-2 gap-2">
                  {[table.left, table.right].map((c) => (
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
              <ol onKeyDown={moveFocus} aria-label="Ranking">
                {places.map((place, at) => {
                  const condition = conditionOf(place.id);
                  return (
                    condition && (
                      <PlaceRow
                        key={place.id}
                        place={place}
                        condition={condition}
                        picture={picture}
                        decision={decisionOf(place.id)}
                        judged={current?.places.find((p) => p.conditionId === place.id)?.judged ?? []}
                        level={places[at + 1]?.place === place.place}
                        shared={places.filter((p) => p.place === place.place).length > 1}
                        first={place.id === undecided}
                        onStamp={(word) => setStamping({ conditionId: place.id, stamp: word })}
                        onTakeBack={(id) => void takeBack(id).then(() => dispatch(said('The stamp is taken back.')))}
                      />
                    )
                  );
                })}
              </ol>
              <div className="grid grid-cols-2 gap-x-8 border-t border-edge pt-4 text-[13px] max-[1150px]:grid-cols-1">
                <section aria-label="What would have to change">
                  <h3>For another to win</h3>
                  {ranking.turns.length === 0 && lives.length === 0 ? (
                    <p>Nothing that stands alone turns it: no single weight, no other life.</p>
                  ) : (
                    <ul>
                      {ranking.turns.slice(0, 4).map((t) => (
                        <li key={t.leaning}>
                          Weigh <span className="font-serif">{t.name.toLowerCase()}</span> {formatNumber(t.weight, 1)}×
                          instead of {formatNumber(t.from, 1)}×.
                        </li>
                      ))}
                      {lives.slice(0, 3).map((l) => (
                        <li key={l.words}>
                          {sentenceCase(l.words)}:{' '}
                          <span className="font-serif">{conditionOf(l.first)?.paper.name}</span>.
                        </li>
                      ))}
                    </ul>
                  )}
                  <GlassTurn
                    key={picture.id}
                    asked={{ picture: picture.figures, hints: picture.hints, commission: picture.commission, weights }}
                    request={{ pictureId: picture.id, conditionIds }}
                    candidates={current!.candidates}
                    nameOf={(id) => conditionOf(id)?.paper.name ?? 'another'}
                  />
                </section>
                <section aria-label="Other schools">
                  <h3>Where others would choose otherwise</h3>
                  <ul>
                    {schools
                      .filter((s) => s.key !== school || own)
                      .flatMap((s) => {
                        const theirs = weigh(judged!.today, s.weights).places;
                        // Where the sheet that leads here shares their first place, they do not choose otherwise.
                        const agree = theirs.some((p) => p.place === 1 && p.id === places[0].id);
                        const c = theirs[0] && !agree ? conditionOf(theirs[0].id) : undefined;
                        return c
                          ? [
                              <li key={s.key}>
                                {s.name}: <span className="font-serif">{c.paper.name}</span>, {conditionLine(c)}
                              </li>,
                            ]
                          : [];
                      })}
                  </ul>
                </section>
                {edge && (
                  <div className="col-span-full mt-4">
                    <CostPlace
                      edge={edge}
                      unpriced={places.filter((p) => !edge.sheets.some((s) => s.id === p.id)).map((p) => p.id)}
                      conditionOf={conditionOf}
                    />
                  </div>
                )}
              </div>
            </>
          )}
          {current && (
            <NotRanked
              leftOut={[
                ...current.leftOut.filter((l) => !ranking?.refused.some((r) => r.id === l.conditionId)),
                ...(ranking?.refused ?? []).map((r) => ({ conditionId: r.id, why: r.why })),
              ]}
              uncounted={(ranking?.uncounted ?? []).map((u) => ({
                what: u.what,
                of: u.unknownOf.map((id) => conditionOf(id)?.paper.name ?? 'a removed condition'),
              }))}
              nameOf={(id) => {
                const c = conditionOf(id);
                return c ? `${c.paper.name}, ${conditionLine(c)}` : 'A removed condition';
              }}
            />
          )}
          {places.length > 0 && (
            <details className="mt-5">
              <summary className="cursor-pointer font-serif">How it is weighed</summary>
              <WeightsPanel weights={weights} onWeights={setOwn} />
            </details>
          )}
          {places.length > 0 && (
            <KeptMatches pictureId={picture.id} conditionIds={conditionIds} weights={weightsOf(weights)} now={places} />
          )}
        </>
      )}
      {stamping && stamped && picture && conditionOf(stamped.id) && (
        <StampDialog
          picture={picture}
          condition={conditionOf(stamped.id)!}
          place={stamped}
          stamp={stamping.stamp}
          onClose={() => setStamping(undefined)}
        />
      )}
    </>
  );
}

function NotRanked({
  leftOut,
  uncounted,
  nameOf,
}: {
  leftOut: readonly { conditionId: string; why: string }[];
  uncounted: readonly { what: string; of: readonly string[] }[];
  nameOf: (id: string) => string;
}) {
  if (leftOut.length === 0 && uncounted.length === 0) return null;
  return (
    <section aria-label="Not ranked" className="mt-4 text-[13px]">
      {leftOut.length > 0 && (
        <>
          <h3>Not ranked</h3>
          <ul>
            {leftOut.map(({ conditionId, why }) => (
              <li key={conditionId}>
                {nameOf(conditionId)}: {why}
              </li>
            ))}
          </ul>
        </>
      )}
      {uncounted.map((u) => (
        <p key={u.what} className="mt-1">
          Counted for none: {u.what}, which is not known of {[...new Set(u.of)].join(', ')}.
        </p>
      ))}
    </section>
  );
}
