import type { Measure } from './measures/measure.ts';
import type { MeasurementCondition } from './reading.ts';

/** What a figure of a sheet rests on, besides its number. */
export interface Basis {
  /** Measurement condition of the set it comes from; absent where it was not stated. */
  readonly condition?: MeasurementCondition;
  /** Read before its print had dried. */
  readonly wet?: boolean;
  /** Told by a profile and not measured. */
  readonly told?: boolean;
  /** Set where a light or a glass was chosen: whether the figure was recomputed for it. */
  readonly recomputed?: boolean;
  /** Recomputed as if there were no brightener: the sheet was not read both with and without UV. */
  readonly brightenerUnknown?: boolean;
}

/** A print counts as dried from here on, hours (practice: a day; a night is let pass). */
export const DRY_HOURS = 12;

/** Whether a reading came before its print had dried; undefined where either time is not known. */
export function isWet(printedAt: string | undefined, readAt: string | undefined): boolean | undefined {
  if (!printedAt || !readAt) return undefined;
  const hours = (Date.parse(readAt) - Date.parse(printedAt)) / 3_600_000;
  return Number.isNaN(hours) || hours < 0 ? undefined : hours < DRY_HOURS;
}

/**
 * Why a figure of one sheet and the same figure of another are not held against each other: they rest on unlike things.
 * @returns undefined where they are alike
 */
export function whyUnlike(measure: Measure, p: Basis, q: Basis): string | undefined {
  if ('observe' in measure) return undefined;
  if (p.recomputed === false || q.recomputed === false) return 'not recomputed for this light';
  if (!measure.uvBlind && (p.brightenerUnknown || q.brightenerUnknown))
    return 'what brightener does in this light is known of one at most';
  if (Boolean(p.told) !== Boolean(q.told)) return 'one measured, one told by a profile';
  if (Boolean(p.wet) !== Boolean(q.wet)) return 'one read before it had dried';
  // Where a file does not say, it is taken for like; that it is not known is said beside the pair.
  if (measure.ownCondition || !p.condition || !q.condition || p.condition === q.condition) return undefined;
  // A black ink hides the brightener under it; a polarising filter deepens it.
  if (measure.uvBlind && p.condition !== 'M3' && q.condition !== 'M3') return undefined;
  return `read in ${p.condition} and ${q.condition}`;
}
