/** Where a print can be. A copy that never moved is in the studio. */
export const WHEREABOUTS = {
  studio: { name: 'in the studio' },
  sold: { name: 'sold' },
  lent: { name: 'lent' },
  consigned: { name: 'on consignment' },
  given: { name: 'given away' },
  destroyed: { name: 'destroyed' },
} as const;
export type Whereabout = keyof typeof WHEREABOUTS;
export const WHEREABOUT_KEYS = Object.keys(WHEREABOUTS) as Whereabout[];

/** These come back on a day that was agreed. */
export const COMES_BACK: readonly Whereabout[] = ['lent', 'consigned'];

/** Copies of a print that went from one place to another. */
export interface Move {
  readonly id: string;
  /** The move these copies stood at; null for copies that never moved. */
  readonly fromId: string | null;
  readonly to: Whereabout;
  readonly copies: number;
  /** Day it comes back, ISO 8601. */
  readonly until?: string;
}

/** Copies that stand where a move brought them. */
export interface Standing<M extends Move> {
  readonly move: M;
  readonly copies: number;
}

/** Where copies are now. */
export interface Standings<M extends Move> {
  /** In the studio since they were printed. */
  readonly neverMoved: number;
  /** In the order of the moves. */
  readonly moved: readonly Standing<M>[];
}

const sum = (moves: readonly Move[]) => moves.reduce((all, m) => all + m.copies, 0);

/**
 * Where the copies of a print are.
 * @param copies of the print, without those that bear a number: each of those has its own moves
 */
export function standings<M extends Move>(moves: readonly M[], copies: number): Standings<M> {
  const left = (id: string | null) => sum(moves.filter((m) => m.fromId === id));
  return {
    neverMoved: copies - left(null),
    moved: moves
      .map((move) => ({ move, copies: move.copies - left(move.id) }))
      .filter((standing) => standing.copies > 0),
  };
}

/** Why copies can't move; undefined where they can. */
export type MoveRefused =
  { readonly why: 'too few'; readonly there: number } | { readonly why: 'destroyed' } | { readonly why: 'same' };

/** @param from the move they stand at; undefined for copies that never moved */
export function moveRefused<M extends Move>(
  now: Standings<M>,
  from: M | undefined,
  next: Pick<Move, 'to' | 'copies'>,
): MoveRefused | undefined {
  if (from?.to === 'destroyed') return { why: 'destroyed' };
  const at = from?.to ?? 'studio';
  if (at === 'studio' && next.to === 'studio') return { why: 'same' };
  const there = from ? (now.moved.find((s) => s.move.id === from.id)?.copies ?? 0) : now.neverMoved;
  return next.copies > there ? { why: 'too few', there } : undefined;
}

/** Whole days since a copy should have been back; 0 where it is not due. @param today ISO 8601 day */
export function daysOverdue({ to, until }: Pick<Move, 'to' | 'until'>, today: string): number {
  if (!COMES_BACK.includes(to) || !until) return 0;
  return Math.max(0, daysBetween(until, today));
}

const DAY_MS = 86_400_000;
/** Calendar days from one to the other; negative where the other is earlier. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY_MS);
