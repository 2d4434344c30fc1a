import type { Commission } from './commission.ts';
import { judgeSheets, type Candidate, type Judgement, type Question } from './judge.ts';
import { rankSheets, weigh, type Asked } from './rank.ts';
import type { Weights } from './schools.ts';

/** Another life for a picture that needs no new look at any sheet: its light and glass stay. */
const OTHER_LIVES: readonly {
  readonly words: string;
  readonly change: (c: Commission) => Partial<Commission> | undefined;
}[] = [
  { words: 'in an edition of three', change: (c) => (c.editionOf === 3 ? undefined : { editionOf: 3 }) },
  { words: 'as an open edition', change: (c) => (c.editionOf === undefined ? undefined : { editionOf: undefined }) },
  { words: 'if it is handled', change: (c) => (c.handled || c.glass !== 'none' ? undefined : { handled: true }) },
  { words: 'if nobody handles it', change: (c) => (c.handled ? { handled: false } : undefined) },
  { words: 'if it is to last', change: (c) => (c.mustLast ? undefined : { mustLast: true }) },
  { words: 'if it need not last', change: (c) => (c.mustLast ? { mustLast: false } : undefined) },
  { words: 'seen from two metres', change: (c) => (c.viewingMm >= 2000 ? undefined : { viewingMm: 2000 }) },
  { words: 'held in the hand, from 35 cm', change: (c) => (c.viewingMm <= 350 ? undefined : { viewingMm: 350 }) },
  { words: 'printed at 20 cm', change: (c) => (c.longSideMm <= 200 ? undefined : { longSideMm: 200 }) },
];

export interface OtherLife {
  readonly words: string;
  /** The sheet that would be first then. */
  readonly first: string;
}

/** Another life with what would be said of every sheet then. */
export interface JudgedLife {
  readonly words: string;
  readonly judgement: Judgement;
}

/** The sheets judged for every other life of a picture. */
export const otherLives = (question: Question, candidates: readonly Candidate[]): JudgedLife[] =>
  OTHER_LIVES.flatMap(({ words, change }) => {
    const other = change(question.commission);
    if (!other) return [];
    const commission = { ...question.commission, ...other };
    return [{ words, judgement: judgeSheets({ ...question, commission }, candidates) }];
  });

/** The sheet that is clearly first; a tie is none. */
function clearlyFirst(judgement: Judgement, weights: Weights | undefined): string | undefined {
  const [first, second] = weigh(judgement, weights).places;
  return first && first.place !== second?.place ? first.id : undefined;
}

/** Where a picture would have to live for another sheet to be clearly first. @param today the sheets judged as it lives today */
export function turnsByCommission(
  today: Judgement,
  lives: readonly JudgedLife[],
  weights: Weights | undefined,
): OtherLife[] {
  const now = weigh(today, weights).places[0];
  if (!now) return [];
  return lives.flatMap(({ words, judgement }): OtherLife[] => {
    const first = clearlyFirst(judgement, weights);
    return first && first !== now.id ? [{ words, first }] : [];
  });
}

export interface TurnByGlass {
  /** The sheet that would be clearly first there, where it is another than today. */
  readonly first?: string;
  /** Sheets that are known in one of the two alone: they take no part. */
  readonly unknown: readonly string[];
}

/**
 * What another glass would change, among the sheets that are known both as they hang today and behind it.
 * @param there the sheets as they are seen behind it
 */
export function turnByGlass(
  asked: Asked,
  today: readonly Candidate[],
  glass: string,
  there: readonly Candidate[],
): TurnByGlass {
  const ids = (list: readonly Candidate[]) => new Set(list.map((c) => c.sheet.id));
  const [here, then] = [ids(today), ids(there)];
  const both = (list: readonly Candidate[]) => list.filter(({ sheet: { id } }) => here.has(id) && then.has(id));
  const unknown = [...new Set([...here, ...then])].filter((id) => !here.has(id) || !then.has(id));
  const behind = judgeSheets({ ...asked, commission: { ...asked.commission, glass } }, both(there));
  const first = clearlyFirst(behind, asked.weights);
  const now = rankSheets(asked, both(today)).places[0]?.id;
  return { ...(first !== now && { first }), unknown };
}
