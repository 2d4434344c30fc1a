import type { Figure } from '@rakuen/core/measurement/figure';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import type { LitCondition } from '../src/compare/use-light.ts';
import { partly } from './partly.ts';

const MISSING: Figure = { shape: 'missing', why: 'Nobody has looked yet.' };
export const scalar = (value: number, sd = 0.01): Figure => ({ shape: 'scalar', value, sd });
export const colour = (L: number, a = 0, b = 0, sd = 0.1): Figure => ({ shape: 'colour', lab: [L, a, b], sd });

/** A print condition on the table, with the figures a test asks about; every other is missing. */
export function lit(
  name: string,
  figures: Record<string, Figure>,
  {
    reading = {},
    source = 'measured',
    ...over
  }: { reading?: object; source?: string } & Partial<Pick<LitCondition, 'lit' | 'underLight' | 'observations'>> = {},
): LitCondition {
  const readingId = `r-${name}`;
  return partly({
    id: name,
    paper: { id: `p-${name}`, name, maker: 'Mill', brightenerClaim: 'none' },
    printer: 'Press',
    mediaSetting: 'Coated',
    printMode: 'colour through a profile',
    observations: [],
    readings: [
      {
        id: readingId,
        fileName: `${name}.txt`,
        measurementCondition: 'M1',
        importedAt: '2026-11-01T00:00:00Z',
        source,
        ...reading,
      },
    ],
    facts: {
      version: 1,
      readingId,
      source,
      figures: { ...Object.fromEntries(MEASURES.map((m) => [m.key, MISSING])), ...figures },
      outline: [],
    },
    underLight: 'as measured',
    ...over,
  });
}
