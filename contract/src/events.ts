import { FreeText, Id, Int, Maybe, OneOf, QueryInt, Rows, Text, When, Yes } from './fields.ts';

/** Which events: those about one thing and what belongs to it, older than one already seen. */
export class EventsQuery {
  @Maybe() @Id() about?: string;
  @Maybe() @QueryInt() before?: number;
}

/** What happened to one thing. */
export class EventView {
  @Int() seq!: number;
  /** The deed it belongs to; by it, it is undone. */
  @Text() change!: string;
  @When() at!: string;
  @OneOf(['made', 'changed', 'removed']) deed!: 'made' | 'changed' | 'removed';
  @Text() id!: string;
  @Text() noun!: string;
  @FreeText() name!: string;
  @Rows() changes!: { field: string; before: string; after: string }[];
  /** A change made in a form, that can be undone. */
  @Yes() undoable!: boolean;
}

/** Something that was removed and can come back. */
export class BinEntry {
  @Text() change!: string;
  @When() at!: string;
  @Text() noun!: string;
  @FreeText() name!: string;
  /** What went with it: "2 readings, 8 observations". */
  @FreeText() parts!: string;
}
