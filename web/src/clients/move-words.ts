import type { MoveView } from '@rakuen/contract/clients';
import { formatNumber } from '@rakuen/core/measurement/show';
import { WHEREABOUTS } from '@rakuen/core/print/whereabouts';
import { day } from '../parts/label.ts';

/** “overdue by 12 days”; '' where it is not due. */
export const overdueWords = ({ daysOverdue }: Pick<MoveView, 'daysOverdue'>): string =>
  daysOverdue > 0 ? `overdue by ${daysOverdue} ${daysOverdue === 1 ? 'day' : 'days'}` : '';

export const priceWords = ({ price, currency }: { price?: number; currency?: string }): string =>
  price === undefined ? '' : `${formatNumber(price, price % 1 === 0 ? 0 : 2)} ${currency}`;

/** Where a copy is: “lent to Harbour Café, Foyer, 3 Mar 2026, until 1 Jun 2026”. */
export function whereWords(m: MoveView): string {
  const joined = m.to === 'consigned' ? 'with' : 'to';
  return [
    WHEREABOUTS[m.to].name + (m.who && m.to !== 'studio' && m.to !== 'destroyed' ? ` ${joined} ${m.who}` : ''),
    (m.to === 'studio' || m.to === 'destroyed') && m.who,
    m.where,
    day(m.on),
    m.until && `until ${day(m.until)}`,
    overdueWords(m),
    priceWords(m) + (m.price !== undefined && m.copies > 1 ? ' a copy' : ''),
  ]
    .filter(Boolean)
    .join(', ');
}

/** The move a number stands at; undefined while it never left the studio. */
export const lastOf = (moves: readonly MoveView[]): MoveView | undefined => moves.find((m) => m.standing > 0);
