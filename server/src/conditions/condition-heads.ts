import type { DataSource } from 'typeorm';
import type { Figure } from '@rakuen/core/measurement/figure';
import type { Lab } from '@rakuen/core/colour/types';
import { greyAt, type RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { HEAD_MEASURES, type FactsHead, type HeadMeasure } from '@rakuen/contract/conditions';

/** Digits a drawing needs. */
const HUNDREDTHS = 100;

type Row = { id: string; readingId: string | null; source: string | null; ramp: string | null } & Record<
  HeadMeasure,
  string | null
>;

/** What a list shows of every print condition's facts, by id: taken out by the database, for the whole of them is some forty times as much. */
export async function factsHeads(database: DataSource): Promise<Map<string, FactsHead>> {
  const rows = await database.query<Row[]>(
    `SELECT id, json_extract(facts, '$.readingId') AS readingId, json_extract(facts, '$.source') AS source, json_extract(facts, '$.ramp') AS ramp,
       ${HEAD_MEASURES.map((key) => `json_extract(facts, '$.figures.${key}') AS ${key}`).join(', ')}
     FROM conditions WHERE facts IS NOT NULL`,
  );
  return new Map(rows.map((row) => [row.id, factsHead(row)]));
}

const parsed = <T>(text: string | null): T | undefined => (text === null ? undefined : (JSON.parse(text) as T));

function factsHead(row: Row): FactsHead {
  const ramp = parsed<RampStep[]>(row.ramp);
  return {
    readingId: row.readingId ?? undefined,
    source: (row.source as FactsHead['source']) ?? undefined,
    figures: Object.fromEntries(
      HEAD_MEASURES.flatMap((key) => {
        const figure = parsed<Figure>(row[key]);
        return figure ? [[key, figure]] : [];
      }),
    ),
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
