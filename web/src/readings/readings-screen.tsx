import { skipToken } from '@reduxjs/toolkit/query/react';
import { NavLink, useNavigate, useParams } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { useConditionQuery, useConditionsQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';
import { useTable } from '../table/use-table.ts';
import { BenchHead } from './bench-head.tsx';
import { BenchPlace } from './bench-place.tsx';
import { FiguresPlace } from './figures-place.tsx';
import { HistoryPlace } from './history-place.tsx';
import { ProfilePlace } from './profile-place.tsx';

/** The places at the measuring bench. */
const PLACES = {
  figures: { path: '', name: 'Figures', Place: FiguresPlace },
  history: { path: '/history', name: 'Sets and drift', Place: HistoryPlace },
  profile: { path: '/profile', name: 'Profile', Place: ProfilePlace },
  bench: { path: '/bench', name: 'Scale, gloss, scan, eye', Place: BenchPlace },
} as const;

/** One print condition at the bench: what was read of it, and every figure that follows. */
export function ReadingsScreen({ place }: { place: keyof typeof PLACES }) {
  const { conditionId } = useParams();
  const { data: conditions, error, isLoading } = useConditionsQuery();
  const { left, coming } = useTable();
  const navigate = useNavigate();
  // Which sheet is meant must not change under a file that is being laid down: the hands are waited for.
  const meant = coming ? undefined : (left ?? conditions?.[0]);
  const condition = conditions?.find((c) => c.id === conditionId) ?? (conditionId ? undefined : meant);
  const { currentData: whole, error: fault } = useConditionQuery(condition?.id ?? skipToken);
  const { Place } = PLACES[place];

  return (
    <>
      <BenchHead title="Readings" question={questionOf('/readings')} condition={condition}>
        {conditions && conditions.length > 0 && (
          <ConditionChoice
            conditions={conditions}
            chosen={condition}
            onChoose={(id) => void navigate(`/readings/${id}${PLACES[place].path}`)}
          />
        )}
      </BenchHead>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Fetching the readings" />}
      {conditions?.length === 0 && (
        <Empty
          title="Nothing to read yet"
          action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}
        >
          Readings belong to a print condition: a paper in a printer, with its inks and a media setting. Add one first.
        </Empty>
      )}
      {conditions && conditionId && !condition && (
        <ErrorNote
          error={{
            message: 'There is no such print condition.',
            remedy: 'Choose another above; it may have been removed.',
          }}
        />
      )}
      {condition && (
        <>
          <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
            <Strip paper={condition.paper} facts={condition.facts} size="large" />
            <div className="min-w-0">
              <h2 className="break-words">{condition.paper.name}</h2>
              <p>{conditionLine(condition)}</p>
            </div>
          </div>
          <nav aria-label="At the bench" className="mb-5 flex gap-6 border-b border-line">
            {Object.entries(PLACES).map(([key, { path, name }]) => (
              <NavLink
                key={key}
                end
                to={`/readings/${condition.id}${path}`}
                className={({ isActive }) =>
                  `-mb-px min-h-8 border-b-2 py-1 ${isActive || (key === place && !conditionId) ? 'border-ink font-semibold' : 'border-transparent hover:border-edge'}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <ErrorNote error={fault} />
          {whole ? <Place key={condition.id} condition={whole} /> : !fault && <Waiting what="Fetching the readings" />}
        </>
      )}
    </>
  );
}

function ConditionChoice({
  conditions,
  chosen,
  onChoose,
}: {
  conditions: ConditionHead[];
  chosen?: ConditionHead;
  onChoose: (id: string) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-quiet max-[1150px]:sr-only">Print condition</span>
      <select
        value={chosen?.id ?? ''}
        onChange={(e) => onChoose(e.target.value)}
        className="min-h-8 max-w-[42ch] rounded-[3px] border border-edge bg-field px-2"
      >
        {!chosen && <option value="">Choose</option>}
        {conditions.map((c) => (
          <option key={c.id} value={c.id}>
            {c.paper.name}, {conditionLine(c)}
          </option>
        ))}
      </select>
    </label>
  );
}
