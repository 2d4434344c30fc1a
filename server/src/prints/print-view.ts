import type { PrintInput, PrintSettings, PrintView } from '@rakuen/contract/prints';
import { SETTING_KEYS, type SettingKey } from '@rakuen/contract/vocabulary';
import type { PrintRow } from '../store/entities/prints.ts';

/** Sheets spoilt on the way to a print, and by what. */
export interface Spoilt {
  readonly sheets: number;
  readonly causes: string;
}
const NONE: Spoilt = { sheets: 0, causes: '' };

/** A print as the interface gets it. */
export function printView(row: PrintRow, { sheets, causes }: Spoilt = NONE): PrintView {
  const { boxId, fromPrintId: _from, minutes, decidedBy, verdict, ...rest } = row;
  return {
    ...rest,
    verdict: verdict as PrintInput['verdict'],
    ...(boxId && { boxId }),
    ...(minutes !== null && { minutes }),
    ...(decidedBy && { decidedBy: decidedBy as NonNullable<PrintInput['decidedBy']> }),
    misprints: sheets,
    misprintCause: causes,
  };
}

/** What is written of a print; what was spoilt on the way is booked by itself. */
export function written(input: PrintInput) {
  const { misprints: _sheets, misprintCause: _cause, ...rest } = input;
  return {
    ...rest,
    notes: input.notes ?? '',
    boxId: input.boxId ?? null,
    judgedIn: input.judgedIn?.trim() ?? '',
    decidedBy: input.decidedBy ?? '',
    decidedWhy: input.decidedWhy?.trim() ?? '',
  };
}

/** Settings that have a value. */
export const said = (settings: PrintSettings): SettingKey[] =>
  SETTING_KEYS.filter((key) => settings[key] !== undefined && settings[key] !== '');
