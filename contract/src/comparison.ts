import { Maybe, OneOf, Text } from './fields.ts';

/** The comparison to be taken away: as measured, in the order of the ids. */
export class ComparisonQuery {
  @OneOf(['csv', 'pdf']) as!: 'csv' | 'pdf';
  /** Print conditions, separated by commas; the first two are in hand. */
  @Text(400) ids!: string;
  /** Light and glass over the table; D50 with its UV and none where absent. */
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
}
