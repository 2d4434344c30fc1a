import type { Lab } from '@rakuen/core/colour/types';
import type { Finding } from '@rakuen/core/session/strip-check';
import type { Outlier } from '@rakuen/core/session/outliers';
import { FreeText, Id, Int, Maybe, Num, OneOf, Part, Parts, Plain, Rows, Text, When, Words, Yes } from './fields.ts';
import { INSTRUMENTS, REHEARSALS, type Rehearsal } from './vocabulary.ts';

/** A chart read into a print condition, strip by strip. */
export class SessionInput {
  @Id() conditionId!: string;
  @Id() chartId!: string;
  @OneOf(INSTRUMENTS) instrument!: string;
  /** How often every strip is read. */
  @Int(1, 6) passes!: number;
  @When() printedAt!: string;
  @Maybe() @FreeText(80) batch?: string;
  @OneOf(REHEARSALS) rehearsal!: Rehearsal;
}

export class SessionQuery {
  @Maybe() @Id() conditionId?: string;
}

/** A strip and which time it is read, both from 0. */
export class StripPlace {
  @Int(0, 100_000) strip!: number;
  @Int(0, 10) pass!: number;
}

/** What is done with a strip in question: keep it as it is, or leave the patches out that were found bad. */
export class MendInput extends StripPlace {
  @OneOf(['keep', 'leave out']) mend!: 'keep' | 'leave out';
}

export class PatchPlace {
  @Int(0, 1_000_000) patch!: number;
  @Int(0, 10) pass!: number;
  /** Left out of the reading, or taken back in. */
  @Yes() out!: boolean;
}

export class FinishInput {
  /** The whites take the drift out of every strip. */
  @Yes() takeDriftOut!: boolean;
}

/** One pass over a strip, as it was read. */
export class StripPassView extends StripPlace {
  @OneOf(['kept', 'questioned']) state!: 'kept' | 'questioned';
  @When() takenAt!: string;
  @Rows() findings!: Finding[];
  /** CIELAB by patch, M1. */
  @Rows() labs!: Lab[];
}

export class SessionStrip {
  @Text() label!: string;
  @Words() patchIds!: string[];
  /** Device colour 0–1 by patch. */
  @Rows() device!: (readonly [number, number, number])[];
  /** What a printer of that kind should give, bent towards what was read. */
  @Rows() expected!: Lab[];
  @Parts(() => StripPassView) passes!: StripPassView[];
}

export class SessionHead {
  @Id() id!: string;
  @Id() conditionId!: string;
  @Id() chartId!: string;
  @Text() chartName!: string;
  @Text() instrument!: string;
  @Int() passes!: number;
  @When() createdAt!: string;
  @When() printedAt!: string;
  @FreeText(80) batch!: string;
  @OneOf(REHEARSALS) rehearsal!: Rehearsal;
  @OneOf(['open', 'finished']) state!: 'open' | 'finished';
  @Int() stripCount!: number;
  /** Strip passes that were kept, of stripCount × passes. */
  @Int() kept!: number;
}

/** A sheet of a chart, from 1 as it is printed on it. */
export class SheetPlace {
  @Int(1, 1000) sheet!: number;
}

/** The sheet that must be laid under the instrument before the next strip. */
export class SheetToLay extends SheetPlace {
  @Int() of!: number;
}

export class SessionView extends SessionHead {
  @Parts(() => SessionStrip) strips!: SessionStrip[];
  /** What is read next; absent when all is read or a strip is in question. */
  @Maybe() @Plain() next?: { strip: number; pass: number };
  /** Where the next strip is on another sheet than the one that lies under the instrument. */
  @Maybe() @Part(() => SheetToLay) lay?: SheetToLay;
  /** The strip in question. */
  @Maybe() @Plain() questioned?: { strip: number; pass: number };
  /** Drift of the whites since the calibration, where it is worth a word. */
  @Maybe() @Plain() drift?: Finding;
  @Int() sinceCalibration!: number;
  /** Passes that lie apart from the others of their patch; patches counted through the chart. */
  @Rows() outliers!: Outlier[];
  /** Patch passes that were left out. */
  @Rows() excluded!: { patch: number; pass: number }[];
  @Num() driedHours!: number;
}
