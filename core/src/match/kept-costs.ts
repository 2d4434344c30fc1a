import type { Choice } from './eye.ts';
import type { JudgedSheet } from './judge.ts';
import { LEANINGS } from './leanings/registry.ts';

/**
 * What a decision is learned from later, kept with it: what each criterion took from each sheet at weight 1. Criteria that
 * took the same of all are left out.
 */
export interface KeptCosts {
  /** Print conditions; the one that was decided on is the first. */
  readonly sheets: readonly string[];
  /** By criterion: one cost a sheet. */
  readonly costs: Readonly<Record<string, readonly number[]>>;
}

/** More sheets are not kept: a draw of the others says as much of an eye (McFadden 1978: sampled alternatives). */
const MAX_SHEETS = 12;
const DIGITS = 1000;

/** @param draw which of the others are kept where there are many: a number in [0, 1) each time */
export function keepCosts(
  decidedOn: string,
  sheets: readonly JudgedSheet[],
  draw: () => number,
): KeptCosts | undefined {
  const first = sheets.find(({ sheet }) => sheet.id === decidedOn);
  if (!first) return undefined;
  const others = sheets
    .filter((s) => s !== first)
    .map((sheet) => ({ sheet, lot: draw() }))
    .sort((p, q) => p.lot - q.lot)
    .slice(0, MAX_SHEETS - 1)
    .map(({ sheet }) => sheet);
  const kept = [first, ...others];
  const costOf = ({ opinions }: JudgedSheet, key: string) =>
    Math.round((opinions.find((o) => o.leaning === key)?.unweighted ?? 0) * DIGITS) / DIGITS;
  return {
    sheets: kept.map(({ sheet }) => sheet.id),
    costs: Object.fromEntries(
      LEANINGS.flatMap(({ key }) => {
        const costs = kept.map((s) => costOf(s, key));
        return costs.some((c) => c !== costs[0]) ? [[key, costs]] : [];
      }),
    ),
  };
}

/** A decision as an eye is learned from it. Criteria that were not there yet took nothing. */
export const choiceOf = (pictureId: string, { sheets, costs }: KeptCosts): Choice => ({
  pictureId,
  costs: sheets.map((_, s) => LEANINGS.map(({ key }) => costs[key]?.[s] ?? 0)),
  chosen: 0,
});
