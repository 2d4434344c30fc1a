import type { ConditionView } from '@rakuen/contract/conditions';
import { formatNumber } from '@rakuen/core/measurement/show';

/** A print condition in a line, under its paper's name: printer, media setting, and the mode where it is not the usual one. */
export function conditionLine(c: ConditionView): string {
  const parts = [c.printer, c.mediaSetting];
  if (c.printMode !== 'colour through a profile') parts.push(c.printMode);
  if (c.blackOvercoat) parts.push('black overcoat');
  return parts.join(' · ');
}

/** A number as a maker claims it: as many digits as were given, to one after the point. */
export function asClaimed(value: number): string {
  return formatNumber(value, Number.isInteger(value) ? 0 : 1);
}

/** Day of a date, in the reader's own order and language. */
export function day(iso: string): string {
  return new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(iso));
}
