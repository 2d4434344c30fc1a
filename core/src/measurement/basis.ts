import { isWet, whyUnlike, type Basis } from './alike.ts';
import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import { MEASURES } from './measures/registry.ts';
import type { MeasurementCondition } from './reading.ts';

/** A set of readings as it is known beside its figures. Times are ISO 8601; `measuredAt` is as its file has it. */
export interface KnownReading {
  readonly id: string;
  readonly source: 'measured' | 'profile';
  readonly measurementCondition?: MeasurementCondition;
  readonly printedAt?: string;
  readonly measuredAt?: string;
  readonly importedAt: string;
}

/** A print condition as it is shown: as it was measured, or under a light that was chosen, with the figures recomputed for it. */
export interface ShownCondition<R extends KnownReading = KnownReading> {
  readonly facts?: {
    readonly readingId?: string;
    readonly borrowed?: Readonly<Record<string, string>>;
    readonly figures: Readonly<Record<string, Figure>>;
  };
  readonly readings: readonly R[];
  /**
   * Absent where nothing was chosen; `keys` are the measures recomputed for what was, with the brightener told apart or
   * as if there were none.
   */
  readonly lit?: { readonly under: string; readonly keys: ReadonlySet<string>; readonly brightenerUnknown?: boolean };
}

/** The set a figure comes from. */
export function readingBehind<R extends KnownReading>(
  { facts, readings }: ShownCondition<R>,
  measure: Measure,
): R | undefined {
  const id = facts?.borrowed?.[measure.key] ?? facts?.readingId;
  return readings.find((r) => r.id === id);
}

/** When a set was read: as its file says where that is a date, else when it was kept. */
export function whenRead({ measuredAt, importedAt }: Pick<KnownReading, 'measuredAt' | 'importedAt'>): string {
  return measuredAt && !Number.isNaN(Date.parse(measuredAt)) ? measuredAt : importedAt;
}

/** What a figure of a print condition rests on. */
export function basisOf(condition: ShownCondition, measure: Measure): Basis {
  const reading = readingBehind(condition, measure);
  return {
    condition: reading?.measurementCondition,
    wet: reading && isWet(reading.printedAt, whenRead(reading)),
    told: reading?.source === 'profile',
    recomputed: condition.lit?.keys.has(measure.key),
    brightenerUnknown: condition.lit?.keys.has(measure.key) && condition.lit.brightenerUnknown,
  };
}

/** Why a measure of two print conditions is not held against each other; undefined where it may be. */
export const unlike = (measure: Measure, p: ShownCondition, q: ShownCondition): string | undefined =>
  whyUnlike(measure, basisOf(p, measure), basisOf(q, measure));

/** The measures by which two print conditions may be held against each other. */
export const alikeMeasures = (p: ShownCondition, q: ShownCondition): Measure[] =>
  MEASURES.filter((m) => unlike(m, p, q) === undefined);

/** Of several print conditions those whose figures may be put in one order; none where they rest on unlike things. */
export function comparable<T extends ShownCondition>(measure: Measure, list: readonly T[]): T[] {
  const known = list.filter((c) => {
    const figure = c.facts?.figures[measure.key];
    return figure && figure.shape !== 'missing' && ('observe' in measure || basisOf(c, measure).recomputed !== false);
  });
  return known.every((c) => unlike(measure, known[0]!, c) === undefined) ? known : [];
}

/** Figures of several print conditions, each without those that can’t be put in one order with the others’. */
export function comparableFigures(list: readonly ShownCondition[]): Record<string, Figure>[] {
  const alike = MEASURES.map((m) => [m.key, new Set(comparable(m, list))] as const);
  return list.map((c) =>
    Object.fromEntries(alike.flatMap(([key, those]) => (those.has(c) ? [[key, c.facts!.figures[key]!]] : []))),
  );
}

/** Measures of a pair that are there on both sides and are not held against each other, by reason. */
export function unlikeByReason(p: ShownCondition, q: ShownCondition): Map<string, Measure[]> {
  const present = (c: ShownCondition, m: Measure) => (c.facts?.figures[m.key]?.shape ?? 'missing') !== 'missing';
  const reasons = new Map<string, Measure[]>();
  for (const m of MEASURES) {
    const why = present(p, m) && present(q, m) ? unlike(m, p, q) : undefined;
    if (why) reasons.set(why, [...(reasons.get(why) ?? []), m]);
  }
  return reasons;
}

/** Which of several sheets, by place, do not say the measurement condition that others say; they are taken for like, and that is told. */
export function unstated(list: readonly ShownCondition[]): number[] {
  const conditions = list.map(({ facts, readings }) => {
    const reading = readings.find((r) => r.id === facts?.readingId);
    return reading?.source === 'measured' ? (reading.measurementCondition ?? 'unstated') : undefined;
  });
  if (!conditions.some((c) => c !== undefined && c !== 'unstated')) return [];
  return conditions.flatMap((c, i) => (c === 'unstated' ? [i] : []));
}
