import type { PictureView } from '@rakuen/contract/pictures';
import { sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { conditionLine } from '../parts/label.ts';
import { CostPlace } from './cost-place.tsx';
import { GlassTurn } from './glass-turn.tsx';
import type { Ranked, RankingAtHand, useSchool } from './use-ranking.ts';

type School = ReturnType<typeof useSchool>;

/** What is said of every sheet alike, so that it parts none. */
export function AllAlike({ ranking }: Pick<Ranked, 'ranking'>) {
  const shared = ranking.shared.filter((r) => r.speaks !== 'neither');
  if (shared.length === 0) return null;
  return (
    <p className="mb-2 max-w-[90ch] text-[13px]">
      <span className="text-quiet">All of them alike: </span>
      {shared.map((r) => r.sentence).join(' ')}
    </p>
  );
}

/** What would turn the ranking, who would choose otherwise, and what the sheets cost against what they give. */
export function BesideRanking({
  at,
  ranking,
  places,
  picture,
  conditionIds,
  school,
}: Ranked & { picture: PictureView; conditionIds: string[] | undefined; school: School }) {
  const { edge, conditionOf } = at;
  return (
    <div className="grid grid-cols-2 gap-x-8 border-t border-edge pt-4 text-[13px] max-[1150px]:grid-cols-1">
      <section aria-label="What would have to change">
        <h3>For another to win</h3>
        <Turns {...{ at, ranking }} />
        <GlassTurn
          key={picture.id}
          asked={{
            picture: picture.figures,
            hints: picture.hints,
            commission: picture.commission,
            weights: school.weights,
          }}
          request={{ pictureId: picture.id, conditionIds }}
          candidates={at.current!.candidates}
          nameOf={(id) => conditionOf(id)?.paper.name ?? 'another'}
        />
      </section>
      <section aria-label="Other schools">
        <h3>Where others would choose otherwise</h3>
        <ul>
          {school.schools
            .filter((s) => s.key !== school.weighedBy)
            .map((s) => {
              const c = at.choiceOf(s);
              return (
                c && (
                  <li key={s.key}>
                    {s.name}: <span className="font-serif">{c.paper.name}</span>, {conditionLine(c)}
                  </li>
                )
              );
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
  );
}

function Turns({ at: { lives, conditionOf }, ranking }: Pick<Ranked, 'at' | 'ranking'>) {
  if (ranking.turns.length === 0 && lives.length === 0)
    return <p>Nothing that stands alone turns it: no single weight, no other life.</p>;
  return (
    <ul>
      {ranking.turns.slice(0, 4).map((t) => (
        <li key={t.leaning}>
          Weigh <span className="font-serif">{t.name.toLowerCase()}</span> {formatNumber(t.weight, 1)}× instead of{' '}
          {formatNumber(t.from, 1)}×.
        </li>
      ))}
      {lives.slice(0, 3).map((l) => (
        <li key={l.words}>
          {sentenceCase(l.words)}: <span className="font-serif">{conditionOf(l.first)?.paper.name}</span>.
        </li>
      ))}
    </ul>
  );
}

/** Sheets that take no part, each with its reason, and figures that count for none. */
export function NotRanked({ at: { current, ranking, conditionOf } }: { at: RankingAtHand }) {
  const refused = ranking?.refused ?? [];
  const leftOut = [
    ...(current?.leftOut ?? []).filter((l) => !refused.some((r) => r.id === l.conditionId)),
    ...refused.map((r) => ({ conditionId: r.id, why: r.why })),
  ];
  const uncounted = ranking?.uncounted ?? [];
  if (leftOut.length === 0 && uncounted.length === 0) return null;
  const nameOf = (id: string) => {
    const c = conditionOf(id);
    return c ? `${c.paper.name}, ${conditionLine(c)}` : 'A removed condition';
  };
  const papersOf = (ids: readonly string[]) => [
    ...new Set(ids.map((id) => conditionOf(id)?.paper.name ?? 'a removed condition')),
  ];
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
          Counted for none: {u.what}, which is not known of {papersOf(u.unknownOf).join(', ')}.
        </p>
      ))}
    </section>
  );
}
