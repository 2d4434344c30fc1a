import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useConditionsQuery } from '../api/api.ts';
import { usePacksQuery } from '../compare/judging-api.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { PackEntry } from './pack-entry.tsx';
import { PackForm } from './pack-form.tsx';

/** Sample packs: a plan before the first sheet is fed, and what has become of it. */
export function PacksScreen() {
  const packs = usePacksQuery();
  const conditions = useConditionsQuery();
  const navigate = useNavigate();
  const [planning, setPlanning] = useState(false);
  const error = packs.error ?? conditions.error;
  return (
    <>
      <ScreenHead title="Sample packs" question="What goes on which sample, so that no sheet is wasted?">
        <Link to="/papers" className="underline decoration-line underline-offset-3 hover:decoration-ink">
          To the drawer
        </Link>
        {(conditions.data?.length ?? 0) > 0 && (
          <Button main={!planning} onClick={() => setPlanning(!planning)}>
            {planning ? 'Leave the plan' : 'Plan a pack'}
          </Button>
        )}
      </ScreenHead>
      <ErrorNote error={error} />
      {packs.isLoading && <Waiting what="Fetching the packs" />}
      {conditions.data?.length === 0 && (
        <Empty
          title="No print condition yet"
          action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}
        >
          A sample is printed in a print condition: a paper in a printer, with its inks and a media setting. Add one for
          each type in the pack first.
        </Empty>
      )}
      {planning && conditions.data && <PackForm conditions={conditions.data} onPlanned={() => setPlanning(false)} />}
      {!planning && packs.data?.length === 0 && (conditions.data?.length ?? 0) > 0 && (
        <p className="text-quiet">
          No pack was planned yet. Six types of four sheets are usual (practice): a chart to be read, a test page for
          the eye, crops of pictures, and one to spare.
        </p>
      )}
      <ul className="space-y-8">
        {!planning &&
          packs.data?.map((pack) => <PackEntry key={pack.id} pack={pack} conditions={conditions.data ?? []} />)}
      </ul>
    </>
  );
}
