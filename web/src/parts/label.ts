import { dayOf, noonOf } from '@rakuen/core/day';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { formatNumber } from '@rakuen/core/measurement/show';
import { thickness, weight } from '@rakuen/core/measurement/measures/body';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { textureAmplitude } from '@rakuen/core/measurement/measures/texture';
import type { Claims } from '@rakuen/core/paper';

/** A print condition in a line, under its paper's name: printer, media setting, and whatever parts it from the usual and from its like. */
export function conditionLine(c: ConditionHead): string {
  return [c.printer, ...settingWords(c)].join(' · ');
}

/** The same where the printer is said elsewhere. */
export function settingLine(c: ConditionHead): string {
  return settingWords(c).join(' · ');
}

function settingWords(c: ConditionHead): string[] {
  const parts = [c.mediaSetting];
  if (c.printMode !== 'colour through a profile') parts.push(c.printMode);
  if (c.blackOvercoat) parts.push('black overcoat');
  if (c.apart) parts.push(c.apart);
  return parts;
}

/** What stands where a maker claims nothing. */
export const NOT_CLAIMED = 'not claimed';

/** What a maker claims of a sheet, with its unit; where nothing is claimed that is said. */
export const claimOf = ({ claim }: Measure, paper: Claims): string => claim?.says(paper) ?? NOT_CLAIMED;

/** What is claimed of a sheet's body, and nothing else. */
export const bodyClaims = (paper: Claims): string[] =>
  [weight, thickness, textureAmplitude].flatMap(({ claim }) => claim!.says(paper) ?? []);

/** Day of a date, in the reader's own order and language; a calendar day is shown as it is kept, in every time zone. */
export function day(iso: string): string {
  const of = dayOf(iso);
  // Files state their dates in many ways: what is no day of ours is read as the browser reads it.
  const at = /^\d{4}-\d{2}-\d{2}$/.test(of) ? noonOf(of) : new Date(iso);
  return new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(at);
}

/** A date as a file says it: in the reader's own order where it is understood, else as it stands. */
export function asStated(date: string): string {
  return Number.isNaN(Date.parse(date)) ? date : day(date);
}

/** Day and hour of a date. */
export function hour(iso: string): string {
  return new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso));
}

/** How long a print had dried, in the words of the bench. */
export function dried(hours: number): string {
  if (hours < 1) return `${formatNumber(hours * 60, 0)} min`;
  return hours < 48 ? `${formatNumber(hours, 0)} h` : `${formatNumber(hours / 24, 0)} days`;
}
