import type { ConditionHead } from '@rakuen/contract/conditions';
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
  const sheets = [...new Set(show.scores.map((s) => s.conditionId))];
  const nameOf = (id: string) => conditions.find((c) => c.id === id)?.paper.name ?? 'a removed condition';
  const scoreOf = (pictureId: string, conditionId: string) =>
    show.scores.find((s) => s.pictureId === pictureId && s.conditionId === conditionId)?.score;
  return (
    <section aria-label="The show">
      <h2 className="mb-1">The fewest sheets</h2>
      <ol className="mb-5 space-y-1">
        {show.choices.map((choice, i) => {
          const before = show.choices[i - 1];
          const won = before ? choice.meanScore - before.meanScore : undefined;
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
      <div className="overflow-x-auto">
        <table className="w-full text-left text-[13px]">
          <thead>
            <tr className="border-b border-edge align-bottom">
              <th scope="col" className="pr-3">
                Score, of 10
              </th>
              {sheets.map((id) => {
                const c = conditions.find((k) => k.id === id);
                return (
                  <th
                    key={id}
                    scope="col"
                    className="px-1 text-right font-serif font-normal"
                    title={c && conditionLine(c)}
                  >
                    {nameOf(id)}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {pictures.map((p) => {
              const [best, next = 0] = sheets.map((id) => scoreOf(p.id, id) ?? 0).sort((a, b) => b - a);
              return (
                <tr key={p.id} className="border-b border-line">
                  <th scope="row" className="py-1 pr-3 font-serif font-normal">
                    {p.title}
                  </th>
                  {sheets.map((id) => {
                    const score = scoreOf(p.id, id);
                    return (
                      <td
                        key={id}
                        className={`px-1 text-right ${score === best && best - next >= APART ? 'font-semibold underline' : ''}`}
                      >
                        {score === undefined ? '—' : formatNumber(score, 1)}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {show.unknown.length > 0 && (
        <p className="mt-2 text-[13px] text-quiet">
          Not compared, since not known for every picture: {show.unknown.map(nameOf).join(', ')}.
        </p>
      )}
    </section>
  );
}
