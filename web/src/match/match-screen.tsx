import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { PictureView } from '@rakuen/contract/pictures';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote } from '../parts/messages.tsx';
import { sheetsLie, UnderWay, workOf } from '../parts/under-way.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { MarkCrops } from '../proof/mark-crops.tsx';
import { useTable, type Table } from '../table/use-table.ts';
import { AllAlike, NotRanked } from './beside-ranking.tsx';
import { MatchHead, PictureHead } from './match-head.tsx';
import { MatchTools, type ToolKey } from './match-tools.tsx';
import { RankingList } from './ranking-list.tsx';
import { useRanking, useSchool } from './use-ranking.ts';
import { useVersions } from './use-versions.ts';

/** The selected picture against the papers: a ranking, each place with its verdict and its reasons, and the decision. */
export function MatchScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const { data: conditions = [] } = useConditionsQuery();
  const pictures = usePicturesQuery();
  const school = useSchool();
  const [everything, setEverything] = useState(false);
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
        {conditions.some((c) => c.facts) && (
          <Button onClick={() => void navigate(`/match/papers/${(table.left ?? conditions.find((c) => c.facts)!).id}`)}>
            Pictures for a paper
          </Button>
        )}
        <Button onClick={() => void navigate('/match/shows')}>Shows</Button>
      </MatchHead>
      {!picture && !pictures.isLoading && (
        <Empty
          title="No picture selected"
          action={<Button onClick={() => void navigate('/pictures')}>To the pictures</Button>}
        >
          Add a picture to the table and select it. The papers are then ranked for it, each with its reasons.
        </Empty>
      )}
      {picture && <OnePicture {...{ table, picture, conditionIds, school }} />}
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
  const versions = useVersions(picture.id);
  const at = useRanking(picture, conditionIds, school.weights, versions.chosen);
  const { match, current, ranking, places } = at;
  // It stays open while another picture is matched.
  const [open, setOpen] = useState<ToolKey>();
  const [crops, setCrops] = useState(false);
  useKeys({ m: () => places.length > 0 && setCrops(true) });
  const pair = table.left && table.right && ([table.left, table.right] as const);
  return (
    <>
      <PictureHead picture={picture} onTurn={table.laidPictures.length > 1 ? table.turnPicture : undefined} />
      <ErrorNote error={match.error} />
      {match.error && !match.isFetching && <Button onClick={() => void match.refetch()}>Match again</Button>}
      {match.isFetching && !current && (
        <UnderWay what="Computing the picture on each paper" work={workOf('match')} far={sheetsLie} />
      )}
      {current && places.length === 0 && (
        <Empty
          title="No measured paper to rank"
          action={<Button onClick={() => void navigate('/readings')}>To the readings</Button>}
        >
          A paper is ranked by its readings. Import the readings of a print condition first.
        </Empty>
      )}
      {ranking && places.length > 0 && (
        <>
          <MatchTools
            {...{ at, ranking, places, picture, conditionIds, school, versions, pair, open }}
            onOpen={setOpen}
            onCrops={() => setCrops(true)}
          />
          <AllAlike ranking={ranking} />
          <RankingList {...{ at, ranking, places, picture }} />
        </>
      )}
      {current && <NotRanked at={at} />}
      {crops && (
        <MarkCrops
          picture={picture}
          where={picture.commission}
          sheets={places.flatMap(({ id }) => {
            const condition = at.conditionOf(id);
            return condition
              ? [{ key: id, conditionId: condition.id, name: condition.paper.name, recipe: at.versionOf(id) }]
              : [];
          })}
          onClose={() => setCrops(false)}
        />
      )}
    </>
  );
}
