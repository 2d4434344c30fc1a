import { dayOf } from '@rakuen/core/day';
import type { PrintInput, PrintSettings, PrintView } from '@rakuen/contract/prints';
import { SETTING_KEYS, type SettingKey } from '@rakuen/contract/vocabulary';
import { recordCode } from '@rakuen/core/print/record-code';
import type { PrintRow } from './prints.entity.ts';

/** Sheets spoilt on the way to a print, and by what. */
export interface Spoilt {
  readonly sheets: number;
  readonly causes: string;
}
const NONE: Spoilt = { sheets: 0, causes: '' };

/** A print as the interface gets it. */
export function printView(row: PrintRow, { sheets, causes }: Spoilt = NONE, unchecked?: SettingKey[]): PrintView {
  return {
    id: row.id,
    revision: row.revision,
    recordedAt: row.recordedAt,
    pictureId: row.pictureId,
    conditionId: row.conditionId,
    // Studios of before kept instants here.
    printedOn: dayOf(row.printedOn),
    widthMm: row.widthMm,
    heightMm: row.heightMm,
    copies: row.copies,
    settings: row.settings,
    carriedOver: row.carriedOver,
    carriedFrom: row.carriedFrom,
    state: row.state,
    verdict: row.verdict,
    verdictReason: row.verdictReason,
    notes: row.notes,
    boxId: row.boxId ?? undefined,
    minutes: row.minutes ?? undefined,
    judgedIn: row.judgedIn,
    decidedBy: row.decidedBy || undefined,
    decidedWhy: row.decidedWhy,
    misprints: sheets,
    misprintCause: causes,
    code: recordCode(row.id),
    recipe: row.recipe ?? undefined,
    profileHash: row.profileHash || undefined,
    pictureHash: row.pictureHash || undefined,
    fileHash: row.fileHash || undefined,
    fileName: row.fileName || undefined,
    passed: row.passed ?? undefined,
    orderLineId: row.orderLineId ?? undefined,
    unchecked,
  };
}

/** What is written of a print; what was spoilt on the way is booked by itself. */
export function written(input: PrintInput) {
  const { misprints: _sheets, misprintCause: _cause, ...rest } = input;
  return {
    ...rest,
    printedOn: dayOf(input.printedOn),
    notes: input.notes ?? '',
    boxId: input.boxId ?? null,
    judgedIn: input.judgedIn?.trim() ?? '',
    decidedBy: input.decidedBy ?? ('' as const),
    decidedWhy: input.decidedWhy?.trim() ?? '',
  };
}

/** Settings that have a value. */
export const said = (settings: PrintSettings): SettingKey[] =>
  SETTING_KEYS.filter((key) => settings[key] !== undefined && settings[key] !== '');
