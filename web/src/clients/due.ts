import type { OrderView } from '@rakuen/contract/clients';
import { dayOf, today } from '@rakuen/core/day';
import { daysBetween } from '@rakuen/core/print/whereabouts';
import { day } from '../parts/label.ts';

/** “due 3 Mar 2026, in 5 days”. */
export function dueWords(order: Pick<OrderView, 'dueOn' | 'state' | 'deliveredOn'>, now = today()): string {
  if (order.state === 'delivered') return `delivered ${day(order.deliveredOn!)}`;
  if (order.state === 'cancelled') return 'cancelled';
  if (!order.dueOn) return 'no day set';
  const left = daysBetween(now, dayOf(order.dueOn));
  const days = `${Math.abs(left)} ${Math.abs(left) === 1 ? 'day' : 'days'}`;
  return `due ${day(order.dueOn)}, ${left < 0 ? `overdue by ${days}` : left === 0 ? 'today' : `in ${days}`}`;
}
