import { SERIES_KEYS, type Series } from '@rakuen/core/print/edition';
import { MoveView } from './clients.ts';
import { CommaIds, FreeText, Id, Int, Maybe, Num, OneOf, Parts, Text, When, Yes } from './fields.ts';
import { MAX_NUMBERS_AT_ONCE } from './vocabulary.ts';

/** An edition: the picture, the sheet, the size, and how many there will ever be. */
export class EditionInput {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  @Text(120) name!: string;
  /** Numbered prints there will be; absent for an open edition. */
  @Maybe() @Int(1, 10_000) size?: number;
  /** Artist’s proofs, printer’s proofs, good to print. */
  @Int(0, 1000) artist!: number;
  @Int(0, 1000) printer!: number;
  @Int(0, 10) good!: number;
  @Num(5, 20_000) widthMm!: number;
  @Num(5, 20_000) heightMm!: number;
  /** The formulation it is locked to: what its first box says. */
  @FreeText(120) batch!: string;
  @Maybe() @FreeText(2000) notes?: string;
  /** Another edition of the same picture on the same paper in the same size is there; this one is a later one on purpose. */
  @Maybe() @Yes() later?: boolean;
}

/** Another box was held against the first print, and accepted. */
export class DriftAccepted {
  /** The box’s own words. */
  @Text(120) batch!: string;
  /** Mean ΔE00 between the boxes where it was read; absent where it was judged by eye. */
  @Maybe() @Num(0, 100) meanDeltaE?: number;
  @Text(80) by!: string;
  @Text(1000) why!: string;
}

export class NumberInput {
  @OneOf(SERIES_KEYS) series!: Series;
  /** The print it is given to. */
  @Maybe() @Id() printId?: string;
  /** Formulation of the box its sheet came from, as printed on it; needed where the print’s box is not known and the edition’s is. */
  @Maybe() @FreeText(120) batch?: string;
}

/** The next numbers of a series, for the copies of a print that bear none. */
export class NumbersInput extends NumberInput {
  @Int(1, MAX_NUMBERS_AT_ONCE) count!: number;
}

export class CertificatesQuery {
  /** Ids of numbers, with commas between. */
  @CommaIds(200) numbers!: string[];
}

export class NumberView {
  @Id() id!: string;
  @Int() revision!: number;
  @OneOf(SERIES_KEYS) series!: Series;
  @Int(1) number!: number;
  /** As it is written under the print: 3/12, AP 1/2. */
  @Text() written!: string;
  @When() givenAt!: string;
  @Maybe() @Id() printId?: string;
  @FreeText() batch!: string;
  /** Where it went, from old to new; the last is where it is. Empty while it never left the studio. */
  @Parts(() => MoveView) moves!: MoveView[];
}

export class EditionView extends EditionInput {
  @Id() id!: string;
  @When() createdAt!: string;
  @Int() revision!: number;
  /** Which edition of this picture on this paper in this size it is, from 1. */
  @Int(1) ordinal!: number;
  @Parts(() => NumberView, 100_000) numbers!: NumberView[];
  /** Once a number was given the sheet, its size and how many there are stay as they are. */
  @Yes() locked!: boolean;
  @Parts(() => DriftAccepted, 100) accepted!: DriftAccepted[];
}
