import { Id, Maybe, OneOf, Parts, Plain, Text, When, Int, QueryInt } from './fields.ts';

export class LedgerQuery {
  /** Words that must all occur: paper, picture, reason, setting, verdict. */
  @Maybe() @Text(200) q?: string;
  @Maybe() @OneOf(['decision', 'print']) kind?: 'decision' | 'print';
  /** The page begins after so many. */
  @Maybe() @QueryInt() from?: number;
}

/** A line of the ledger: something decided or something printed. */
export class LedgerEntry {
  @Id() id!: string;
  @OneOf(['decision', 'print']) kind!: 'decision' | 'print';
  @When() at!: string;
  @Id() pictureId!: string;
  @Text() picture!: string;
  @Id() conditionId!: string;
  @Text() paper!: string;
  @Text() condition!: string;
  /** Stamp or verdict. */
  @Text() outcome!: string;
  @Text() reason!: string;
  /** Everything else, flat: column name → value. */
  @Plain() details!: Record<string, string | number | boolean>;
}

export class LedgerView {
  /** The newest first; a page of them, or all where the ledger is taken away. */
  @Parts(() => LedgerEntry, 1e6) entries!: LedgerEntry[];
  @Int() total!: number;
}
