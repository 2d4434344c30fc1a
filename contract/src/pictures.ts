import type { Lab } from '@rakuen/core/colour/types';
import { FORMATS, PRICE_CLASSES, VETOES, type Format, type PriceClass, type Veto } from '@rakuen/core/match/commission';
import { HINTS, type Hint } from '@rakuen/core/picture/hints';
import { MARK_KINDS, type Mark, type MarkKind } from '@rakuen/core/picture/marks';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import {
  FreeText,
  Id,
  Ids,
  Int,
  Maybe,
  Num,
  Numbers,
  OneOf,
  Part,
  Parts,
  Plain,
  Text,
  Several,
  Day,
  When,
  Words,
  Yes,
} from './fields.ts';
import { JOB_STATES } from './vocabulary.ts';

/** Form fields beside the file of a picture. */
export class PictureFields {
  @Maybe() @Text(160) title?: string;
  /** "yes" sets the embedded profile aside and reads the picture as sRGB; for a file whose profile is broken. */
  @Maybe() @OneOf(['yes', 'no']) assumeSrgb?: 'yes' | 'no';
}

/** Where a picture will hang. */
export class CommissionInput {
  @Num(20, 10_000) longSideMm!: number;
  /** Absent where it follows from the picture. */
  @Maybe() @Num(20, 10_000) shortSideMm?: number;
  /** What it is printed on; absent where any will do. */
  @Maybe() @OneOf(Object.keys(FORMATS)) format?: Format;
  /** How much the price of the paper counts; absent for standard. */
  @Maybe() @OneOf(Object.keys(PRICE_CLASSES)) priceClass?: PriceClass;
  @Num(50, 20_000) viewingMm!: number;
  @Int(1, 100_000) copies!: number;
  /** Copies that are numbered; absent for an open edition. */
  @Maybe() @Int(1, 100_000) editionOf?: number;
  @Yes() handled!: boolean;
  /** A light of the table, or an imported lamp. */
  @Text(60) light!: string;
  @Text(20) glass!: string;
  @Num(1, 20_000) lux!: number;
  @Yes() mustLast!: boolean;
  @Several(Object.keys(VETOES)) vetoes!: readonly Veto[];
  /** L*, a*, b* of an original's ground. */
  @Maybe() @Numbers(-128, 128, 3, 3) originalGround?: Lab;
  @Maybe() @FreeText(2000) wishes?: string;
  @Maybe() @Text(80) signedOffBy?: string;
  @Maybe() @Day() deadline?: string;
}

/** One commission for many pictures. The ground of an original stays each picture’s own. */
export class CommissionForMany {
  @Ids(5000) pictureIds!: string[];
  @Part(() => CommissionInput) commission!: CommissionInput;
}

export class CommissionedMany {
  /** Pictures whose commission differs from before. */
  @Int() changed!: number;
}

export class MarkInput {
  @OneOf(Object.keys(MARK_KINDS)) kind!: MarkKind;
  @Num(0, 1) x!: number;
  @Num(0, 1) y!: number;
  @Numbers(-128, 128, 3, 3) lab!: Lab;
  @Num(0, 100) detailL!: number;
  /** The printmaker’s own word for it. */
  @Maybe() @Text(60) word?: string;
}

/** What a hand changes of a picture; what is absent stays. */
export class PictureChange {
  @Maybe() @Text(160) title?: string;
  @Maybe() @Part(() => CommissionInput) commission?: CommissionInput;
  /** Marks of one's own in place of those that were found. */
  @Maybe() @Parts(() => MarkInput, 40) marks?: MarkInput[];
  @Maybe() @Several(HINTS) hints?: Hint[];
  /** Back to what was found. */
  @Maybe() @Several(['marks', 'hints', 'commission']) asFound?: ('marks' | 'hints' | 'commission')[];
}

export class PictureView {
  @Id() id!: string;
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Text(160) title!: string;
  @FreeText(2000) caption!: string;
  @Text() fileName!: string;
  @Text(64) contentHash!: string;
  @OneOf(['JPEG', 'PNG', 'TIFF']) format!: string;
  @Int(1) widthPx!: number;
  @Int(1) heightPx!: number;
  @Int(8, 32) bitsPerChannel!: number;
  /** Name of the profile the colours were read through. */
  @Text() profile!: string;
  /** No profile was embedded (or it was set aside), so sRGB was assumed. */
  @Yes() profileAssumed!: boolean;
  /** What the printmaker should know: a transparent layer, pages that were not read. */
  @Words() notes!: string[];
  @Plain() figures!: PictureFigures;
  @Int() colourCells!: number;
  @When() addedAt!: string;
  /** As said, or as it begins. */
  @Part(() => CommissionInput) commission!: CommissionInput;
  @Yes() commissioned!: boolean;
  /** As set by hand, or as they were found. */
  @Parts(() => MarkInput) marks!: Mark[];
  @Yes() marksByHand!: boolean;
  @Words() hints!: Hint[];
  @Yes() hintsByHand!: boolean;
}

/** A picture on its way in. */
export class PictureJob {
  @Id() id!: string;
  @Text() fileName!: string;
  @OneOf(JOB_STATES) state!: (typeof JOB_STATES)[number];
  /** 0–1. */
  @Num(0, 1) progress!: number;
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Plain() error?: { message: string; remedy?: string; field?: string };
}
