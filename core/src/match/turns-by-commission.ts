import type { Commission } from './commission.ts';
import { rankSheets, type Asked, type Candidate } from './rank.ts';

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

/** The sheet that is clearly first; a tie is none. */
function clearlyFirst(asked: Asked, candidates: readonly Candidate[]): string | undefined {
  const [first, second] = rankSheets(asked, candidates).places;
  return first && first.place !== second?.place ? first.id : undefined;
}

/** Where a picture would have to live for another sheet to be clearly first. */
export function turnsByCommission(asked: Asked, candidates: readonly Candidate[]): OtherLife[] {
  const today = rankSheets(asked, candidates).places[0];
  if (!today) return [];
  return OTHER_LIVES.flatMap(({ words, change }): OtherLife[] => {
    const other = change(asked.commission);
    const first = other && clearlyFirst({ ...asked, commission: { ...asked.commission, ...other } }, candidates);
    return first && first !== today.id ? [{ words, first }] : [];
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
  const first = clearlyFirst({ ...asked, commission: { ...asked.commission, glass } }, both(there));
  const now = rankSheets(asked, both(today)).places[0]?.id;
  return { ...(first !== now && { first }), unknown };
}
