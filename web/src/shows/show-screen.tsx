import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { PictureView } from '@rakuen/contract/pictures';
import type { ShowInput, ShowPlanView, ShowView } from '@rakuen/contract/shows';
import { MAX_SHOW_PICTURES } from '@rakuen/contract/vocabulary';
import { GLASSES } from '@rakuen/core/light/glass';
import { formatNumber } from '@rakuen/core/measurement/show';
import { usePicturesQuery } from '../api/api.ts';
import { useLight } from '../compare/use-light.ts';
import { PresetChoice } from '../match/match-head.tsx';
import { useSchool } from '../match/use-ranking.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { Button } from '../parts/button.tsx';
import { Conflict } from '../parts/conflict.tsx';
import { decimal } from '../parts/decimal.ts';
import { TickField } from '../parts/form.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { UnderWay, workOf } from '../parts/under-way.tsx';
import { AddPictures } from './add-pictures.tsx';
import { useRemoveShowMutation, useShowPlanQuery, useShowQuery } from './show-api.ts';
import { ShowDialog } from './show-dialog.tsx';
import { ShowTable } from './show-table.tsx';
import { ShowVerdict } from './show-verdict.tsx';
import { inputOf, useShow, type ShowAtHand } from './use-show.ts';

/** A show: its pictures in order, and which papers carry them. */
export function ShowScreen() {
  const { id = '' } = useParams();
  const { data: show, error, isLoading } = useShowQuery(id);
  return (
    <>
      {isLoading && <Waiting what="Loading the show" />}
      {!show && <ErrorNote error={error} />}
      {show && <OneShow key={id} show={show} />}
    </>
  );
}

function OneShow({ show }: { show: ShowView }) {
  const navigate = useNavigate();
  const at = useShow(show);
  const school = useSchool();
  const { data: pictures = [] } = usePicturesQuery();
  const [remove, removing] = useRemoveShowMutation();
  const [open, setOpen] = useState<'place' | 'pictures'>();
  const { plan, error, again, about, stale } = usePlan(show, school.weights);
  const others = pictures.filter((p) => !at.now.pictureIds.includes(p.id));
  return (
    <>
      <ScreenHead title="Match" question="Which papers carry this show?">
        <PresetChoice school={school} />
        <Button onClick={() => void navigate('/match/shows')}>All shows</Button>
      </ScreenHead>
      <ShowHeading now={at.now} onEdit={() => setOpen('place')} onAdd={() => setOpen('pictures')} />
      {at.theirs ? (
        <Conflict mine={at.now} theirs={inputOf(at.theirs)} onMine={at.keepMine} onTheirs={at.takeTheirs} />
      ) : (
        <ErrorNote error={at.error} />
      )}
      {at.now.pictureIds.length === 0 ? (
        <Empty
          title="No picture in this show"
          action={<Button onClick={() => setOpen('pictures')}>Add pictures</Button>}
        >
          Add the pictures that hang together, in their order on the wall.
        </Empty>
      ) : (
        <Planned {...{ at, plan, pictures, error, again, about, stale }} />
      )}
      <ErrorNote error={removing.error} />
      <BinButton
        className="mt-5 -ml-1.5"
        words="Remove this show"
        onBin={() =>
          remove(show.id)
            .unwrap()
            .then(() => navigate('/match/shows'))
        }
      />
      {open === 'place' && (
        <ShowDialog
          show={at.now}
          title="The show and where it hangs"
          save="Save"
          onClose={() => setOpen(undefined)}
          onSave={(what) => {
            at.change(what);
            setOpen(undefined);
          }}
        />
      )}
      {open === 'pictures' && (
        <AddPictures
          pictures={others}
          room={MAX_SHOW_PICTURES - at.now.pictureIds.length}
          onClose={() => setOpen(undefined)}
          onAdd={(ids) => {
            at.change({ pictureIds: [...at.now.pictureIds, ...ids] });
            setOpen(undefined);
          }}
        />
      )}
    </>
  );
}

/** The plan: at once from a hundred colours of each picture, then from all of them. */
function usePlan({ id, revision, pictureIds }: ShowView, weights: Record<string, number | undefined>) {
  const asked = { id, revision, weights: { ...weights } as Record<string, number>, work: workOf('show') };
  const none = pictureIds.length === 0;
  const first = useShowPlanQuery(asked, { skip: none });
  const exact = useShowPlanQuery({ ...asked, exact: true }, { skip: none || !first.currentData });
  return {
    plan: exact.currentData ?? first.currentData ?? exact.data ?? first.data,
    /** Of what was asked before: it is veiled until the new one is there. */
    stale: !exact.currentData && !first.currentData,
    about: !exact.currentData,
    error: first.isFetching ? undefined : (first.error ?? (exact.isFetching ? undefined : exact.error)),
    again: () => void (first.error ? first.refetch() : exact.refetch()),
  };
}

function ShowHeading({ now, onEdit, onAdd }: { now: ShowInput; onEdit: () => void; onAdd: () => void }) {
  const { lights } = useLight();
  const there = [
    now.light && (lights.find((l) => l.key === now.light)?.name ?? 'a removed lamp'),
    now.glass && GLASSES.find((g) => g.key === now.glass)?.name,
    now.lux !== undefined && `${formatNumber(now.lux, 0)} lx`,
  ].filter(Boolean);
  return (
    <div className="mb-3 flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
      <div className="min-w-0">
        <h2 className="text-[1.35rem] leading-tight break-words">{now.name}</h2>
        <p className="text-[13px] text-quiet">
          {[
            `${now.pictureIds.length} ${now.pictureIds.length === 1 ? 'picture' : 'pictures'}`,
            now.place,
            there.length > 0 ? there.join(', ') : 'light and glass as each picture says',
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      <div className="flex gap-2">
        <Button onClick={onAdd}>Add pictures</Button>
        <Button onClick={onEdit}>Name and place</Button>
      </div>
    </div>
  );
}

function Planned({
  at,
  plan,
  pictures,
  error,
  again,
  about,
  stale,
}: {
  at: ShowAtHand;
  plan?: ShowPlanView;
  pictures: readonly PictureView[];
  error?: Parameters<typeof ErrorNote>[0]['error'];
  again: () => void;
  about: boolean;
  stale: boolean;
}) {
  return (
    <>
      <Wishes at={at} plan={plan} />
      <ErrorNote error={error} />
      {error && (
        <Button className="mt-2" onClick={again}>
          Score again
        </Button>
      )}
      {about && !error && (
        <UnderWay
          what={
            plan && !stale
              ? 'These scores are approximate. Scoring from all colours'
              : 'Scoring every picture on every paper'
          }
          work={workOf('show')}
          far={(done, total) => `${done} of ${total} done.`}
        />
      )}
      {plan && plan.papers.length === 0 && (
        <Empty title="No measured paper to choose from">
          Import readings for a print condition first, or consider all papers.
        </Empty>
      )}
      <div aria-busy={stale} className={stale ? 'opacity-40' : ''}>
        {plan && plan.papers.length > 0 && <ShowVerdict show={at.now} plan={plan} pictures={pictures} />}
        <ShowTable at={at} plan={plan} pictures={pictures} />
      </div>
      {plan && plan.leftOut.length > 0 && (
        <details className="mt-3 text-[13px]">
          <summary className="cursor-pointer font-serif">Papers without a score: {plan.leftOut.length}</summary>
          <ul>
            {plan.leftOut.map(({ paperId, name, why }) => (
              <li key={paperId}>
                {name}: {why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** What is accepted and wished for: the loss, one look, which papers. */
function Wishes({ at, plan }: { at: ShowAtHand; plan?: ShowPlanView }) {
  const { now, change } = at;
  const [typed, setTyped] = useState<string>();
  /** With all no longer considered, those that were stay until each is taken out. */
  const considerAll = (allPapers: boolean) => {
    const rest = (plan?.papers ?? []).filter((p) => !now.papers.some((own) => own.paperId === p.paperId));
    const named = rest.map(({ paperId }) => ({ paperId, standing: 'considered' as const }));
    const papers = allPapers ? now.papers.filter((p) => p.standing !== 'considered') : [...now.papers, ...named];
    change({ allPapers, papers });
  };
  const wrong = typed !== undefined && !(decimal(typed) >= 0 && decimal(typed) <= 10);
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-1 border-y border-line py-1.5">
      <label
        className="flex items-center gap-2"
        title="Mean over the pictures of what each loses against its best paper"
      >
        Accepted mean loss
        <input
          inputMode="decimal"
          aria-invalid={wrong || undefined}
          className="min-h-8 w-[7ch] rounded-[3px] border border-edge bg-field px-2 text-right aria-invalid:border-2 aria-invalid:border-ink"
          value={typed ?? formatNumber(now.maxLoss, 2)}
          onChange={(e) => {
            setTyped(e.target.value);
            const loss = decimal(e.target.value);
            if (e.target.value.trim() !== '' && loss >= 0 && loss <= 10) change({ maxLoss: loss });
          }}
          onBlur={() => !wrong && setTyped(undefined)}
        />
        of 10
        {wrong && (
          <span role="alert" className="font-semibold">
            Enter a number from 0 to 10.
          </span>
        )}
      </label>
      <TickField
        label="Same surface"
        title="Every two papers of a choice have the same surface, and are both matt or both not"
        checked={now.sameSurface}
        onChange={(e) => change({ sameSurface: e.target.checked })}
      />
      <TickField
        label="Same white"
        title="No two paper whites of a choice can be told apart across the room, by the threshold in Settings"
        checked={now.sameWhite}
        onChange={(e) => change({ sameWhite: e.target.checked })}
      />
      <TickField
        label="Consider all measured papers"
        checked={now.allPapers}
        onChange={(e) => considerAll(e.target.checked)}
      />
    </div>
  );
}
