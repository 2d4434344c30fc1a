import type { Difference } from '@rakuen/core/print/differences';
import type { Drying } from '@rakuen/core/print/drying';
import type { RunPlan } from '@rakuen/core/print/run-order';
import { Id, Ids, Int, Maybe, Num, OneOf, Parts, Plain, Rows, Text, When, Words } from './fields.ts';
import { PrintView } from './prints.ts';

/** When someone is at the printer, minutes from the beginning. */
export class PresenceInput {
  @Num(0, 10_000) fromMin!: number;
  @Num(0, 10_000) toMin!: number;
}

/** A session at the printer, planned from what waits. */
export class RunInput {
  @Text(80) printer!: string;
  /** The waiting prints that are to be made; all of that printer where absent. */
  @Maybe() @Ids(200) printIds?: string[];
  /** Empty or absent: someone is there all the time. */
  @Maybe() @Parts(() => PresenceInput, 20) present?: PresenceInput[];
}

/** What was checked; the whole of it, so that a tick can be taken back. */
export class RunLooked {
  @Words(10) looked!: string[];
}

export class RunItemView {
  @Plain() print!: PrintView;
  @Text() title!: string;
  @Text() paper!: string;
  @Num() startMin!: number;
  @Num() endMin!: number;
  /** When its feeder is loaded, minutes from the beginning. */
  @Rows() loads!: number[];
  /** Minutes after it came out from which it may be looked at, stacked, read and framed. */
  @Plain() drying!: Drying;
  @OneOf(['waiting', 'printed', 'left']) state!: 'waiting' | 'printed' | 'left';
  /** What must be done before it: change of ink, change of feed. */
  @Words() before!: string[];
  /** What to check, and what of it was. */
  @Words() looks!: string[];
  @Words() looked!: string[];
  /** Settings that differ from the sheet before it or from the last print, beside those that `looks` cover. */
  @Rows() differs!: Difference[];
  /** Checks still open that can spoil it, in words. */
  @Words() open!: string[];
  @Words() cautions!: string[];
}

/** Paper a run takes against what is there. */
export interface RunNeed {
  readonly paperId: string;
  readonly paper: string;
  readonly sheets: number;
  /** Sheets left in the boxes of that paper; absent where no box is known. */
  readonly left?: number;
}

export class RunView {
  @Id() id!: string;
  @When() createdAt!: string;
  @Text(80) printer!: string;
  @OneOf(['open', 'closed']) state!: 'open' | 'closed';
  @Words() looked!: string[];
  @Rows() items!: RunItemView[];
  @Plain() plan!: Omit<RunPlan, 'steps' | 'unplaced'>;
  /** Prints that need a hand for longer than anyone is there: they wait for another run. */
  @Rows() unplaced!: { readonly printId: string; readonly title: string }[];
  @Rows() needs!: RunNeed[];
  /** Ink the prints take, ml, judged from area and density; absent where a sheet has no readings. */
  @Maybe() @Num(0) inkMl?: number;
}

/** A sheet that was spoilt, booked at the printer. */
export class MisprintInput {
  @Text(80) cause!: string;
  /** The look that would have caught it; empty where none. */
  @Maybe() @Text(60) look?: string;
  @Int(1, 10_000) sheets!: number;
  @Maybe() @Num(0, 100_000) minutes?: number;
  @Maybe() @Text(1000) note?: string;
}

export class MisprintView extends MisprintInput {
  @Id() id!: string;
  @When() at!: string;
  @Maybe() @Id() printId?: string;
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  /** What the sheets cost, by the price of that day; absent where none was known. */
  @Maybe() @Num(0) lost?: number;
  @Maybe() @Text(3) currency?: string;
}

export class CauseView {
  @Text(80) name!: string;
  @Text(60) look!: string;
  @Int(0) times!: number;
}
