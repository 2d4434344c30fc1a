import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { PictureView } from '@rakuen/contract/pictures';
import { weightsOf } from '@rakuen/core/match/schools';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote } from '../parts/messages.tsx';
import { sheetsLie, UnderWay, workOf } from '../parts/under-way.tsx';
import { useTable, type Table } from '../table/use-table.ts';
import { AllAlike, BesideRanking, NotRanked } from './beside-ranking.tsx';
import { KeptMatches } from './kept-matches.tsx';
import { MatchHead, PictureHead } from './match-head.tsx';
import { PortfolioPlace } from './portfolio-place.tsx';
import { PairSeen, RankingList } from './ranking-list.tsx';
import { useRanking, useSchool } from './use-ranking.ts';
import { WeightsPanel } from './weights-panel.tsx';

/** The picture in hand against the papers: a ranking, each place with its reasons, and the seal. */
export function MatchScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const { data: conditions = [] } = useConditionsQuery();
  const pictures = usePicturesQuery();
  const school = useSchool();
  const [everything, setEverything] = useState(false);
  const [show, setShow] = useState(false);
  const { picture } = table;
  const onTable = table.laid.map((c) => c.id);
  const all = everything || onTable.length === 0;
  const conditionIds = all ? undefined : onTable;
  return (
    <>
      <MatchHead
        school={picture && school}
        scope={picture && onTable.length > 0 ? { all, onAll: setEverything } : undefined}
      >
        {table.laidPictures.length > 1 && (
          <Button aria-pressed={show} onClick={() => setShow(!show)}>
            {show ? 'One picture' : 'A whole show'}
          </Button>
        )}
      </MatchHead>
      {!picture && !pictures.isLoading && (
        <Empty
          title="No picture in hand"
          action={<Button onClick={() => void navigate('/pictures')}>To the pictures</Button>}
        >
          Lay a picture on the table and take it in hand; then the papers are ranked for it, each with its reasons.
        </Empty>
      )}
      {picture && show && (
        <PortfolioPlace
          pictures={table.laidPictures}
          conditions={conditions}
          conditionIds={conditionIds}
          weights={school.weights}
        />
      )}
      {picture && !show && <OnePicture {...{ table, picture, conditionIds, school }} />}
    </>
  );
}

/** One picture against the papers. */
function OnePicture({
  table,
  picture,
  conditionIds,
  school,
}: {
  table: Table;
  picture: PictureView;
  conditionIds: string[] | undefined;
  school: ReturnType<typeof useSchool>;
}) {
  const navigate = useNavigate();
  const at = useRanking(picture, conditionIds, school.weights);
  const { match, current, ranking, places } = at;
  // It stays with the screen while another picture is laid on the sheets.
  const [pairShown, setPairShown] = useState(false);
  const pair = table.left && table.right && ([table.left, table.right] as const);
  return (
    <>
      <PictureHead picture={picture} onTurn={table.laidPictures.length > 1 ? table.turnPicture : undefined} />
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
          <AllAlike ranking={ranking} />
          {pair && <PairSeen {...{ pair, picture, places }} shown={pairShown} onShown={setPairShown} />}
          <RankingList {...{ at, ranking, places, picture }} />
          <BesideRanking {...{ at, ranking, places, picture, conditionIds, school }} />
        </>
      )}
      {current && <NotRanked at={at} />}
      {places.length > 0 && (
        <>
          <details className="mt-5">
            <summary className="cursor-pointer font-serif">How it is weighed</summary>
            <WeightsPanel weights={school.weights} onWeights={school.turn} />
          </details>
          <KeptMatches
            pictureId={picture.id}
            conditionIds={conditionIds}
            weights={weightsOf(school.weights)}
            now={places}
          />
        </>
      )}
    </>
  );
}
