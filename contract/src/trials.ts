import type { TrialRank } from '@rakuen/core/measurement/trial';
import { Lines, FreeText, Id, Maybe, Rows, Text, When } from './fields.ts';

/** The setting that was chosen among several of one paper in one printer. */
export class TrialInput {
  @Id() conditionId!: string;
  @Lines() reason!: string;
  @Text(80) by!: string;
  /** The light the test pages were looked at under. */
  @Maybe() @FreeText(80) light?: string;
}

/** A trial as it stood when it was stamped. The newest of a paper and printer is its standing recommendation. */
export class TrialView extends TrialInput {
  @Id() id!: string;
  @When() stampedAt!: string;
  @Id() paperId!: string;
  @Text() printer!: string;
  @Text() mediaSetting!: string;
  /** Every setting that was tried, ranked, with the figures of that day; one that has no mean place was not measured. */
  @Rows() ranking!: (Omit<TrialRank, 'mean'> & { readonly mean?: number; readonly mediaSetting: string })[];
}
