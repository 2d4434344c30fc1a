import fc from 'fast-check';
import { daysBetween, daysOverdue, moveRefused, standings, WHEREABOUT_KEYS, type Move } from './whereabouts.ts';

const move = (id: string, fromId: string | null, to: Move['to'], copies = 1, until?: string): Move => ({
  id,
  fromId,
  to,
  copies,
  until,
});

describe('where copies are', () => {
  it('follows five copies through a gallery', () => {
    const moves = [
      move('a', null, 'consigned', 3),
      move('b', 'a', 'sold', 1),
      move('c', 'a', 'studio', 1),
      move('d', 'c', 'given', 1),
    ];
    const now = standings(moves, 5);
    expect(now.neverMoved).toBe(2);
    expect(now.moved.map((s) => [s.move.id, s.copies])).toEqual([
      ['a', 1],
      ['b', 1],
      ['d', 1],
    ]);
  });

  it('refuses more copies than stand there, and says how many do', () => {
    const a = move('a', null, 'consigned', 3);
    const now = standings([a, move('b', 'a', 'sold', 2)], 5);
    expect(moveRefused(now, a, { to: 'sold', copies: 2 })).toEqual({ why: 'too few', there: 1 });
    expect(moveRefused(now, a, { to: 'sold', copies: 1 })).toBeUndefined();
    expect(moveRefused(now, undefined, { to: 'sold', copies: 3 })).toEqual({ why: 'too few', there: 2 });
  });

  it('leaves a destroyed print destroyed, and moves nothing from the studio to the studio', () => {
    const gone = move('a', null, 'destroyed');
    expect(moveRefused(standings([gone], 1), gone, { to: 'studio', copies: 1 })).toEqual({ why: 'destroyed' });
    expect(moveRefused(standings([], 1), undefined, { to: 'studio', copies: 1 })).toEqual({ why: 'same' });
  });

  it('counts every copy once, whatever moved', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.tuple(fc.nat(30), fc.nat(WHEREABOUT_KEYS.length - 1), fc.integer({ min: 1, max: 4 })), {
          maxLength: 30,
        }),
        (copies, asked) => {
          const moves: Move[] = [];
          for (const [from, to, count] of asked) {
            const source = from < moves.length ? moves[from] : undefined;
            const next = move(String(moves.length), source?.id ?? null, WHEREABOUT_KEYS[to], count);
            if (!moveRefused(standings(moves, copies), source, next)) moves.push(next);
          }
          const now = standings(moves, copies);
          expect(now.neverMoved).toBeGreaterThanOrEqual(0);
          expect(now.neverMoved + now.moved.reduce((all, s) => all + s.copies, 0)).toBe(copies);
          expect(now.moved.every((s) => s.copies > 0)).toBe(true);
        },
      ),
    );
  });
});

describe('what should be back', () => {
  it('counts calendar days, over a change of the clock and a leap day', () => {
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
    expect(daysBetween('2026-12-31', '2026-12-30')).toBe(-1);
  });

  it('is overdue from the day after', () => {
    const lent = { to: 'lent', until: '2026-11-30' } as const;
    expect(daysOverdue(lent, '2026-11-30')).toBe(0);
    expect(daysOverdue(lent, '2026-12-02')).toBe(2);
    expect(daysOverdue({ ...lent, to: 'sold' }, '2026-12-02')).toBe(0);
    expect(daysOverdue({ to: 'consigned' }, '2026-12-02')).toBe(0);
  });
});
