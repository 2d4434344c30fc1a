import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PortfolioView } from '@rakuen/contract/matches';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Weights } from '@rakuen/core/match/schools';
import { formatNumber } from '@rakuen/core/measurement/show';
import { conditionLine } from '../parts/label.ts';
import { Button } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { sheetsLie, UnderWay, workOf } from '../parts/under-way.tsx';
import { usePortfolioQuery } from './match-api.ts';

/** A score that leads by less is no lead: both may be off by as much. Only a sheet that stands clear of the next is marked. */
const APART = 0.5;
/** A mean that rises by less is worth no sheet more. */
const LITTLE = 0.15;

/** A show: every picture against every sheet, and the fewest sheets that carry them. */
export function PortfolioPlace({
  pictures,
  conditions,
  conditionIds,
  weights,
}: {
  pictures: readonly PictureView[];
  conditions: readonly ConditionHead[];
  conditionIds?: string[];
  weights: Weights;
}) {
  const {
    currentData: show,
    error,
    isFetching,
    refetch,
  } = usePortfolioQuery({
    pictureIds: pictures.map((p) => p.id),
    conditionIds,
    weights: { ...weights },
    work: workOf('show'),
  });
  if (error && !isFetching)
    return (
      <>
        <ErrorNote error={error} />
        <Button className="mt-2" onClick={() => void refetch()}>
          Lay them on the sheets again
        </Button>
      </>
    );
  if (!show) return <UnderWay what="Laying every picture on every sheet" work={workOf('show')} far={sheetsLie} />;
  const nameOf = (id: string) => conditions.find((c) => c.id === id)?.paper.name ?? 'a removed condition';
  return (
    <section aria-label="The show">
      <h2 className="mb-1">The fewest sheets</h2>
      <Fewest show={show} pictures={pictures} nameOf={nameOf} />
      <div className="overflow-x-auto">
        <Scores show={show} pictures={pictures} conditions={conditions} nameOf={nameOf} />
      </div>
      {show.unknown.length > 0 && (
        <p className="mt-2 text-[13px] text-quiet">
          Not compared, since not known for every picture: {show.unknown.map(nameOf).join(', ')}.
        </p>
      )}
    </section>
  );
}

interface ShowProps {
  show: PortfolioView;
  pictures: readonly PictureView[];
  nameOf: (conditionId: string) => string;
}

/** One sheet, two, three: what each more wins. */
function Fewest({ show, pictures, nameOf }: ShowProps) {
  return (
    <ol className="mb-5 space-y-1">
      {show.choices.map((choice, i) => {
        const before = i > 0 ? show.choices[i - 1] : undefined;
        const won = before && choice.meanScore - before.meanScore;
        const worst = pictures.find((p) => p.id === choice.worst.pictureId);
        return (
          <li key={choice.conditionIds.length} className="grid grid-cols-[2ch_minmax(0,1fr)_auto] gap-x-3">
            <span className="font-serif">{choice.conditionIds.length}</span>
            <span>
              <span className="font-serif">{choice.conditionIds.map(nameOf).join(', ')}</span>
              <span className="text-[13px] text-quiet">
                {' '}
                · worst served: {worst?.title}, {formatNumber(choice.worst.score, 1)}
              </span>
            </span>
            <span className="text-right">
              {formatNumber(choice.meanScore, 1)} of 10
              {won !== undefined && (
                <span className="text-[13px] text-quiet">
                  {won < LITTLE ? ', wins little or nothing' : `, wins ${formatNumber(won, 1)}`}
                </span>
              )}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

/** Every picture on every sheet; a sheet that stands clear of all others is marked. */
function Scores({ show, pictures, conditions, nameOf }: ShowProps & { conditions: readonly ConditionHead[] }) {
  const sheets = [...new Set(show.scores.map((s) => s.conditionId))];
  const scoreOf = (pictureId: string, conditionId: string) =>
    show.scores.find((s) => s.pictureId === pictureId && s.conditionId === conditionId)?.score;
  return (
    <table className="w-full text-left text-[13px]">
      <thead>
        <tr className="border-b border-edge align-bottom">
          <th scope="col" className="pr-3">
            Score, of 10
          </th>
          {sheets.map((id) => {
            const c = conditions.find((k) => k.id === id);
            return (
              <th key={id} scope="col" className="px-1 text-right font-serif font-normal" title={c && conditionLine(c)}>
                {nameOf(id)}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {pictures.map((p) => {
          const scores = sheets.map((id) => scoreOf(p.id, id));
          const leads = leadOf(scores);
          return (
            <tr key={p.id} className="border-b border-line">
              <th scope="row" className="py-1 pr-3 font-serif font-normal">
                {p.title}
              </th>
              {scores.map((score, i) => (
                <td
                  key={sheets[i]}
                  className={`px-1 text-right ${score !== undefined && score === leads ? 'font-semibold underline' : ''}`}
                >
                  {score === undefined ? '—' : formatNumber(score, 1)}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The score that stands clear of every other; none where there is no other. */
export function leadOf(scores: readonly (number | undefined)[]): number | undefined {
  const [best, next] = scores.filter((s) => s !== undefined).sort((a, b) => b - a);
  return next !== undefined && best - next >= APART ? best : undefined;
}
