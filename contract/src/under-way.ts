import { Id, Int, Maybe } from './fields.ts';

/** How far something is that takes long: its parts that are done, of all. */
export class UnderWayView {
  @Int() done!: number;
  @Int() total!: number;
}

export class UnderWayQuery {
  /** A name by which it can be asked how far it is, and be left. */
  @Maybe() @Id() work?: string;
}
