import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PaperHead } from '@rakuen/contract/papers';
import { formatNumber } from '@rakuen/core/measurement/show';
import { bulk } from '@rakuen/core/paper';

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

/** A number as a maker claims it: as many digits as were given, to one after the point. */
export function asClaimed(value: number): string {
  return formatNumber(value, Number.isInteger(value) ? 0 : 1);
}

/** What stands where a maker claims nothing. */
export const NOT_CLAIMED = 'not claimed';

/** What a maker claims of a sheet, with its unit; where nothing is claimed that is said. */
export const CLAIMED = {
  weight: (paper: PaperHead) => (paper.weightGsm === undefined ? NOT_CLAIMED : `${asClaimed(paper.weightGsm)} g/m²`),
  thickness: (paper: PaperHead) =>
    paper.thicknessUm === undefined ? NOT_CLAIMED : `${asClaimed(paper.thicknessUm)} µm`,
  bulk(paper: PaperHead) {
    const claimed = bulk(paper.thicknessUm, paper.weightGsm);
    return claimed === undefined ? NOT_CLAIMED : `${formatNumber(claimed, 2)} cm³/g`;
  },
  surface: (paper: PaperHead) => paper.surface ?? NOT_CLAIMED,
  brightener: (paper: PaperHead) => paper.brightenerClaim,
} as const;

/** What is claimed of a sheet's body, and nothing else. */
export const bodyClaims = (paper: PaperHead): string[] =>
  [CLAIMED.weight(paper), CLAIMED.thickness(paper), CLAIMED.surface(paper)].filter((words) => words !== NOT_CLAIMED);

/** Day of a date, in the reader's own order and language. */
export function day(iso: string): string {
  return new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(iso));
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
