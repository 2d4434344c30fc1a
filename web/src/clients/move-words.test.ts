import type { MoveView } from '@rakuen/contract/clients';
import { lastOf, overdueWords, priceWords, whereWords } from './move-words.ts';
import { day } from '../parts/label.ts';
import { dueWords } from './due.ts';

const move = (over: Partial<MoveView>): MoveView => ({
  id: 'm',
  recordedAt: '2026-03-04T10:00:00Z',
  to: 'sold',
  copies: 1,
  standing: 1,
  who: '',
  where: '',
  what: 'Tide',
  on: '2026-03-04',
  daysOverdue: 0,
  ...over,
});

describe('where a print is, in words', () => {
  it('names who, where, since when, until when and the price', () => {
    expect(whereWords(move({ who: 'Vessel Fair', where: 'Hall 3', price: 18, currency: 'EUR' }))).toBe(
      `sold to Vessel Fair, Hall 3, ${day('2026-03-04')}, 18 EUR`,
    );
    expect(
      whereWords(
        move({
          to: 'consigned',
          who: 'Gable House',
          until: '2026-06-01',
          daysOverdue: 12,
          copies: 2,
          price: 90.5,
          currency: 'CHF',
        }),
      ),
    ).toBe(
      `on consignment with Gable House, ${day('2026-03-04')}, until ${day('2026-06-01')}, overdue by 12 days, 90.50 CHF a copy`,
    );
    expect(whereWords(move({ to: 'studio', who: 'school' }))).toBe(`in the studio, school, ${day('2026-03-04')}`);
  });

  it('counts one day as one day', () => {
    expect(overdueWords({ daysOverdue: 1 })).toBe('overdue by 1 day');
    expect(priceWords({})).toBe('');
  });

  it('stands where copies still are', () => {
    expect(lastOf([move({ id: 'a', standing: 0 }), move({ id: 'b' })])?.id).toBe('b');
    expect(lastOf([])).toBeUndefined();
  });
});

describe('when an order is due', () => {
  const of = (dueOn?: string) => dueWords({ state: 'open', dueOn }, '2026-12-02');
  it('says how many days are left, or over', () => {
    expect(of('2026-12-18')).toBe(`due ${day('2026-12-18')}, in 16 days`);
    expect(of('2026-12-03')).toBe(`due ${day('2026-12-03')}, in 1 day`);
    expect(of('2026-12-02')).toBe(`due ${day('2026-12-02')}, today`);
    expect(of('2026-11-30')).toBe(`due ${day('2026-11-30')}, overdue by 2 days`);
    expect(of()).toBe('no day set');
    expect(dueWords({ state: 'delivered', deliveredOn: '2026-11-30', dueOn: '2026-12-18' })).toBe(
      `delivered ${day('2026-11-30')}`,
    );
  });
});
