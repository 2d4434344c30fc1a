import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { SuitLine } from '@rakuen/contract/matches';
import type { PictureView } from '@rakuen/contract/pictures';
import { COLOUR_KINDS } from '@rakuen/core/picture/tally';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { PresetChoice } from './match-head.tsx';
import { Score } from './score.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { useSchool } from './use-ranking.ts';
import { useSuits } from './use-suits.ts';

/** Pictures that are drawn at first, and at each request for more. */
const STEP = 20;

interface Suiting extends SuitLine {
  readonly picture: PictureView;
}

/** Which pictures suit a paper: all of the studio in order, each with a line on what the paper does to it. */
export function PicturesForPaper() {
  const { conditionId = '' } = useParams();
  const navigate = useNavigate();
  const { data: conditions = [] } = useConditionsQuery();
  const { data: pictures, isLoading } = usePicturesQuery();
  const school = useSchool();
  const condition = conditions.find((c) => c.id === conditionId);
  return (
    <>
      <ScreenHead title="Match" question="Which pictures suit this paper?">
        <PresetChoice school={school} />
        <label className="flex items-center gap-2">
          <span className="text-quiet">Paper</span>
          <select
            value={conditionId}
            onChange={(e) => void navigate(`/match/papers/${e.target.value}`)}
            className="min-h-8 max-w-[26ch] rounded-[3px] border border-edge bg-field px-2"
          >
            {!condition && <option value={conditionId}>—</option>}
            {conditions.map((c) => (
              <option key={c.id} value={c.id}>
                {c.paper.name}, {conditionLine(c)}
              </option>
            ))}
          </select>
        </label>
        <Button onClick={() => void navigate('/match')}>Papers for a picture</Button>
      </ScreenHead>
      {condition && (
        <div className="mb-3">
          <h2 className="text-[1.35rem] leading-tight break-words">{condition.paper.name}</h2>
          <p className="text-[13px] text-quiet">{conditionLine(condition)}</p>
        </div>
      )}
      {!isLoading && pictures?.length === 0 ? (
        <Empty
          title="No picture yet"
          action={<Button onClick={() => void navigate('/pictures')}>To the pictures</Button>}
        >
          Import pictures first. Each is then judged on this paper, where it will hang.
        </Empty>
      ) : (
        <Order key={conditionId} {...{ conditionId, pictures: pictures ?? [], school }} name={condition?.paper.name} />
      )}
    </>
  );
}

function Order({
  conditionId,
  pictures,
  school,
  name = 'the paper',
}: {
  conditionId: string;
  pictures: readonly PictureView[];
  school: ReturnType<typeof useSchool>;
  name?: string;
}) {
  const [again, setAgain] = useState(0);
  const { lines, done, error } = useSuits(conditionId, school.weights, again);
  const [words, setWords] = useState('');
  const [kind, setKind] = useState('');
  const [count, setCount] = useState(STEP);
  const { order, refused } = useMemo(() => {
    const wanted = pictures.filter(
      (p) => p.title.toLowerCase().includes(words.trim().toLowerCase()) && (kind === '' || p.figures.colour === kind),
    );
    const known = wanted.flatMap((picture) => {
      const line = lines.get(picture.id);
      return line ? [{ ...line, picture }] : [];
    });
    return {
      order: known.filter((l): l is Suiting => 'score' in l).sort((p, q) => q.score - p.score),
      refused: known.flatMap((l) => ('refused' in l ? [{ title: l.picture.title, why: l.refused }] : [])),
    };
  }, [pictures, lines, words, kind]);
  return (
    <section aria-label="Pictures in order">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Filter {...{ words, kind }} onWords={setWords} onKind={setKind} />
        <p role="status" className="text-[13px] text-quiet">
          {done
            ? `${order.length} of ${pictures.length} pictures in order${refused.length > 0 ? `, ${refused.length} refused` : ''}.`
            : error
              ? ''
              : `${lines.size} of ${pictures.length} judged…`}
        </p>
      </div>
      <ErrorNote error={error} />
      {error && <Button onClick={() => setAgain(again + 1)}>Ask again</Button>}
      <ol aria-label="Pictures for this paper">
        {order.slice(0, count).map((s, i) => (
          <SuitRow key={s.pictureId} suiting={s} at={i + 1} {...{ conditionId, name }} />
        ))}
      </ol>
      {order.length > count && (
        <Button className="mt-3" onClick={() => setCount(count + STEP)}>
          Show {Math.min(STEP, order.length - count)} more of {order.length}
        </Button>
      )}
      {refused.length > 0 && (
        <details className="mt-4 text-[13px]">
          <summary className="cursor-pointer font-serif">Refused or not judged: {refused.length}</summary>
          <ul>
            {refused.map(({ title, why }, i) => (
              <li key={i}>
                {title}: {why}
              </li>
            ))}
          </ul>
        </details>
      )}
      {done && order.some((s) => !s.exact) && (
        <p className="mt-4 max-w-[84ch] text-[13px] text-quiet">
          The first forty are computed from all their colours, the others from a hundred colours each. Those scores are
          approximate: on ten pictures and ten papers they were within half a point.
        </p>
      )}
    </section>
  );
}

function Filter({
  words,
  kind,
  onWords,
  onKind,
}: {
  words: string;
  kind: string;
  onWords: (words: string) => void;
  onKind: (kind: string) => void;
}) {
  return (
    <>
      <label className="flex items-center gap-2">
        <span className="text-quiet">Title contains</span>
        <input
          type="search"
          value={words}
          onChange={(e) => onWords(e.target.value)}
          className="min-h-8 w-[22ch] rounded-[3px] border border-edge bg-field px-2"
        />
      </label>
      <label className="flex items-center gap-2">
        <span className="text-quiet">Colour</span>
        <select
          value={kind}
          onChange={(e) => onKind(e.target.value)}
          className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
        >
          <option value="">all</option>
          {COLOUR_KINDS.map((k) => (
            <option key={k}>{k}</option>
          ))}
        </select>
      </label>
    </>
  );
}

function SuitRow({
  suiting: { picture, score, scoreSd, verdict, wouldHelp },
  at,
  conditionId,
  name,
}: {
  suiting: Suiting;
  at: number;
  conditionId: string;
  name: string;
}) {
  const table = useTable();
  const navigate = useNavigate();
  const there = table.has(picture.id);
  const match = () => {
    if (there) table.holdPicture(picture.id, picture.title);
    else table.togglePicture(picture.id, picture.title);
    void navigate('/match');
  };
  return (
    <li className="grid grid-cols-[30px_110px_minmax(0,1fr)_auto] gap-x-4 border-t border-edge py-2">
      <p className="font-serif text-[1.2rem] leading-none">{at}</p>
      <SeenOnSheet picture={picture} conditionId={conditionId} name={name} px={400} />
      <div className="min-w-0">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h3 className="text-[1.05rem] leading-tight break-words">{picture.title}</h3>
          <Score score={score} sd={scoreSd} />
        </div>
        <p className="font-serif leading-snug font-semibold">{verdict}</p>
        {wouldHelp.length > 0 && (
          <p className="text-[13px]">
            <span className="text-quiet">Would help: </span>
            {wouldHelp.join(', ')}.
          </p>
        )}
      </div>
      <div className="flex flex-col items-end">
        <QuietButton onClick={match} aria-label={`Compare papers for ${picture.title}`}>
          Compare papers
        </QuietButton>
        {!there && (
          <QuietButton
            onClick={() => table.togglePicture(picture.id, picture.title)}
            aria-label={`Add ${picture.title} to the table`}
          >
            Add to table
          </QuietButton>
        )}
      </div>
    </li>
  );
}
