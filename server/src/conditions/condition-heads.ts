import type { Figure } from '@rakuen/core/measurement/figure';
import type { Lab } from '@rakuen/core/colour/types';
import { greyAt, type RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { HEAD_MEASURES, type ConditionFacts, type FactsHead, type HeadMeasure } from '@rakuen/contract/conditions';

/** Digits a drawing needs. */
const HUNDREDTHS = 100;

/** What is taken out of a print condition's facts, as the database gives it. */
export type HeadRow = { readingId: string | null; source: string | null; ramp: string | null } & Record<
  HeadMeasure,
  string | null
>;

/** That, in SQL. */
export const HEAD_COLUMNS = [
  ...['readingId', 'source', 'ramp'].map((key) => `json_extract(d.value, '$.${key}') AS ${key}`),
  ...HEAD_MEASURES.map((key) => `json_extract(d.value, '$.figures.${key}') AS ${key}`),
].join(', ');

const parsed = <T>(text: string | null): T | undefined => (text === null ? undefined : (JSON.parse(text) as T));

export const headOf = (row: HeadRow): FactsHead =>
  factsHead({
    readingId: row.readingId ?? undefined,
    source: (row.source as FactsHead['source']) ?? undefined,
    ramp: parsed<RampStep[]>(row.ramp),
    figures: Object.fromEntries(
      HEAD_MEASURES.flatMap((key) => {
        const figure = parsed<Figure>(row[key]);
        return figure ? [[key, figure]] : [];
      }),
    ),
  });

/** What a list shows of a print condition's facts. */
export function factsHead(facts: Pick<ConditionFacts, 'readingId' | 'source' | 'ramp' | 'figures'>): FactsHead {
  const { readingId, source, ramp, figures } = facts;
  return {
    readingId,
    source,
    figures: Object.fromEntries(HEAD_MEASURES.flatMap((key) => (figures[key] ? [[key, figures[key]]] : []))),
    greys: ramp && forDrawing(ramp),
  };
}

const GREYS = 9;

/** A few of the greys, both ends among them. */
const forDrawing = (ramp: readonly RampStep[]): Lab[] =>
  Array.from({ length: GREYS }, (_, i) => {
    const [L, a, b] = greyAt(ramp, i / (GREYS - 1)).map((v) => Math.round(v * HUNDREDTHS) / HUNDREDTHS);
    return [L, a, b];
  });
