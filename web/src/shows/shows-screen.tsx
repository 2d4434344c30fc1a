import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ShowHead } from '@rakuen/contract/shows';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { ShowDialog } from './show-dialog.tsx';
import { useAddShowMutation, useShowsQuery } from './show-api.ts';
import { NEW_SHOW } from './use-show.ts';

/** Pictures that stand beside the name of a show. */
const FIRST_PICTURES = 5;

/** The shows of the studio. */
export function ShowsScreen() {
  const { data: shows, error, isLoading } = useShowsQuery();
  const table = useTable();
  const navigate = useNavigate();
  const [add, adding] = useAddShowMutation();
  /** Pictures that the new show begins with. */
  const [beginning, setBeginning] = useState<string[]>();
  const onTable = table.laidPictures.map((p) => p.id);
  const buttons = (
    <>
      {onTable.length > 0 && (
        <Button onClick={() => setBeginning(onTable)}>
          New show from {onTable.length === 1 ? 'the picture' : `the ${onTable.length} pictures`} on the table
        </Button>
      )}
      <Button onClick={() => setBeginning([])}>New show</Button>
    </>
  );
  return (
    <>
      <ScreenHead title="Match" question="Which papers carry a whole show?">
        {shows && shows.length > 0 && buttons}
        <Button onClick={() => void navigate('/match')}>Papers for a picture</Button>
      </ScreenHead>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Loading the shows" />}
      {shows?.length === 0 && (
        <Empty title="No show yet" action={buttons}>
          A show is a set of pictures that hang together. Every picture is scored on every measured paper. You see how
          few papers carry it, and what each further paper would improve.
        </Empty>
      )}
      {shows && shows.length > 0 && (
        <ul aria-label="Shows">
          {shows.map((s) => (
            <ShowRow key={s.id} show={s} />
          ))}
        </ul>
      )}
      {beginning && (
        <ShowDialog
          show={NEW_SHOW}
          title="New show"
          save="Create the show"
          error={adding.error}
          onClose={() => setBeginning(undefined)}
          onSave={(what) =>
            void add({ ...NEW_SHOW, ...what, pictureIds: beginning })
              .unwrap()
              .then(
                ({ id }) => navigate(`/match/shows/${id}`),
                () => undefined,
              )
          }
        />
      )}
    </>
  );
}

function ShowRow({ show }: { show: ShowHead }) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 border-t border-edge py-2">
      <div className="min-w-0">
        <h2 className="text-[1.1rem] leading-tight break-words">
          <Link to={`/match/shows/${show.id}`} className="underline decoration-line underline-offset-3">
            {show.name}
          </Link>
        </h2>
        <p className="text-[13px] text-quiet">
          {[
            `${show.pictures} ${show.pictures === 1 ? 'picture' : 'pictures'}`,
            show.place,
            show.chosenPapers.length > 0 ? `on ${show.chosenPapers.join(', ')}` : 'no paper chosen yet',
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      <div className="flex gap-1.5" aria-hidden>
        {show.pictureIds.slice(0, FIRST_PICTURES).map((id) => (
          <img key={id} src={`/api/pictures/${id}/preview`} alt="" className="h-12 max-w-20 object-contain" />
        ))}
      </div>
    </li>
  );
}
