import type { PictureView } from '@rakuen/contract/pictures';
import { sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { conditionLine } from '../parts/label.ts';
import { GlassTurn } from './glass-turn.tsx';
import type { Ranked, RankingAtHand, useSchool } from './use-ranking.ts';

type School = ReturnType<typeof useSchool>;

/** What is said of every sheet alike, so that it parts none. */
export function AllAlike({ ranking }: Pick<Ranked, 'ranking'>) {
  const shared = ranking.shared.filter((r) => r.speaks !== 'neither');
  if (shared.length === 0) return null;
  return (
    <p className="mb-2 max-w-[90ch] text-[13px]">
      <span className="text-quiet">On all of them: </span>
      {shared.map((r) => r.sentence).join(' ')}
    </p>
  );
}

/** What would make another paper win: a weight, another place to hang, another glass. */
export function Turns({
  at,
  ranking,
  picture,
  conditionIds,
  school,
}: Pick<Ranked, 'at' | 'ranking'> & { picture: PictureView; conditionIds: string[] | undefined; school: School }) {
  const { lives, conditionOf } = at;
  return (
    <section aria-label="What would change the winner">
      <h3>For another to win</h3>
      {ranking.turns.length === 0 && lives.length === 0 && (
        <p>No single weight and no other place to hang changes the winner.</p>
      )}
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
  );
}

/** Presets that would choose another paper. */
export function OtherPresets({ at, school }: Pick<Ranked, 'at'> & { school: School }) {
  const others = school.schools
    .filter((s) => s.key !== school.weighedBy)
    .flatMap((s) => {
      const c = at.choiceOf(s);
      return c ? [{ ...s, c }] : [];
    });
  return (
    <section aria-label="Other presets">
      <h3>Presets that choose another</h3>
      {others.length === 0 && <p>None: under every preset the same paper wins.</p>}
      <ul>
        {others.map(({ key, name, c }) => (
          <li key={key}>
            {name}: <span className="font-serif">{c.paper.name}</span>, {conditionLine(c)}
          </li>
        ))}
      </ul>
    </section>
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
