import { useMemo, useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { DecisionView } from '@rakuen/contract/matches';
import type { PictureView } from '@rakuen/contract/pictures';
import { costEdge, type CostEdge } from '@rakuen/core/match/cost-edge';
import { judgeSheets } from '@rakuen/core/match/judge';
import { weigh, type RankedSheet, type Ranking } from '@rakuen/core/match/rank';
import { aspectOf } from '@rakuen/core/picture/aspect';
import type { Weights } from '@rakuen/core/match/schools';
import { otherLives, turnsByCommission } from '@rakuen/core/match/turns-by-commission';
import { useConditionsQuery, useMatchQuery } from '../api/api.ts';
import { workOf } from '../parts/under-way.tsx';
import { useAllSchools } from './weights-panel.tsx';

type School = ReturnType<typeof useAllSchools>[number];

/** By whom it is weighed: a school, or weights of one's own. */
export function useSchool() {
  const schools = useAllSchools();
  const [key, setKey] = useState('start');
  const [own, setOwn] = useState<Weights>();
  const weights = useMemo((): Weights => own ?? schools.find((s) => s.key === key)?.weights ?? {}, [own, schools, key]);
  return {
    schools,
    weights,
    /** Key of the school it is weighed by; `own` where the weights were turned by hand. */
    weighedBy: own ? 'own' : key,
    choose: (school: string) => {
      setKey(school);
      setOwn(undefined);
    },
    turn: setOwn,
  };
}

/** A picture against the papers: judged once on the server's figures, and weighed here, so that a slider answers at once. */
export function useRanking(
  picture: PictureView | undefined,
  conditionIds: string[] | undefined,
  weights: Weights,
  recipeIds: string[] = [],
) {
  const { data: conditions = [] } = useConditionsQuery();
  const match = useMatchQuery(
    { pictureId: picture?.id ?? '', conditionIds, work: workOf('match'), ...(recipeIds.length > 0 && { recipeIds }) },
    { skip: !picture },
  );
  // Swapping the picture must not leave the old ranking standing under the new name.
  const current = match.currentData;
  const judged = useMemo(() => {
    if (!picture || !current) return undefined;
    const { figures, hints, commission } = picture;
    const question = { picture: figures, hints, commission, aspect: aspectOf(picture) };
    return {
      today: judgeSheets(question, current.candidates),
      lives: otherLives(question, current.candidates),
    };
  }, [picture, current]);
  const ranking = useMemo(() => judged && weigh(judged.today, weights), [judged, weights]);
  const lives = useMemo(
    () => (judged ? turnsByCommission(judged.today, judged.lives, weights) : []),
    [judged, weights],
  );
  const edge = useMemo(
    (): CostEdge | undefined =>
      ranking &&
      current &&
      costEdge(
        // A version costs what its paper costs.
        ranking.places.filter((p) => !current.versions.some((v) => v.id === p.id)),
        current.candidates.map((c) => c.sheet),
      ),
    [ranking, current],
  );
  const placeOf = (id: string) => current?.places.find((p) => (p.recipeId ?? p.conditionId) === id);
  const versionOf = (id: string) => current?.versions.find((v) => v.id === id);
  /** A paper, or a version of it under its own name. */
  const conditionOf = (id: string): ConditionHead | undefined => {
    const version = versionOf(id);
    const condition = conditions.find((c) => c.id === (version?.conditionId ?? id));
    if (!version || !condition) return condition;
    const name = `${condition.paper.name}, ${version.name || 'working recipe'}`;
    return { ...condition, paper: { ...condition.paper, name } };
  };
  return {
    match,
    current,
    ranking,
    lives,
    edge,
    places: ranking?.places ?? [],
    conditionOf,
    versionOf,
    decisionOf: (id: string): DecisionView | undefined => placeOf(id)?.decision,
    judgedOf: (id: string) => placeOf(id)?.judged ?? [],
    /** What another school puts first, where it would choose otherwise. */
    choiceOf(school: School): ConditionHead | undefined {
      const theirs = judged ? weigh(judged.today, school.weights).places : [];
      // Where the sheet that leads here shares their first place, they do not choose otherwise.
      const agree = theirs.some((p) => p.place === 1 && p.id === ranking?.places[0]?.id);
      return theirs[0] && !agree ? conditionOf(theirs[0].id) : undefined;
    },
  };
}

export type RankingAtHand = ReturnType<typeof useRanking>;
/** One that has come, with sheets in it. */
export interface Ranked {
  readonly at: RankingAtHand;
  readonly ranking: Ranking;
  readonly places: readonly RankedSheet[];
}
